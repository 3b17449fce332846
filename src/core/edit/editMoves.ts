import { isSameMoved, MAX_POINTS, movedRange, type Move, type Moved, type MovePoint } from '../document/moves';
import type { Pattern } from '../document/pattern';

/** The same each time, so that whoever compares sees that nothing changed. */
const NONE: readonly MovePoint[] = [];

/** The breakpoints of one control, none when it has no Move. */
export function movePoints(pattern: Pattern, moved: Moved): readonly MovePoint[] {
  return pattern.moves?.find((move) => isSameMoved(move, moved))?.points ?? NONE;
}

/** The pattern with the breakpoints of one control; with none the Move is gone. */
export function withPoints(pattern: Pattern, moved: Moved, points: readonly MovePoint[]): Pattern {
  const others = (pattern.moves ?? []).filter((move) => !isSameMoved(move, moved));
  const { min, max } = movedRange(moved);
  const tidy = [...points]
    .sort((a, b) => a.tick - b.tick)
    .map(({ tick, value }) => ({ tick, value: Math.min(max, Math.max(min, value)) }))
    .slice(0, MAX_POINTS);
  const moves: Move[] = tidy.length > 0 ? [...others, { ...moved, points: tidy }] : others;
  const { moves: _, ...rest } = pattern;
  return moves.length > 0 ? { ...rest, moves } : rest;
}

/**
 * Points with a drawn stretch in the place of what was there: both its ends are kept, so that nothing outside it moves.
 * @param drawn in order of time
 */
export function drawnOver(points: readonly MovePoint[], drawn: readonly MovePoint[]): MovePoint[] {
  const [first, last] = [drawn[0], drawn[drawn.length - 1]];
  if (!first || !last) return [...points];
  const outside = points.filter(({ tick }) => tick < first.tick || tick > last.tick);
  return [...outside, ...drawn].sort((a, b) => a.tick - b.tick);
}

/** Points without those in a stretch of time. */
export function erasedPoints(points: readonly MovePoint[], from: number, to: number): MovePoint[] {
  return points.filter(({ tick }) => tick < from || tick > to);
}

/**
 * The fewest points from which the course differs by no more than `tolerance` in value at those left out: the
 * Ramer-Douglas-Peucker method (Douglas & Peucker 1973), with the distance taken along the value.
 */
export function thinnedOut(points: readonly MovePoint[], tolerance: number): MovePoint[] {
  if (points.length < 3) return [...points];
  const kept = new Set([0, points.length - 1]);
  const stretches: [number, number][] = [[0, points.length - 1]];
  for (let stretch = stretches.pop(); stretch; stretch = stretches.pop()) {
    const [from, to] = stretch;
    const [a, b] = [points[from]!, points[to]!];
    let worst = 0;
    let at = -1;
    for (let i = from + 1; i < to; i++) {
      const { tick, value } = points[i]!;
      const along = b.tick > a.tick ? (tick - a.tick) / (b.tick - a.tick) : 0;
      const off = Math.abs(value - (a.value + (b.value - a.value) * along));
      if (off > worst) [worst, at] = [off, i];
    }
    if (worst <= tolerance || at < 0) continue;
    kept.add(at);
    stretches.push([from, at], [at, to]);
  }
  return points.filter((_, i) => kept.has(i));
}
