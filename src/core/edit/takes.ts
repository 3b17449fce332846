import { soundingHits } from '../sequence/soundingHits';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

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

/** How many hits of each bar sound: what tells good bars from empty ones. */
export function hitsPerBar(pattern: Pattern, barTicks: number): number[] {
  const counts = new Array<number>(Math.max(1, Math.ceil(pattern.length / barTicks))).fill(0);
  for (const hit of soundingHits(pattern)) counts[Math.floor(hit.tick / barTicks)]!++;
  return counts;
}
