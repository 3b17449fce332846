/** Several strokes in the place of one. */
export interface Roll {
  /** How many: one of ROLL_STROKES. */
  strokes: number;
  /** Ticks that they share evenly. */
  over: number;
  /** -1..1: above 0 they grow to the hit's velocity, below 0 they fall away from it; by all of it at ±1. */
  swell: number;
  /** Semitones from the first stroke to the last. */
  glide: number;
}

export const ROLL_STROKES = [2, 3, 4, 6, 8] as const;
export const MOST_GLIDE = 24;
