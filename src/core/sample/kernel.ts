import { sinTurns } from '../math';

/** Frames on both sides of a place that are weighed to know what lies there, and the places between two frames that are tabled. */
export const HALF_TAPS = 6;
export const TAPS = 2 * HALF_TAPS;
export const PHASES = 128;

/**
 * Kaiser's shape for a side lobe 80 dB down: 0.1102 (80 - 8.7) (Oppenheim and Schafer, Discrete-Time Signal Processing, the chapter
 * on filter design by windowing; from memory). With 12 taps the passage from what is kept to what is not is 0.42 of the rate wide:
 * levels hold nothing above 0.297 of theirs (see `levels.ts`), so that what is read of them has no mirror images.
 */
const BETA = 8.5;

/** Modified Bessel function of the first kind and order 0, by its power series. */
export function bessel0(x: number): number {
  const quarter = (x * x) / 4;
  let term = 1;
  let sum = 1;
  for (let k = 1; term > 1e-12 * sum; k++) {
    term *= quarter / (k * k);
    sum += term;
  }
  return sum;
}

/**
 * A low-pass: the sinc with this cutoff under Kaiser's window.
 * @param x frames from its middle
 * @param half frames from its middle to its ends
 * @param cutoff as a share of the sample rate, at which it lets half through
 * @param beta Kaiser's shape: the larger, the further down is what is not let through
 */
export function windowedSinc(x: number, half: number, cutoff: number, beta: number): number {
  const along = x / half;
  if (along <= -1 || along >= 1) return 0;
  const sinc = x === 0 ? 2 * cutoff : sinTurns(cutoff * x) / (3.141592653589793 * x);
  return (sinc * bessel0(beta * Math.sqrt(1 - along * along))) / bessel0(beta);
}

/** Weights of the frames around a place, and by how much each differs at the next place of the table. */
export interface KernelTable {
  /** PHASES rows of TAPS weights. */
  readonly weights: Float64Array;
  readonly slopes: Float64Array;
}

let table: KernelTable | null = null;

/** The weights for reading between frames. Made once, when first asked for. */
export function kernelTable(): KernelTable {
  if (table) return table;
  const rows = Array.from({ length: PHASES + 1 }, (_, phase) => weightsAt(phase / PHASES));
  const weights = new Float64Array(PHASES * TAPS);
  const slopes = new Float64Array(PHASES * TAPS);
  for (let phase = 0; phase < PHASES; phase++) {
    for (let tap = 0; tap < TAPS; tap++) {
      weights[phase * TAPS + tap] = rows[phase]![tap]!;
      slopes[phase * TAPS + tap] = rows[phase + 1]![tap]! - rows[phase]![tap]!;
    }
  }
  return (table = { weights, slopes });
}

/** Weights of the TAPS frames around a place `between` 0 and 1 after the frame before it. What is even stays as it is. */
function weightsAt(between: number): Float64Array {
  const weights = new Float64Array(TAPS);
  let sum = 0;
  for (let tap = 0; tap < TAPS; tap++) {
    weights[tap] = windowedSinc(tap - (HALF_TAPS - 1) - between, HALF_TAPS, 0.5, BETA);
    sum += weights[tap]!;
  }
  for (let tap = 0; tap < TAPS; tap++) weights[tap]! /= sum;
  return weights;
}
