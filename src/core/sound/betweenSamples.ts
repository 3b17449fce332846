import { sinTurns } from '../math';

/** Samples that one value between them is made of. */
export const TAPS = 16;
const PAIRS = TAPS / 2;
/** What lies between samples is at most so many times as high as the higher of the two that it lies between, in any music. */
export const MOST_RISE = 2;

/** Shares of the samples around in the value a quarter, or half, of the way from one of the middle two to the other. */
function shares(way: number): Float64Array {
  const filter = Float64Array.from({ length: TAPS }, (_unused, i) => {
    const x = i - (PAIRS - 1) - way;
    const window = 0.5 + 0.5 * sinTurns(x / (TAPS + 1) + 0.25);
    return (sinTurns(x / 2) / (Math.PI * x)) * window;
  });
  const sum = filter.reduce((all, share) => all + share, 0);
  return filter.map((share) => share / sum);
}

/** The three values between two samples are sums and differences of pairs: half the multiplications of a filter for each. */
const HALF = shares(0.5).subarray(0, PAIRS);
const QUARTER = shares(0.25);
const EVEN = Float64Array.from({ length: PAIRS }, (_, i) => (QUARTER[i]! + QUARTER[TAPS - 1 - i]!) / 2);
const ODD = Float64Array.from({ length: PAIRS }, (_, i) => (QUARTER[i]! - QUARTER[TAPS - 1 - i]!) / 2);

/**
 * Raises `highest[0]` to the highest that the wave is between two samples, by four times oversampling (ITU-R BS.1770-4, Annex 2). A
 * number that is returned may take memory each time; one that is written never does.
 * @param from the first of TAPS samples, in whose middle the two lie
 */
export function raiseBetween(samples: Float64Array, from: number, highest: Float64Array): void {
  let half = 0;
  let even = 0;
  let odd = 0;
  for (let i = 0, j = TAPS - 1; i < PAIRS; i++, j--) {
    const one = samples[from + i]!;
    const other = samples[from + j]!;
    half += HALF[i]! * (one + other);
    even += EVEN[i]! * (one + other);
    odd += ODD[i]! * (one - other);
  }
  if (half < 0) half = -half;
  if (even < 0) even = -even;
  if (odd < 0) odd = -odd;
  if (half > highest[0]!) highest[0] = half;
  if (even + odd > highest[0]!) highest[0] = even + odd;
}
