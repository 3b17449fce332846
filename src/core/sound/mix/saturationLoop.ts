import { instantiate, soundMemory, takeBytes } from '../soundMemory';
import { MAX_STRETCH } from '../stretch';
import type { MixBus } from './mixBus';
import { SATURATION_LOOP_WASM } from './saturationLoopWasm';

interface Exports {
  saturate(frames: number, left: number, right: number, numbers: number, work: number): void;
}

const fast = instantiate<Exports>(SATURATION_LOOP_WASM);

/** Where in the numbers of a saturation: those that move with each sample, their steps, and what the all-passes hold of left and right. */
export const [GAIN, MAKE_UP, SHARE, FIRST_SATURATION_STEP, ALL_PASSES] = [0, 1, 2, 3, 6] as const;

/**
 * Half-band filters of two branches of all-passes. Between the sample rate and twice of it: those of drive.ts, flat up to 0.38 of the sample
 * rate, 85 dB down from 0.62 on. Between twice and four times of it they may be short: what is heard lies far below (the same design, with three
 * all-passes and a transition of 0.14: flat up to 20 kHz of 48, 62 dB down from 75 kHz on).
 */
const STEEP = [
  [0.054217525755, 0.383087327291, 0.748720944436],
  [0.196797969814, 0.573136411148, 0.914293709685],
] as const;
const SHORT = [[0.103503787937, 0.751914290756], [0.371742874192]] as const;

/** The branches that a sample goes through, up and down, in the order in which they lie in the numbers. */
const BRANCHES: readonly (readonly number[])[] = [...STEEP, ...SHORT, ...SHORT, ...STEEP];
const [UP, OTHER_UP, HIGHER, OTHER_HIGHER, LOWER, OTHER_LOWER, DOWN, OTHER_DOWN] = [0, 1, 2, 3, 4, 5, 6, 7] as const;
/** Where each branch begins: it holds its last input, and the last output of each of its all-passes. Last: where all of them end. */
const BRANCH_AT: readonly number[] = BRANCHES.reduce<number[]>(
  (at, branch) => [...at, at.at(-1)! + 2 * (branch.length + 1)],
  [ALL_PASSES],
);
export const SATURATION_NUMBERS = BRANCH_AT.at(-1)!;

/** What is lent to the module while it works: all its callers own theirs. */
const LENT_AT = takeBytes(8 * SATURATION_NUMBERS);
const lent = new Float64Array(soundMemory, LENT_AT, SATURATION_NUMBERS);
/** What is left between its passes: two samples of both sides for each frame. */
const WORK_AT = takeBytes(4 * 8 * MAX_STRETCH);

/** Saturates frames of a bus in place. */
export function saturate(numbers: Float64Array, bus: MixBus, from: number, frames: number): void {
  if (!fast) return saturateSlowly(numbers, bus, from, frames);
  for (let i = 0; i < SATURATION_NUMBERS; i++) lent[i] = numbers[i]!;
  fast.saturate(frames, bus.leftAt + 8 * from, bus.rightAt + 8 * from, LENT_AT, WORK_AT);
  for (let i = 0; i < SATURATION_NUMBERS; i++) numbers[i] = lent[i]!;
}

export function saturateSlowly(numbers: Float64Array, { left, right }: MixBus, from: number, frames: number): void {
  for (let i = from; i < from + frames; i++) {
    left[i] = saturated(numbers, left[i]!, 0);
    right[i] = saturated(numbers, right[i]!, 1);
    for (let n = GAIN; n <= SHARE; n++) numbers[n]! += numbers[FIRST_SATURATION_STEP + n]!;
  }
}

/** One sample of one side: 0 left, 1 right. */
function saturated(numbers: Float64Array, x: number, side: number): number {
  const driven = x * numbers[GAIN]!;
  // Of two branches the second one's sample is the later one; on the way back the first one takes that.
  const earlier = bent(numbers, through(numbers, UP, driven, side), side);
  const later = bent(numbers, through(numbers, OTHER_UP, driven, side), side);
  // A half for each way down: halves are exact, wherever they are taken.
  const y = 0.25 * (through(numbers, DOWN, later, side) + through(numbers, OTHER_DOWN, earlier, side));
  return x + (y * numbers[MAKE_UP]! - x) * numbers[SHARE]!;
}

/** One sample at twice the rate: bent at four times of it. @returns twice what it is */
function bent(numbers: Float64Array, x: number, side: number): number {
  const earlier = bend(through(numbers, HIGHER, x, side));
  const later = bend(through(numbers, OTHER_HIGHER, x, side));
  return through(numbers, LOWER, later, side) + through(numbers, OTHER_LOWER, earlier, side);
}

function through(numbers: Float64Array, branch: number, x: number, side: number): number {
  let at = BRANCH_AT[branch]! + side;
  for (const coefficient of BRANCHES[branch]!) {
    const y = coefficient * (x - numbers[at + 2]!) + numbers[at]!;
    numbers[at] = x;
    x = y;
    at += 2;
  }
  numbers[at] = x;
  return x;
}

/**
 * A curve that bends gently: odd, slope 1 at the origin, from ±2.1875 on it is ±1, and all its bends up to the third derivative are smooth there, so that
 * its harmonics soon die away (the step polynomial of the seventh degree: (35t - 35t³ + 21t⁵ - 5t⁷) / 16). No division.
 */
export function bend(x: number): number {
  const scaled = x * 0.45714285714285713;
  const t = scaled > 1 ? 1 : scaled < -1 ? -1 : scaled;
  const square = t * t;
  return t * (2.1875 + square * (-2.1875 + square * (1.3125 - 0.3125 * square)));
}
