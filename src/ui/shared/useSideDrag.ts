import { useRef } from 'react';

/** px sideways by which a pointer no longer presses what it came down on, but drags it. */
const SLOP = 8;

interface Options<D> {
  /** It has become a drag. Returns the drag's own state, which the others are given. */
  begin: () => D;
  /** @param share of the element's width by which the pointer has gone to the right since it came down */
  move: (share: number, drag: D) => void;
  end: () => void;
}

/** The part of a pointer event that React DOM and React Native share. */
interface PointerLike {
  nativeEvent: { pointerId: number; clientX: number; clientY: number };
  currentTarget: unknown;
}

/**
 * Dragging sideways on something that is pressed, too, and on which a finger scrolls up and down (`touchAction: 'pan-y'`): as long as the
 * pointer stays near, the press is left alone.
 * @returns handlers of the element around it
 */
export function useSideDrag<D>({ begin, move, end }: Options<D>) {
  const down = useRef<{ pointerId: number; clientX: number; clientY: number; drag: { state: D } | null } | null>(null);
  const finish = ({ nativeEvent }: PointerLike) => {
    if (down.current?.pointerId !== nativeEvent.pointerId) return;
    if (down.current.drag) end();
    down.current = null;
  };
  return {
    onPointerDown: ({ nativeEvent: { pointerId, clientX, clientY } }: PointerLike) => {
      down.current ??= { pointerId, clientX, clientY, drag: null };
    },
    onPointerMove: ({ nativeEvent, currentTarget }: PointerLike) => {
      const from = down.current;
      if (from?.pointerId !== nativeEvent.pointerId) return;
      const dx = nativeEvent.clientX - from.clientX;
      const element = currentTarget as Element;
      if (!from.drag) {
        if (Math.abs(dx) < SLOP || Math.abs(nativeEvent.clientY - from.clientY) > Math.abs(dx)) return;
        // The click at its end goes to this element, and not to what was pressed.
        element.setPointerCapture(from.pointerId);
        from.drag = { state: begin() };
      }
      move(dx / element.getBoundingClientRect().width, from.drag.state);
    },
    onPointerUp: finish,
    onPointerCancel: finish,
    // A pointer that left before it was captured is up elsewhere.
    onPointerLeave: finish,
  };
}
