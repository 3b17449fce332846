import { useEffect, useRef } from 'react';

/**
 * Calls back on every display frame while `active`; otherwise after each render, so that a still picture is up to date.
 * The callback draws; it must not set React state.
 */
export function useFrame(draw: (now: number) => void, active: boolean): void {
  const latest = useRef(draw);
  useEffect(() => {
    latest.current = draw;
    if (!active) draw(window.performance.now());
  });
  useEffect(() => {
    if (!active) return undefined;
    let request = 0;
    const frame = () => {
      latest.current(window.performance.now());
      request = requestAnimationFrame(frame);
    };
    request = requestAnimationFrame(frame);
    return () => cancelAnimationFrame(request);
  }, [active]);
}
