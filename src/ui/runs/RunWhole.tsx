import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { OpenedRun } from '@/instrument/openedRun';
import { useDrag } from '../shared/useDrag';
import { useFrame } from '../shared/useFrame';
import { useTokens } from '../theme/theme';
import { drawWhole } from './drawScore';
import type { ScoreView } from './scoreView';

const HEIGHT = 52;

/** The whole run in small, with a frame round the part that is seen: dragged, it shows another part. */
export function RunWhole({ opened, view }: { opened: OpenedRun; view: ScoreView }) {
  const tokens = useTokens();
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    const element = box.current!;
    const measure = () => setWidth(element.clientWidth);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const draw = () => {
    const context = canvas.current?.getContext('2d');
    if (!context || width === 0) return;
    const ratio = window.devicePixelRatio || 1;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    drawWhole(context, { width, height: HEIGHT, score: opened.score, from: view.from, to: view.to, now: opened.tick, tokens }); // prettier-ignore
  };
  useFrame(draw, opened.isHeard);
  const latest = useRef(draw);
  useEffect(() => {
    latest.current = draw;
  });
  useEffect(() => view.subscribe(() => latest.current()), [view]);
  const dragging = useDrag({
    begin: ({ x }) => {
      const tick = (x / width) * opened.score.length;
      // Beside the frame: it comes to the finger.
      if (tick < view.from || tick > view.to) view.show(tick - view.span / 2, tick + view.span / 2);
      return view.from;
    },
    move: ({ dx }, from) => {
      const start = from + (dx / width) * opened.score.length;
      view.show(start, start + view.span);
    },
  });
  const ratio = globalThis.devicePixelRatio || 1;
  return (
    <div
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label="Part that is seen"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round((view.from / opened.score.length) * 100)}
      {...dragging()}
      onKeyDown={(event) => {
        const direction = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
        if (direction === 0) return;
        event.preventDefault();
        event.stopPropagation();
        view.scroll((direction * view.span) / 4);
      }}
      style={{ height: HEIGHT, touchAction: 'none', cursor: 'grab', background: tokens.deep, borderRadius: 6 }}
    >
      <canvas
        ref={canvas}
        aria-hidden
        width={Math.round(width * ratio)}
        height={Math.round(HEIGHT * ratio)}
        style={{ width, height: HEIGHT, display: 'block' }}
      />
    </div>
  );
}
