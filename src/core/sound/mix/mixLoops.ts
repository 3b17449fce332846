import { exp2, log2 } from '../../math';
import { compressedLevel } from './compressorCurve';
import { instantiate, soundMemory, takeBytes } from '../soundMemory';
import { MAX_STRETCH } from '../stretch';
import { MIX_LOOPS_WASM } from './mixLoopsWasm';
import type { MixBus } from './mixBus';

interface Exports {
  filter1(frames: number, left: number, right: number, numbers: number): void;
  send(frames: number, left: number, right: number, room: number, echo: number, l: number, r: number, toRoom: number, toEcho: number): void; // prettier-ignore
  filter3(frames: number, left: number, right: number, numbers: number): void;
  saturate(frames: number, left: number, right: number, numbers: number, work: number): void;
  compress(frames: number, left: number, right: number, numbers: number, until: number): void;
}

const fast = instantiate<Exports>(MIX_LOOPS_WASM);

/** Whether left and right can go at once, and several filters side by side. */
export const isQuick = fast !== null;

/** What is held that is as good as nothing. */
const QUIET = 1e-12;

/** Whether all that is held, from a place in the numbers on, is as good as nothing. */
export function isEmpty(numbers: Float64Array, from: number): boolean {
  for (let i = from; i < numbers.length; i++) if (Math.abs(numbers[i]!) > QUIET) return false;
  return true;
}

// --- filter ---------------------------------------------------------------------------------------------------

/**
 * Where in the numbers of a filter: those that move with each sample, the steps that they take, and what both integrators hold: left and
 * right of the first, then of the second.
 */
export const [A1, A2, A3, M0, M1, M2, FIRST_STEP, HELD] = [0, 1, 2, 3, 4, 5, 6, 12] as const;
export const FILTER_NUMBERS = 16;

/**
 * Filters frames of a bus in place by three filters, one after the other, of which none moves: while one of them waits for its last sample, the
 * next one works. To the bit what `filter` does by each of them. Only where `isQuick`.
 */
export function filter3(
  one: Float64Array,
  two: Float64Array,
  three: Float64Array,
  bus: MixBus,
  from: number,
  frames: number,
): void {
  lend(one, 0);
  lend(two, FILTER_NUMBERS);
  lend(three, 2 * FILTER_NUMBERS);
  fast!.filter3(frames, bus.leftAt + 8 * from, bus.rightAt + 8 * from, LENT_AT);
  takeBack(one, 0);
  takeBack(two, FILTER_NUMBERS);
  takeBack(three, 2 * FILTER_NUMBERS);
}

/** And by one of them, which does not move either. */
export function filter1(numbers: Float64Array, bus: MixBus, from: number, frames: number): void {
  lend(numbers, 0);
  fast!.filter1(frames, bus.leftAt + 8 * from, bus.rightAt + 8 * from, LENT_AT);
  takeBack(numbers, 0);
}

function lend(numbers: Float64Array, at: number): void {
  for (let i = 0; i < FIRST_STEP; i++) lent[at + i] = numbers[i]!;
  for (let i = HELD; i < FILTER_NUMBERS; i++) lent[at + i] = numbers[i]!;
}

function takeBack(numbers: Float64Array, at: number): void {
  for (let i = HELD; i < FILTER_NUMBERS; i++) numbers[i] = lent[at + i]!;
}

/** Filters frames of a bus in place. Left and right side by side: each waits for its last sample most of the time. */
export function filter(numbers: Float64Array, { left, right }: MixBus, from: number, frames: number): void {
  let a1 = numbers[A1]!;
  let a2 = numbers[A2]!;
  let a3 = numbers[A3]!;
  let m0 = numbers[M0]!;
  let m1 = numbers[M1]!;
  let m2 = numbers[M2]!;
  const s1 = numbers[FIRST_STEP + A1]!;
  const s2 = numbers[FIRST_STEP + A2]!;
  const s3 = numbers[FIRST_STEP + A3]!;
  const t0 = numbers[FIRST_STEP + M0]!;
  const t1 = numbers[FIRST_STEP + M1]!;
  const t2 = numbers[FIRST_STEP + M2]!;
  let l1 = numbers[HELD]!;
  let r1 = numbers[HELD + 1]!;
  let l2 = numbers[HELD + 2]!;
  let r2 = numbers[HELD + 3]!;
  for (let i = from; i < from + frames; i++) {
    const l = left[i]!;
    const r = right[i]!;
    const aboveLeft = l - l2;
    const aboveRight = r - r2;
    const bandLeft = a1 * l1 + a2 * aboveLeft;
    const bandRight = a1 * r1 + a2 * aboveRight;
    const lowLeft = l2 + a2 * l1 + a3 * aboveLeft;
    const lowRight = r2 + a2 * r1 + a3 * aboveRight;
    l1 = 2 * bandLeft - l1;
    r1 = 2 * bandRight - r1;
    l2 = 2 * lowLeft - l2;
    r2 = 2 * lowRight - r2;
    left[i] = m0 * l + m1 * bandLeft + m2 * lowLeft;
    right[i] = m0 * r + m1 * bandRight + m2 * lowRight;
    a1 += s1;
    a2 += s2;
    a3 += s3;
    m0 += t0;
    m1 += t1;
    m2 += t2;
  }
  numbers[A1] = a1;
  numbers[A2] = a2;
  numbers[A3] = a3;
  numbers[M0] = m0;
  numbers[M1] = m1;
  numbers[M2] = m2;
  numbers[HELD] = l1;
  numbers[HELD + 1] = r1;
  numbers[HELD + 2] = l2;
  numbers[HELD + 3] = r2;
}

// --- saturation -----------------------------------------------------------------------------------------------

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

// --- pan and sends --------------------------------------------------------------------------------------------

/** Where in the gains of a channel: of left and right, and the shares that go to room and echo. */
export const SENT = { left: 0, right: 1, room: 2, echo: 3 } as const;
export const SENT_NUMBERS = 4;
const NO_STEPS = new Float64Array(SENT_NUMBERS);

/** Pans frames of a bus in place, and adds what goes to room and echo. */
export function send(gains: Float64Array, bus: MixBus, from: number, frames: number): void {
  if (!fast) return sendMoving(gains, NO_STEPS, bus, from, frames);
  const at = 8 * from;
  fast.send(frames, bus.leftAt + at, bus.rightAt + at, bus.sendAt + at, bus.echoAt + at, gains[SENT.left]!, gains[SENT.right]!, gains[SENT.room]!, gains[SENT.echo]!); // prettier-ignore
}

/** The same, while its gains move by a step with each sample. */
export function sendMoving(
  gains: Float64Array,
  steps: Float64Array,
  { left, right, send: room, echo }: MixBus,
  from: number,
  frames: number,
): void {
  let l = gains[SENT.left]!;
  let r = gains[SENT.right]!;
  let toRoom = gains[SENT.room]!;
  let toEcho = gains[SENT.echo]!;
  const stepLeft = steps[SENT.left]!;
  const stepRight = steps[SENT.right]!;
  const stepRoom = steps[SENT.room]!;
  const stepEcho = steps[SENT.echo]!;
  for (let i = from; i < from + frames; i++) {
    const a = left[i]! * l;
    const b = right[i]! * r;
    left[i] = a;
    right[i] = b;
    room[i]! += (a + b) * toRoom;
    echo[i]! += (a + b) * toEcho;
    l += stepLeft;
    r += stepRight;
    toRoom += stepRoom;
    toEcho += stepEcho;
  }
  gains[SENT.left] = l;
  gains[SENT.right] = r;
  gains[SENT.room] = toRoom;
  gains[SENT.echo] = toEcho;
}

// --- compression ----------------------------------------------------------------------------------------------

/** Frames whose peak is looked at as one, counted from frame 0: a twelfth of a millisecond. */
export const PEAK_FRAMES = 4;
const DB_PER_OCTAVE = 6.020599913279624;
/** log2(10) / 20. */
const OCTAVES_PER_DB = 0.16609640474436813;
/** No level is lower than this: its logarithm is that of silence. */
const SILENCE = 1e-9;
/** dB of reduction that are as good as none. */
export const OPEN_DB = 1e-6;

/**
 * Where in the numbers of a compressor: the gain now and its step with each sample, dB by which it reduces, and the highest peak so far; then
 * threshold, ratio, knee and make-up, and the shares of its way that attack and release leave of it in four frames.
 */
export const COMPRESSOR = { gain: 0, step: 1, reduction: 2, peak: 3, threshold: 4, ratio: 5, knee: 6, makeUp: 7, attack: 8, release: 9 } as const; // prettier-ignore
export const COMPRESSOR_NUMBERS = 10;
const COMPRESSOR_STATE = COMPRESSOR.threshold;

/** Compresses frames of a bus in place. @param until frames until four are known */
export function compress(numbers: Float64Array, bus: MixBus, from: number, frames: number, until: number): void {
  if (!fast) return compressSlowly(numbers, bus, from, frames, until);
  for (let i = 0; i < COMPRESSOR_NUMBERS; i++) lent[i] = numbers[i]!;
  fast.compress(frames, bus.leftAt + 8 * from, bus.rightAt + 8 * from, LENT_AT, until);
  for (let i = 0; i < COMPRESSOR_STATE; i++) numbers[i] = lent[i]!;
}

export function compressSlowly(
  numbers: Float64Array,
  { left, right }: MixBus,
  from: number,
  frames: number,
  until: number,
): void {
  let gain = numbers[COMPRESSOR.gain]!;
  let step = numbers[COMPRESSOR.step]!;
  let peak = numbers[COMPRESSOR.peak]!;
  for (let i = from; i < from + frames; i++) {
    const l = left[i]!;
    const r = right[i]!;
    const a = Math.abs(l);
    const b = Math.abs(r);
    if (a > peak) peak = a;
    if (b > peak) peak = b;
    left[i] = l * gain;
    right[i] = r * gain;
    gain += step;
    if (--until > 0) continue;
    until = PEAK_FRAMES;
    numbers[COMPRESSOR.gain] = gain;
    numbers[COMPRESSOR.peak] = peak;
    followPeak(numbers);
    step = numbers[COMPRESSOR.step]!;
    peak = 0;
  }
  numbers[COMPRESSOR.gain] = gain;
  numbers[COMPRESSOR.peak] = peak;
}

/** Four frames are known: where the gain is to be four frames later. */
function followPeak(numbers: Float64Array): void {
  const peak = numbers[COMPRESSOR.peak]!;
  const level = DB_PER_OCTAVE * log2(peak > SILENCE ? peak : SILENCE);
  const curve = compressedLevel(
    level,
    numbers[COMPRESSOR.threshold]!,
    numbers[COMPRESSOR.ratio]!,
    numbers[COMPRESSOR.knee]!,
  );
  const wanted = level - curve;
  const before = numbers[COMPRESSOR.reduction]!;
  const share = wanted > before ? numbers[COMPRESSOR.attack]! : numbers[COMPRESSOR.release]!;
  const after = wanted + (before - wanted) * share;
  const reduction = after < OPEN_DB && wanted === 0 ? 0 : after;
  numbers[COMPRESSOR.reduction] = reduction;
  const soon = exp2(OCTAVES_PER_DB * (numbers[COMPRESSOR.makeUp]! - reduction));
  numbers[COMPRESSOR.step] = (soon - numbers[COMPRESSOR.gain]!) / PEAK_FRAMES;
}

/** What is lent to the module while it works: all its callers own theirs. */
const LENT = Math.max(3 * FILTER_NUMBERS, SATURATION_NUMBERS);
const LENT_AT = takeBytes(8 * LENT);
const lent = new Float64Array(soundMemory, LENT_AT, LENT);
/** What a saturation leaves between its passes: two samples of both sides for each frame. */
const WORK_AT = takeBytes(4 * 8 * MAX_STRETCH);
