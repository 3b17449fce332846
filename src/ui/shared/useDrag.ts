import { useRef } from 'react';

/** Where a pointer is in a drag. */
export interface DragPoint {
  /** px from the left and top of the element. */
  x: number;
  y: number;
  /** Size of the element, px. */
  width: number;
  height: number;
  /** px from where the pointer came down. */
  dx: number;
  dy: number;
  /** When it was there, ms on the page's clock. */
  timeStamp: number;
}

/** The part of a pointer event that React DOM and React Native share. */
interface PointerLike {
  nativeEvent: { pointerId: number; clientX: number; clientY: number };
  currentTarget: unknown;
  preventDefault: () => void;
}

/** A drag that goes on. */
interface Drag<D> {
  element: Element;
  pointerId: number;
  clientX: number;
  clientY: number;
  state: D;
}

interface Options<D, W> {
  /** A pointer comes down on `what`. Returns the drag's own state, which the others are given. */
  begin: (at: DragPoint, what: W, event: PointerLike) => D;
  /** The pointer has moved, also after it has left the element. */
  move: (at: DragPoint, drag: D) => void;
  /** The pointer is up again, or was taken away by the browser. */
  end?: (at: DragPoint, drag: D, cancelled: boolean) => void;
}

/**
 * One pointer dragging: it is captured, other pointers are ignored until it is up, and an element within another takes it for
 * itself.
 * @returns gives an element its handlers; where several share a drag, with what it is
 * @example const dragging = useDrag({ begin: () => start, move: ({ dx }, from) => onScroll(from - dx) });
 *          <div {...dragging()} />
 */
export function useDrag<D, W = void>({ begin, move, end }: Options<D, W>) {
  const current = useRef<Drag<D> | null>(null);
  const finish = (cancelled: boolean) => (event: PointerLike) => {
    const drag = current.current;
    if (drag?.pointerId !== event.nativeEvent.pointerId) return;
    current.current = null;
    end?.(pointOf(event, drag), drag.state, cancelled);
  };
  return (what: W) => ({
    onPointerDown: (event: PointerLike) => {
      const before = current.current;
      // A drag whose element is gone has no capture any more, and is never told of its end.
      if (before?.element.hasPointerCapture(before.pointerId)) return;
      const { pointerId, clientX, clientY } = event.nativeEvent;
      const element = event.currentTarget as Element;
      element.setPointerCapture(pointerId);
      const here = { element, pointerId, clientX, clientY };
      current.current = { ...here, state: begin(pointOf(event, here), what, event) };
    },
    onPointerMove: (event: PointerLike) => {
      const drag = current.current;
      if (drag?.pointerId === event.nativeEvent.pointerId) move(pointOf(event, drag), drag.state);
    },
    onPointerUp: finish(false),
    onPointerCancel: finish(true),
  });
}

function pointOf({ nativeEvent, currentTarget }: PointerLike, from: { clientX: number; clientY: number }): DragPoint {
  const { left, top, width, height } = (currentTarget as Element).getBoundingClientRect();
  const { clientX, clientY } = nativeEvent;
  return {
    x: clientX - left,
    y: clientY - top,
    width,
    height,
    dx: clientX - from.clientX,
    dy: clientY - from.clientY,
    timeStamp: (nativeEvent as unknown as PointerEvent).timeStamp,
  };
}

/** How high a pointer is in the element: 0 at its lower edge or beneath, 1 at its upper edge or above. */
export function heightOf({ y, height }: DragPoint): number {
  return Math.min(1, Math.max(0, 1 - y / height));
}

let gestures = 0;

/** A name for all changes of one gesture, by which they are one step of undo. */
export function gestureName(what: string): string {
  return `${what} ${++gestures}`;
}
