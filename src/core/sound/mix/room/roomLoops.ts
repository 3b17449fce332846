import { instantiate, soundMemory, takeBytes } from '../../soundMemory';
import { MAX_STRETCH } from '../../stretch';
import { flushed } from '../../flushed';
import { ROOM_LOOPS_WASM } from './roomLoopsWasm';

interface Exports {
  goRound(frames: number, work: number, losses: number): void;
}

const fast = instantiate<Exports>(ROOM_LOOPS_WASM);

/** Delay lines of a room. */
export const LINES = 8;
/** Where in what its lines lose: the gain of each line, and how much of its highs it keeps; the steps of both; then what each of them holds. */
export const LOSS = { gain: 0, damp: LINES, steps: 2 * LINES, held: 4 * LINES } as const;
/** Of these, those that are aimed at. */
export const AIMED_LOSSES = LOSS.steps;
export const LOSS_NUMBERS = LOSS.held + LINES;

/** The share of what goes round that is heard before it does, and of what comes back. */
const SPREAD_LEVEL = 0.44;
const LINE_LEVEL = 0.385;
/** One over the square root of eight: so the matrix neither adds nor takes energy. */
const EIGHTH_ROOT = 0.35355339059327373;

const WORK_AT = takeBytes(8 * MAX_STRETCH * (4 + LINES));
const stretch = (index: number) => new Float64Array(soundMemory, WORK_AT + 8 * MAX_STRETCH * index, MAX_STRETCH);

/** The stretch that is just being rendered: what goes into the lines, on either side. */
export const into = { left: stretch(0), right: stretch(1) };
/** What is heard of them. */
export const heard = { left: stretch(2), right: stretch(3) };
/** What comes out of each of them; and then what goes into it, flushed. */
export const passing: readonly Float64Array[] = Array.from({ length: LINES }, (_, line) => stretch(4 + line));

/** What is lent to the module while it works. */
const LENT_AT = takeBytes(8 * LOSS_NUMBERS);
const lent = new Float64Array(soundMemory, LENT_AT, LOSS_NUMBERS);

/**
 * What comes out of the lines loses, is mixed by a matrix, and becomes what goes into them: of `passing` and `into`, into `heard` and `passing`.
 * Hadamard's matrix: orthogonal, and made of sums alone.
 */
export function goRound(losses: Float64Array, frames: number): void {
  if (!fast) return goRoundMoving(losses, frames);
  for (let i = 0; i < LOSS_NUMBERS; i++) lent[i] = losses[i]!;
  fast.goRound(frames, WORK_AT, LENT_AT);
  for (let i = LOSS.held; i < LOSS_NUMBERS; i++) losses[i] = lent[i]!;
}

/** The same, while its losses move by a step with each sample. */
export function goRoundMoving(losses: Float64Array, frames: number): void {
  for (let line = 0; line < LINES; line++) lose(losses, line, frames);
  const e0 = passing[0]!;
  const e1 = passing[1]!;
  const e2 = passing[2]!;
  const e3 = passing[3]!;
  const e4 = passing[4]!;
  const e5 = passing[5]!;
  const e6 = passing[6]!;
  const e7 = passing[7]!;
  for (let i = 0; i < frames; i++) {
    const a = e0[i]! + e1[i]!;
    const b = e0[i]! - e1[i]!;
    const c = e2[i]! + e3[i]!;
    const d = e2[i]! - e3[i]!;
    const e = e4[i]! + e5[i]!;
    const f = e4[i]! - e5[i]!;
    const g = e6[i]! + e7[i]!;
    const h = e6[i]! - e7[i]!;
    const x = into.left[i]!;
    const y = into.right[i]!;
    // Two rows of the matrix: whatever the lines hold, one side has nothing in common with the other.
    heard.left[i] = SPREAD_LEVEL * x + LINE_LEVEL * (b - d + f - h);
    heard.right[i] = LINE_LEVEL * (a - c - (e - g)) + SPREAD_LEVEL * y;
    const p = a + c;
    const q = a - c;
    const r = b + d;
    const s = b - d;
    const t = e + g;
    const u = e - g;
    const v = f + h;
    const w = f - h;
    e0[i] = flushed(x + (p + t) * EIGHTH_ROOT);
    e1[i] = flushed((r + v) * EIGHTH_ROOT - y);
    e2[i] = flushed(x + (q + u) * EIGHTH_ROOT);
    e3[i] = flushed((s + w) * EIGHTH_ROOT - y);
    e4[i] = flushed((p - t) * EIGHTH_ROOT - x);
    e5[i] = flushed(y + (r - v) * EIGHTH_ROOT);
    e6[i] = flushed((q - u) * EIGHTH_ROOT - x);
    e7[i] = flushed(y + (s - w) * EIGHTH_ROOT);
  }
}

function lose(losses: Float64Array, line: number, frames: number): void {
  const sound = passing[line]!;
  const gainStep = losses[LOSS.steps + line]!;
  const dampStep = losses[LOSS.steps + LINES + line]!;
  let gain = losses[line]!;
  let damp = losses[LOSS.damp + line]!;
  let held = losses[LOSS.held + line]!;
  for (let i = 0; i < frames; i++) {
    held += (sound[i]! - held) * damp;
    sound[i] = held * gain;
    gain += gainStep;
    damp += dampStep;
  }
  losses[line] = gain;
  losses[LOSS.damp + line] = damp;
  losses[LOSS.held + line] = held;
}
