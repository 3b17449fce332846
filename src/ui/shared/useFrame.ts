import { useEffect, useRef } from 'react';

/**
 * Calls back on every display frame while `active`, and once when it stops, so that the last picture is true.
 * The callback draws; it must not set React state.
 */
export function useFrame(draw: (now: number) => void, active: boolean): void {
  const latest = useRef(draw);
  useEffect(() => {
    latest.current = draw;
  });
  useEffect(() => {
    let request = 0;
    const frame = () => {
      latest.current(window.performance.now());
      if (active) request = requestAnimationFrame(frame);
    };
    request = requestAnimationFrame(frame);
    return () => cancelAnimationFrame(request);
  }, [active]);
}
