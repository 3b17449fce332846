import { nearestLine } from './grid';

/** How a hit is pulled to a grid: the step in ticks, and how much of the way (0..1). */
export interface Snap {
  grid: number;
  strength: number;
}

/**
 * Where a hit struck at `tick` is placed, as a whole tick. The struck time is never changed by this: with no snap it
 * comes back as it was played.
 */
export function placedTick(tick: number, snap: Snap | null): number {
  if (!snap) return Math.round(tick);
  return Math.round(tick + (nearestLine(tick, snap.grid) - tick) * snap.strength);
}
