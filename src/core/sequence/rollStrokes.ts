const SOFTEST = 1 / 127;

/** Velocity (0..1) of one stroke, counted from 0, of a hit's roll. */
export function rollVelocity(velocity: number, stroke: number, strokes: number, swell: number): number {
  const way = strokes > 1 ? stroke / (strokes - 1) : 1;
  const share = swell >= 0 ? 1 - swell * (1 - way) : 1 + swell * way;
  return Math.max(Math.min(SOFTEST, velocity), velocity * share);
}

/** Semitones of one stroke from the hit's own pitch. */
export function rollPitch(stroke: number, strokes: number, glide: number): number {
  return strokes > 1 ? (glide * stroke) / (strokes - 1) : 0;
}
