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

/** A roll that is sounding: its strokes go on though the loop comes round or its hit is taken away meanwhile. */
export class SoundingRoll {
  active = false;
  track = 0;
  pad = 0;
  id = 0;
  velocity = 0;
  pitch = 0;
  /** Song tick of the first stroke. */
  start = 0;
  strokes = 0;
  over = 0;
  swell = 0;
  glide = 0;
  /** The stroke to come. */
  stroke = 0;

  /** Song tick of the stroke to come; Infinity when none is. */
  get next(): number {
    return this.active ? this.start + (this.stroke * this.over) / this.strokes : Infinity;
  }

  /** The stroke to come has sounded. */
  advance(): void {
    if (++this.stroke >= this.strokes) this.active = false;
  }
}
