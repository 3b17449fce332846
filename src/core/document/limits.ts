/** The bounds of a set: what the interface offers and what the readers accept. */

export const PADS = 16;
export const PATTERN_SLOTS = 16;
export const MAX_SLOTS = 256;
export const MAX_NAME = 120;
export const MAX_TRACKS = 16;
/** Far above what hands can play into a pattern; a bound so that a broken file cannot freeze the app. */
export const MAX_HITS = 20000;
export const LOOP_BARS = [1, 2, 4, 8] as const;

/** Semitones by which a hit may differ from its sound. */
export const MOST_PITCH = 24;

export const MAX_LINKS = 64;
export const MAX_TIMES = 64;
export const MAX_SECTIONS = 64;
