import { useRef } from 'react';

/** A finger that moves further than this, px, scrolls and does not touch. */
const MOST_MOVED = 12;

interface Point {
  pointerId: number;
  clientX: number;
  clientY: number;
}

/** The pointer events of React DOM and of React Native, as far as they are used. */
type Touch = Point | { nativeEvent: Point };

const point = (event: Touch): Point => ('nativeEvent' in event ? event.nativeEvent : event);

/**
 * Handlers for what is touched while other fingers are down, as on a stage where a thumb holds Lift: browsers give a click to
 * the first finger alone. Keys and assistive technology press it too; a finger that scrolls does not.
 */
export function useTap(act: () => void) {
  const down = useRef<Point | null>(null);
  return {
    onPointerDown: (event: Touch) => {
      const { pointerId, clientX, clientY } = point(event);
      down.current = { pointerId, clientX, clientY };
    },
    onPointerUp: (event: Touch) => {
      const from = down.current;
      const to = point(event);
      down.current = null;
      if (from?.pointerId !== to.pointerId) return;
      if (Math.hypot(to.clientX - from.clientX, to.clientY - from.clientY) <= MOST_MOVED) act();
    },
    onPointerCancel: () => {
      down.current = null;
    },
    // Assistive technology clicks without a pointer.
    onClick: (event: { detail: number }) => {
      if (event.detail === 0) act();
    },
    onKeyDown: (event: { key: string; repeat: boolean; preventDefault(): void }) => {
      if (event.key !== 'Enter' && event.key !== ' ') return;
      event.preventDefault();
      if (!event.repeat) act();
    },
  };
}
