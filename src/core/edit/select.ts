import { homeOf, isInLoop, passOf } from '../sequence/soundingHits';
import { mod } from '../time/ticks';
import { valueOf, withValue } from './values';
import { snapOf } from '../document/treatments';
import { MOST_PITCH, PADS } from '../document/limits';
import type { Hit } from '../document/hit';
import type { Tones } from '../document/tones';
import type { Pattern } from '../document/pattern';

/** Chosen hits, by their ids. An edit changes these hits only; the others, also those beyond the loop's end, stay as they are. */
export type Ids = ReadonlySet<number>;

/** Ids of the hits, sounding and covered, within a range of lanes and ticks. */
export function hitsWithin(pattern: Pattern, pads: readonly number[], from: number, to: number): number[] {
  const { sounding, covered } = passOf(pattern);
  return [...sounding, ...covered]
    .filter(({ pad, tick }) => pads.includes(pad) && tick >= from && tick < to)
    .map((hit) => hit.id);
}

/** Ids of the hits in the loop, of one lane or of all. */
export function hitsInLoop(pattern: Pattern, lane: (hit: Hit) => boolean = () => true): number[] {
  return pattern.hits.filter((hit) => lane(hit) && isInLoop(hit, pattern.length)).map((hit) => hit.id);
}

/** The range of ticks that hits occupy, rounded outwards to whole steps; null for none. */
export function spanOf(pattern: Pattern, ids: Ids, step: number): { from: number; to: number } | null {
  let from = Infinity;
  let to = -Infinity;
  for (const hit of pattern.hits) {
    if (!ids.has(hit.id)) continue;
    const line = Math.floor(homeOf(hit) / step + 1e-9) * step;
    from = Math.min(from, line);
    to = Math.max(to, line + step);
  }
  return from === Infinity ? null : { from, to };
}

function edit(pattern: Pattern, ids: Ids, change: (hit: Hit) => Hit): Pattern {
  return { ...pattern, hits: pattern.hits.map((hit) => (ids.has(hit.id) ? change(hit) : hit)) };
}

/**
 * A hit that sounds some ticks later. By whole steps of the grid that places it the stroke itself moves, with how early or
 * late it was; the rest is a nudge, since the grid would pull the stroke back.
 * @param most ticks by which the stroke itself may move at most, and at least
 */
function shifted(pattern: Pattern, hit: Hit, ticks: number, least = -Infinity, most = Infinity): Hit {
  const grid = snapOf(pattern, hit)?.grid ?? 0;
  if (grid <= 0) return { ...hit, tick: hit.tick + ticks };
  const total = (hit.nudge ?? 0) + ticks;
  const steps = Math.min(Math.floor(most / grid), Math.max(Math.ceil(least / grid), Math.round(total / grid)));
  const nudge = Math.round((total - steps * grid) * 1e6) / 1e6;
  const { nudge: _, ...rest } = hit;
  return { ...rest, tick: hit.tick + steps * grid, ...(nudge !== 0 && { nudge }) };
}

/** Rotates hits within the loop by some ticks: what leaves at its end comes in at its start. */
export function rotated(pattern: Pattern, ids: Ids, ticks: number): Pattern {
  const { length } = pattern;
  return edit(pattern, ids, (hit) => {
    if (!isInLoop(hit, length)) return hit;
    const there = shifted(pattern, hit, ticks);
    const home = homeOf(there);
    return { ...there, tick: there.tick + mod(home, length) - home };
  });
}

/** Moves hits in time and across lanes, all together, as far as the loop and the kit reach. */
export function moved(pattern: Pattern, ids: Ids, ticks: number, lanes: number): Pattern {
  const { length } = pattern;
  const chosen = pattern.hits.filter((hit) => ids.has(hit.id) && isInLoop(hit, length));
  if (chosen.length === 0) return pattern;
  const places = chosen.map((hit) => homeOf(hit) + (hit.nudge ?? 0));
  const pads = chosen.map((hit) => hit.pad);
  const later = Math.max(0, Math.ceil(length - Math.max(...places)) - 1);
  const earlier = Math.max(0, Math.min(...places));
  const by = Math.min(later, Math.max(-earlier, ticks));
  const up = Math.min(PADS - 1 - Math.max(...pads), Math.max(-Math.min(...pads), lanes));
  return edit(pattern, new Set(chosen.map((hit) => hit.id)), (hit) => {
    const home = homeOf(hit);
    const there = shifted(pattern, hit, by, Math.min(0, -home), Math.max(0, length - 1 - home));
    return { ...there, pad: hit.pad + up };
  });
}

/** Raises or lowers hits by semitones: each stays the sound of its pad. */
export function transposed(pattern: Pattern, ids: Ids, semitones: number): Pattern {
  return edit(pattern, ids, (hit) => {
    const pitch = Math.min(MOST_PITCH, Math.max(-MOST_PITCH, valueOf(hit, 'pitch') + semitones));
    return withValue(hit, 'pitch', pitch, 1);
  });
}

/** Reverses the order of the steps that hits occupy; each hit keeps its offset within its step. */
export function reversed(pattern: Pattern, ids: Ids, step: number): Pattern {
  const span = spanOf(pattern, ids, step);
  if (!span) return pattern;
  return edit(pattern, ids, (hit) => {
    const line = Math.floor(homeOf(hit) / step + 1e-9) * step;
    return { ...hit, tick: hit.tick + span.from + span.to - step - 2 * line };
  });
}

/** Hits further apart (factor above 1) or closer together, counted from the first one's step, with their lengths. */
export function stretched(pattern: Pattern, ids: Ids, factor: number, step: number): Pattern {
  const span = spanOf(pattern, ids, step);
  if (!span) return pattern;
  return edit(pattern, ids, (hit) => {
    const home = homeOf(hit);
    const by = (home - span.from) * (factor - 1);
    // Without its snap, whose grid may not have the new place as a line and would pull the hit away.
    const snap = hit.snap && { ...hit.snap, grid: Math.min(hit.snap.grid, hit.snap.grid * factor) };
    const roll = hit.roll && { ...hit.roll, over: Math.max(1, hit.roll.over * factor) };
    const length = Math.max(1, hit.length * factor);
    return { ...hit, tick: hit.tick + by, length, ...(snap && { snap }), ...(roll && { roll }) };
  });
}

/** Makes hits half as long again, like dotted notes. */
export function dotted(pattern: Pattern, ids: Ids): Pattern {
  return edit(pattern, ids, (hit) => ({ ...hit, length: Math.min(pattern.length, hit.length * 1.5) }));
}

/** Makes hits last until the next one of their lane, round the loop. */
export function legato(pattern: Pattern, ids: Ids): Pattern {
  const { sounding } = passOf(pattern);
  const until = new Map<number, number>();
  for (let pad = 0; pad < PADS; pad++) {
    const lane = sounding.filter((hit) => hit.pad === pad);
    lane.forEach((hit, i) => {
      const next = lane[(i + 1) % lane.length]!;
      until.set(hit.id, mod(next.tick - hit.tick, pattern.length) || pattern.length);
    });
  }
  return edit(pattern, ids, (hit) => ({ ...hit, length: until.get(hit.id) ?? hit.length }));
}

/** Makes hits half as long: played short, they are heard apart. */
export function staccato(pattern: Pattern, ids: Ids): Pattern {
  return edit(pattern, ids, (hit) => ({ ...hit, length: Math.max(1, hit.length / 2) }));
}

/** Makes hits last so many ticks longer, below 0 shorter: at least `least`, or what they last now, and at most the whole loop. */
export function lengthened(pattern: Pattern, ids: Ids, ticks: number, least: number): Pattern {
  return edit(pattern, ids, (hit) => {
    const length = Math.min(pattern.length, Math.max(Math.min(least, hit.length), hit.length + ticks));
    return { ...hit, length };
  });
}

/** Hits that are there become what a hand has made of them. */
export function replaced(pattern: Pattern, hits: readonly Hit[]): Pattern {
  const made = new Map(hits.map((hit) => [hit.id, hit]));
  return { ...pattern, hits: pattern.hits.map((hit) => made.get(hit.id) ?? hit) };
}

/** The pattern without some hits. */
export function withoutHits(pattern: Pattern, ids: Ids): Pattern {
  return { ...pattern, hits: pattern.hits.filter((hit) => !ids.has(hit.id)) };
}

/** What was cut or copied: hits counted from the first one's step, and the stretch that they take up. */
export interface Clip {
  hits: Hit[];
  /** What they are the notes of; absent: a kit's. */
  tones?: Tones;
  /** Ticks. */
  span: number;
}

/** Copies hits; null when there are none. */
export function copied(pattern: Pattern, ids: Ids, step: number): Clip | null {
  const span = spanOf(pattern, ids, step);
  if (!span) return null;
  const hits = pattern.hits.filter((hit) => ids.has(hit.id)).map((hit) => ({ ...hit, tick: hit.tick - span.from }));
  return { hits, span: span.to - span.from };
}

/**
 * A clip's hits as new ones from a tick of a loop on, round its end.
 * @param newId called for the id of each
 */
export function pasted(clip: Clip, at: number, length: number, newId: () => number): Hit[] {
  return clip.hits.map(({ take: _, ...hit }) => {
    const home = homeOf(hit);
    return { ...hit, id: newId(), tick: hit.tick + mod(home + at, length) - home };
  });
}
