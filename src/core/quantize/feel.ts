import type { Hit, Pattern } from '../document/set';
import type { Snap } from './place';

/**
 * Timing as a reversible treatment: of a pattern, of one lane (all hits of a pad), or of single hits. It takes the
 * place of the snap that the hits were recorded with.
 */
export type Feel = Snap;

/** The Feel that leaves every hit as it was played. */
export const AS_PLAYED: Feel = { grid: 0, strength: 1 };

/** The Feel in force for a pad of a pattern: the lane's own, else the pattern's; null when neither has one. */
export function laneFeel(pattern: Pattern, pad: number): Feel | null {
  return pattern.lanes?.find((lane) => lane.pad === pad)?.feel ?? pattern.feel ?? null;
}

/** What places a hit: the narrowest Feel that holds for it, else the snap it was recorded with. */
export function snapOf(pattern: Pattern, hit: Hit): Snap | null {
  return hit.feel ?? laneFeel(pattern, hit.pad) ?? hit.snap;
}
