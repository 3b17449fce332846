import { exp2, log2 } from '../../math';
import { instantiate, soundMemory, takeBytes } from '../soundMemory';
import { compressedLevel } from './compressorCurve';
import { COMPRESSOR_LOOP_WASM } from './compressorLoopWasm';
import type { MixBus } from './mixBus';

interface Exports {
  compress(frames: number, left: number, right: number, numbers: number, until: number): void;
}

const fast = instantiate<Exports>(COMPRESSOR_LOOP_WASM);

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

/** What is lent to the module while it works: all its callers own theirs. */
const LENT_AT = takeBytes(8 * COMPRESSOR_NUMBERS);
const lent = new Float64Array(soundMemory, LENT_AT, COMPRESSOR_NUMBERS);

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
