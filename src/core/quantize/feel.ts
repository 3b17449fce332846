import type { Snap } from './place';

/**
 * Timing as a reversible treatment: of a pattern, of one lane (all hits of a pad), or of single hits. It takes the
 * place of the snap that the hits were recorded with.
 */
export type Feel = Snap;

/** The Feel that leaves every hit as it was played. */
export const AS_PLAYED: Feel = { grid: 0, strength: 1 };
