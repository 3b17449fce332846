/** The bounds of a set: what the interface offers and what the readers accept. */

export const PADS = 16;
export const PATTERN_SLOTS = 16;
export const MAX_SLOTS = 256;
export const MAX_NAME = 120;
export const MAX_NOTE = 2000;
export const MAX_TRACKS = 16;
/** Far above what hands can play into a pattern; a bound so that a broken file cannot freeze the app. */
export const MAX_HITS = 20000;
export const LOOP_BARS = [1, 2, 4, 8] as const;

/** Semitones by which an edit lets a hit differ from its sound. Another layout of notes may leave it further away. */
export const MOST_PITCH = 24;
export const FARTHEST_PITCH = 128;
/** Ticks by which a hit may be nudged: beyond half the widest grid. */
export const MOST_NUDGE = 3840;

export const MAX_LINKS = 64;
export const MAX_TIMES = 64;
export const MAX_SECTIONS = 64;

/** The shortest loop: a sixteenth. And the longest pattern: 64 bars of twelve quarters. */
export const SHORTEST_LOOP = 240;
export const MAX_TICKS = 64 * 12 * 960;
/** Where a hit may wait on the tape: doubling a loop moves what lies beyond it further out. */
export const FAR_TICKS = 1e9;
/** So many of the bars that were just played can be kept. */
export const KEEP_BARS = [1, 2, 4, 8] as const;
