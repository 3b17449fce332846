import type { Hit } from '../document/hit';
import { FAR_TICKS, MAX_TICKS, MOST_NUDGE, SHORTEST_LOOP } from '../document/limits';
import { MAX_POINTS, movedRange, type Move } from '../document/moves';
import type { Pattern } from '../document/pattern';

/**
 * Clamps every number of a pattern to what the reader accepts, so that whatever was made can be opened again. An edit that is
 * repeated (double time eight times, half time fourteen times) stops at the bounds.
 */
export function bounded(pattern: Pattern): Pattern {
  const hits = mapped(pattern.hits, boundedHit);
  const moves = pattern.moves && mapped(pattern.moves, boundedMove);
  const length = Math.round(within(pattern.length, SHORTEST_LOOP, MAX_TICKS));
  if (hits === pattern.hits && moves === pattern.moves && length === pattern.length) return pattern;
  return { ...pattern, length, hits, ...(moves && { moves }) };
}

function boundedHit(hit: Hit): Hit {
  const { tick, length, velocity, nudge, snap, roll } = hit;
  const fits =
    Math.abs(tick) <= FAR_TICKS &&
    length >= 0 &&
    length <= MAX_TICKS &&
    velocity >= 0 &&
    velocity <= 1 &&
    Math.abs(nudge ?? 0) <= MOST_NUDGE &&
    (snap?.grid ?? 1) >= 1 &&
    (roll?.over ?? 1) >= 1 &&
    (roll?.over ?? 1) <= MAX_TICKS;
  if (fits) return hit;
  return {
    ...hit,
    tick: within(tick, -FAR_TICKS, FAR_TICKS),
    length: within(length, 0, MAX_TICKS),
    velocity: within(velocity, 0, 1),
    ...(nudge !== undefined && { nudge: within(nudge, -MOST_NUDGE, MOST_NUDGE) }),
    snap: snap && { ...snap, grid: Math.max(1, snap.grid) },
    ...(roll && { roll: { ...roll, over: within(roll.over, 1, MAX_TICKS) } }),
  };
}

/** Too many points are thinned out evenly; the first and the last stay. */
function boundedMove(move: Move): Move {
  const { min, max } = movedRange(move);
  const fits = ({ tick, value }: Move['points'][number]) =>
    tick >= 0 && tick <= FAR_TICKS && value >= min && value <= max;
  if (move.points.length <= MAX_POINTS && move.points.every(fits)) return move;
  const points = mapped(move.points, (point) =>
    fits(point) ? point : { tick: within(point.tick, 0, FAR_TICKS), value: within(point.value, min, max) },
  );
  if (points.length <= MAX_POINTS) return { ...move, points };
  const every = (points.length - 1) / (MAX_POINTS - 1);
  return { ...move, points: Array.from({ length: MAX_POINTS }, (_, i) => points[Math.round(i * every)]!) };
}

function within(value: number, min: number, max: number): number {
  return Math.min(max, Math.max(min, value));
}

/** Maps a list; returns the same list when no element changed. */
function mapped<T>(list: T[], change: (part: T) => T): T[] {
  let changed = false;
  const out = list.map((part) => {
    const now = change(part);
    if (now !== part) changed = true;
    return now;
  });
  return changed ? out : list;
}
