import { instantiate, soundMemory, takeBytes } from '../soundMemory';
import { FILTER_LOOPS_WASM } from './filterLoopsWasm';
import type { MixBus } from './mixBus';

interface Exports {
  filter1(frames: number, left: number, right: number, numbers: number): void;
  filter3(frames: number, left: number, right: number, numbers: number): void;
}

const fast = instantiate<Exports>(FILTER_LOOPS_WASM);

/** Whether left and right can go at once, and several filters side by side. */
export const isQuick = fast !== null;

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

/** What is lent to the module while it works: all its callers own theirs. */
const LENT_AT = takeBytes(8 * 3 * FILTER_NUMBERS);
const lent = new Float64Array(soundMemory, LENT_AT, 3 * FILTER_NUMBERS);

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
