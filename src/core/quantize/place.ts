import { nearestLine } from './grid';
import type { Swing } from './swing';

/** How a hit is pulled to a grid. */
export interface Snap {
  /** Step in ticks; 0 pulls nothing: the hit sounds as it was played. */
  grid: number;
  /** How much of the way, 0..1. */
  strength: number;
  /** The lines' own swing; absent: straight. */
  swing?: Swing;
  /** Ticks: only hits further than this from their line are pulled. */
  spare?: number;
}

/**
 * Where a hit struck at `tick` is placed, with its fraction: a swung line lies where its ratio says, not on a whole tick.
 * The struck time is never changed by this: with no snap it comes back to the bit as it was played.
 * @example placedTick(100, { grid: 240, strength: 0.5 }) // 50
 */
export function placedTick(tick: number, snap: Snap | null): number {
  if (!snap || snap.grid <= 0) return tick;
  const line = nearestLine(tick, snap.grid, snap.swing);
  if (snap.spare && Math.abs(line - tick) <= snap.spare) return tick;
  // The whole way is the line itself, whatever the last bit of the arithmetic says.
  return snap.strength >= 1 ? line : tick + (line - tick) * snap.strength;
}
