import type { Hit, Pattern } from '../model/set';
import { placedTick } from '../timing/place';

/** A hit as it sounds in one pass of its pattern. */
export interface SoundingHit {
  /** Placed tick within the loop, a whole number, 0 <= tick < pattern length. */
  tick: number;
  /** Struck tick on the same pass, as near `tick` as it was struck; may lie outside the loop. */
  struck: number;
  pad: number;
  velocity: number;
  length: number;
  id: number;
}

/**
 * What a pattern plays in one pass, in order of time: the one rule for the engine, the exports and every picture.
 *
 * - A hit placed at or after the loop's length is silent (kept on the tape).
 * - A hit placed before the loop's start sounds at the end of the loop, which is just before its start.
 * - Where several hits of one pad share a tick the last recorded sounds; the others are kept and silent.
 */
export function soundingHits(pattern: Pattern): SoundingHit[] {
  const byPlace = new Map<number, SoundingHit>();
  for (const hit of pattern.hits) {
    const sounding = sound(hit, pattern.length);
    if (sounding) byPlace.set(sounding.tick * 64 + sounding.pad, sounding);
  }
  return [...byPlace.values()].sort((a, b) => a.tick - b.tick || a.pad - b.pad);
}

function sound(hit: Hit, length: number): SoundingHit | null {
  const placed = placedTick(hit.tick, hit.snap);
  if (placed >= length) return null;
  const shift = placed < 0 ? length : 0;
  const tick = placed + shift;
  if (tick < 0) return null; // the loop is shorter than the distance by which the hit came early
  return { tick, struck: hit.tick + shift, pad: hit.pad, velocity: hit.velocity, length: hit.length, id: hit.id };
}
