import { useRef } from 'react';
import type { useDrag } from '../shared/useDrag';

/** Two fingers on an element. */
export interface Pinch {
  /** How much further apart they are than they were when the second came down: 2 is twice as far. */
  times: number;
  /** px from the element's left edge to the middle between them; its width. */
  x: number;
  width: number;
}

type Handlers = ReturnType<ReturnType<typeof useDrag>>;
type PointerLike = Parameters<Handlers['onPointerDown']>[0];

interface Options<S> {
  /** The second finger came down. Returns the pinch's own state, which `move` is given. */
  begin: (at: Pinch) => S;
  move: (at: Pinch, state: S) => void;
}

/** Fingers that are nearer than this count as so far apart, px: else the least tremor would be twice as far. */
const NEAREST_PX = 30;

/** Follows two fingers on an element. It lasts until all fingers are up: one that stays is no drag. */
export function usePinch<S>({ begin, move }: Options<S>) {
  const fingers = useRef(new Map<number, number>());
  const pinch = useRef<{ apart: number; state: S } | null>(null);
  const look = ({ currentTarget }: PointerLike) => {
    const { left, width } = (currentTarget as Element).getBoundingClientRect();
    const [one, other] = [...fingers.current.values()] as [number, number];
    return { apart: Math.max(NEAREST_PX, Math.abs(one - other)), x: (one + other) / 2 - left, width };
  };
  const down = (event: PointerLike) => {
    const { pointerId, clientX } = event.nativeEvent;
    fingers.current.set(pointerId, clientX);
    if (fingers.current.size !== 2) return;
    const { apart, x, width } = look(event);
    pinch.current = { apart, state: begin({ times: 1, x, width }) };
  };
  const moved = (event: PointerLike) => {
    const { pointerId, clientX } = event.nativeEvent;
    if (!fingers.current.has(pointerId)) return;
    fingers.current.set(pointerId, clientX);
    if (!pinch.current || fingers.current.size !== 2) return;
    const { apart, x, width } = look(event);
    move({ times: apart / pinch.current.apart, x, width }, pinch.current.state);
  };
  const up = ({ nativeEvent }: PointerLike) => {
    fingers.current.delete(nativeEvent.pointerId);
    if (fingers.current.size === 0) pinch.current = null;
  };
  const isOn = () => pinch.current !== null;
  return {
    /** Whether there were two fingers since there was none. */
    isOn,
    /** The handlers of an element that is also dragged by one finger: its drag waits for as long as there are two. */
    around: (drag: Handlers): Handlers => ({
      onPointerDown: (event) => {
        down(event);
        if (!isOn()) drag.onPointerDown(event);
      },
      onPointerMove: (event) => {
        moved(event);
        if (!isOn()) drag.onPointerMove(event);
      },
      onPointerUp: (event) => {
        drag.onPointerUp(event);
        up(event);
      },
      onPointerCancel: (event) => {
        drag.onPointerCancel(event);
        up(event);
      },
    }),
  };
}
