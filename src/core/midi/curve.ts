/** How far a curve can be bent, each way. */
export const MOST_BENT = 1;
/** Bent all the way, the middle of the way becomes an eighth, or seven eighths. */
const STRENGTH = 3;

/**
 * Bends the way from 0 to 1: below 0 it hangs (small values grow smaller), above 0 it bulges.
 * @param x 0..1
 * @param bend -1..1; 0 is straight
 * @example bent(0.5, 0) // 0.5; bent(0.5, -1) // 0.125
 */
export function bent(x: number, bend: number): number {
  if (bend === 0) return x;
  const power = STRENGTH ** Math.abs(bend);
  return bend < 0 ? x ** power : 1 - (1 - x) ** power;
}

/** How hard a device's strokes are meant: what it sends between `least` and `most` is all there is, and the way between is bent. */
export interface VelocityCurve {
  /** 1..127, as the device sends them. */
  least: number;
  most: number;
  bend: number;
}

export const STRAIGHT: VelocityCurve = { least: 1, most: 127, bend: 0 };

/** A stroke is heard, however soft it is. */
const SOFTEST = 1 / 127;

/**
 * @param velocity as it was sent, 1..127
 * @returns 0..1
 * @example curvedVelocity(STRAIGHT, 127) // 1; curvedVelocity({ least: 41, most: 105, bend: 0 }, 73) // 0.504
 */
export function curvedVelocity({ least, most, bend }: VelocityCurve, velocity: number): number {
  const share = Math.min(1, Math.max(0, (velocity - least) / Math.max(1, most - least)));
  return SOFTEST + (1 - SOFTEST) * bent(share, bend);
}

/** So many strokes are learnt from. */
export const STROKES_TO_LEARN = 10;
/** The softest of a player's strokes is a ghost note, the hardest an accent, not the ends of what can be heard. */
const SOFT = 0.25;
const HARD = 0.95;

/**
 * The curve that makes a player's softest stroke soft, the hardest hard and the middle one the middle, learnt from strokes that went
 * from as soft to as hard as they play. Null for strokes that are all alike: they tell nothing of a range.
 * @param velocities as they were sent, 1..127
 */
export function learntCurve(velocities: readonly number[]): VelocityCurve | null {
  if (velocities.length < STROKES_TO_LEARN) return null;
  const sorted = [...velocities].sort((a, b) => a - b);
  const [low, high] = [sorted[0]!, sorted[sorted.length - 1]!];
  if (high - low < 16) return null;
  // The line through (low, SOFT) and (high, HARD), to where it meets 0 and 1.
  const perStep = (HARD - SOFT) / (high - low);
  const least = Math.max(1, Math.round(low - SOFT / perStep));
  const most = Math.min(127, Math.round(high + (1 - HARD) / perStep));
  const middle = (sorted[(sorted.length - 1) >> 1]! + sorted[sorted.length >> 1]!) / 2;
  const wanted = (SOFT + HARD) / 2;
  let best: VelocityCurve = { least, most, bend: 0 };
  for (let step = -20; step <= 20; step++) {
    const tried = { least, most, bend: step / 20 };
    const off = (curve: VelocityCurve) => Math.abs(curvedVelocity(curve, middle) - wanted);
    if (off(tried) < off(best) - 1e-9) best = tried;
  }
  return best;
}
