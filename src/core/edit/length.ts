import { fitWindow } from '../sequence/loopWindow';
import { homeOf, isInLoop } from '../sequence/soundingHits';
import { mod, ticksPerBar, type Meter } from '../time/ticks';
import type { LoopWindow, Pattern } from '../document/pattern';
import { SHORTEST_LOOP } from '../document/limits';

export const MOST_BARS = 64;

/** Clamps a length to what a pattern can have (a sixteenth to 64 bars), in whole ticks. */
export function fitLength(ticks: number, meter: Meter): number {
  return Math.round(Math.min(MOST_BARS * ticksPerBar(meter), Math.max(SHORTEST_LOOP, ticks)));
}

/** The pattern at another length. Hits beyond a shorter length are kept, silent, and sound again once it is longer. */
export function withLength(pattern: Pattern, length: number): Pattern {
  return length === pattern.length ? pattern : { ...pattern, length };
}

/** The pattern with another loop window; with null, or one as long as itself, the whole goes round. The tape stays. */
export function withWindow(pattern: Pattern, window: LoopWindow | null): Pattern {
  const { window: old, ...whole } = pattern;
  const fitted = window && fitWindow(window.start, window.length, pattern.length);
  if (old && fitted && old.start === fitted.start && old.length === fitted.length) return pattern;
  if (!old && !(fitted && fitted.length < pattern.length)) return pattern;
  return fitted && fitted.length < pattern.length ? { ...whole, window: fitted } : whole;
}

/** The pattern with `ticks` of room inserted at its end; hits beyond the end move later by as much. */
function withRoom(pattern: Pattern, ticks: number): Pattern {
  const { length } = pattern;
  const hits = pattern.hits.map((hit) => (isInLoop(hit, length) ? hit : { ...hit, tick: hit.tick + ticks }));
  return { ...pattern, length: length + ticks, hits };
}

/** The pattern at twice its length, its second half empty. */
export function doubledEmpty(pattern: Pattern): Pattern {
  return withRoom(pattern, pattern.length);
}

/**
 * The pattern at twice its length, its hits and Moves again in the second half.
 * @param newId called for the id of each new hit
 */
export function doubled(pattern: Pattern, newId: () => number): Pattern {
  const { length, hits, moves } = pattern;
  const again = hits
    .filter((hit) => isInLoop(hit, length))
    .map((hit) => ({ ...hit, id: newId(), tick: hit.tick + length }));
  const roomy = withRoom(pattern, length);
  return {
    ...roomy,
    hits: [...roomy.hits, ...again],
    ...(moves && {
      moves: moves.map((move) => {
        const here = move.points.filter(({ tick }) => tick < length);
        return { ...move, points: [...here, ...here.map((point) => ({ ...point, tick: point.tick + length }))] };
      }),
    }),
  };
}

/**
 * Crops a pattern to `length` ticks from `start`. Nothing is deleted: its hits are rotated, so that the stretch comes first, then
 * what came after it, then what came before it; what lies beyond the new length is silent.
 */
export function cropped(pattern: Pattern, start: number, length: number): Pattern {
  const whole = pattern.length;
  const turned = (tick: number) => mod(tick - start, whole);
  const hits = pattern.hits.map((hit) => {
    if (!isInLoop(hit, whole)) return hit;
    const home = homeOf(hit);
    return { ...hit, tick: hit.tick - home + turned(home) };
  });
  const { window: _, ...rest } = pattern;
  const next: Pattern = { ...rest, length, hits };
  if (next.moves) {
    next.moves = next.moves.map((move) => ({
      ...move,
      points: move.points
        .map((point) => ({ ...point, tick: point.tick < whole ? turned(point.tick) : point.tick }))
        .sort((a, b) => a.tick - b.tick),
    }));
  }
  return next;
}
