import type { Feel } from '../quantize/feel';
import type { Snap } from '../quantize/place';
import type { Loudness } from './loudness';
import type { Hit } from './hit';
import type { Pattern } from './pattern';

/** The Feel in force for a pad of a pattern: the lane's own, else the pattern's; null when neither has one. */
export function laneFeel(pattern: Pattern, pad: number): Feel | null {
  return pattern.lanes?.find((lane) => lane.pad === pad)?.feel ?? pattern.feel ?? null;
}

/** What places a hit: the narrowest Feel that holds for it, else the snap it was recorded with. */
export function snapOf(pattern: Pattern, hit: Hit): Snap | null {
  return hit.feel ?? laneFeel(pattern, hit.pad) ?? hit.snap;
}

/** The Loudness in force for a hit: the narrowest one; null for none. */
export function loudnessOf(pattern: Pattern, hit: Hit): Loudness | null {
  return hit.loudness ?? pattern.lanes?.find((lane) => lane.pad === hit.pad)?.loudness ?? pattern.loudness ?? null;
}
