import { useLayoutEffect, useRef } from 'react';

interface Props {
  width: number;
  height: number;
  /** Draws anew after each render, in px; what was there is gone. */
  draw: (c: CanvasRenderingContext2D) => void;
}

/** A canvas as sharp as the display, drawn before the browser paints: what was touched is seen in the same frame. */
export function LaneCanvas({ width, height, draw }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const ratio = globalThis.devicePixelRatio || 1;
  useLayoutEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || width === 0) return;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, width, height);
    draw(context);
  });
  return (
    <canvas
      ref={canvas}
      aria-hidden
      width={Math.round(width * ratio)}
      height={Math.round(height * ratio)}
      style={{ position: 'absolute', left: 0, top: 0, width, height }}
    />
  );
}
