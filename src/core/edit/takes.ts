import type { Hit, Pattern } from '../model/set';
import { isInLoop, soundingHits } from '../sequence/soundingHits';
import { placedTick } from '../timing/place';

/** One pass of one recording, as far as its hits are still in the pattern. */
export interface Take {
  /** Number within the pattern, from 1. */
  take: number;
  hits: Hit[];
  /** Pads that it plays, in the order in which they lie on the grid. */
  pads: number[];
}

/** The takes of a pattern, the newest first. */
export function takesOf(pattern: Pattern): Take[] {
  const byNumber = new Map<number, Hit[]>();
  for (const hit of pattern.hits) {
    if (hit.take === undefined) continue;
    const hits = byNumber.get(hit.take);
    if (hits) hits.push(hit);
    else byNumber.set(hit.take, [hit]);
  }
  return [...byNumber]
    .sort(([a], [b]) => b - a)
    .map(([take, hits]) => ({ take, hits, pads: [...new Set(hits.map((hit) => hit.pad))].sort((a, b) => a - b) }));
}

/** The number of the next take. */
export function nextTake(pattern: Pattern): number {
  return pattern.hits.reduce((most, hit) => Math.max(most, hit.take ?? 0), 0) + 1;
}

/** The pattern with one take alone. */
export function onlyTake(pattern: Pattern, take: number): Pattern {
  return { ...pattern, hits: pattern.hits.filter((hit) => hit.take === take) };
}

/** The pattern without a take. */
export function withoutTake(pattern: Pattern, take: number): Pattern {
  return { ...pattern, hits: pattern.hits.filter((hit) => hit.take !== take) };
}

/**
 * The stretch of a pattern from `start`, `length` ticks long, as a pattern of its own. Hits belong to it by the place
 * that they were recorded to, so that one struck just before its first step comes along.
 */
export function crop(pattern: Pattern, start: number, length: number): Pattern {
  const hits = pattern.hits
    .filter((hit) => {
      const home = placedTick(hit.tick, hit.snap);
      return home >= start && home < start + length;
    })
    .map((hit) => ({ ...hit, tick: hit.tick - start }));
  return { ...pattern, length, hits };
}

/**
 * The pattern at twice its length, its hits played again in the second half. What lay hidden on the tape there gives way.
 * @param newId called for the id of each new hit
 */
export function doubled(pattern: Pattern, newId: () => number): Pattern {
  const { length } = pattern;
  const here = pattern.hits.filter((hit) => isInLoop(hit, length));
  const again = here.map((hit) => ({ ...hit, id: newId(), tick: hit.tick + length }));
  return { ...pattern, length: length * 2, hits: [...here, ...again] };
}

/** How many hits of each bar sound: what tells good bars from empty ones. */
export function hitsPerBar(pattern: Pattern, barTicks: number): number[] {
  const counts = new Array<number>(Math.max(1, Math.ceil(pattern.length / barTicks))).fill(0);
  for (const hit of soundingHits(pattern)) counts[Math.floor(hit.tick / barTicks)]!++;
  return counts;
}
