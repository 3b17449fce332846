import { HALF_TAPS, kernelTable, PHASES, TAPS } from '../sample/kernel';
import { MARGIN } from '../sample/levels';
import { SAMPLE_READER_WASM } from './sampleReaderWasm';
import { instantiate, READER_BYTES, soundMemory } from './soundMemory';
import { MAX_STRETCH } from './stretch';

interface Exports {
  read(count: number, place: number, step: number, gain: number, decay: number, to: number): number;
}

/** Where things lie in the memory of sampleReader.wat, in bytes. */
const SLOPES_AT = 4 * PHASES * TAPS;
const SOUND_AT = 2 * SLOPES_AT;
const WINDOW_AT = SOUND_AT + 3 * 8 * MAX_STRETCH;
/** Frames of a level that there is room for: only what is read some hundred times faster than it was recorded needs more. */
const WINDOW = (READER_BYTES - WINDOW_AT) / 4;

/** Where in a channel the first frame lies that is weighed for place 0. */
const BEFORE = MARGIN - HALF_TAPS + 1;

const fast = instantiate<Exports>(SAMPLE_READER_WASM);
const weights = new Float32Array(soundMemory, 0, PHASES * TAPS);
const slopes = new Float32Array(soundMemory, SLOPES_AT, PHASES * TAPS);
const near = new Float32Array(soundMemory, WINDOW_AT, WINDOW);
weights.set(kernelTable().weights);
slopes.set(kernelTable().slopes);

const stretchAt = (index: number) => SOUND_AT + index * 8 * MAX_STRETCH;
const stretch = (index: number) => new Float64Array(soundMemory, stretchAt(index), MAX_STRETCH);
/** Where all voices of a thread work: one stretch of two channels, and of what is added to one of them. */
export const leftSound = stretch(0);
export const rightSound = stretch(1);
export const otherSound = stretch(2);
/** In bytes of the memory. */
export const LEFT_AT = stretchAt(0);
export const RIGHT_AT = stretchAt(1);

/**
 * Places and steps are whole numbers of this (2^-30), in frames of a sample. Of at most 2^23 frames all sums are exact then, and the
 * sound is the same however it is cut into blocks. The lowest of levels has one frame for four, so the reader has 32 bits after the
 * point.
 */
const GRID = 1 / 1073741824;

/** The nearest step to a speed; below 0 backwards. */
export function stepOf(speed: number): number {
  return Math.round(speed / GRID) * GRID;
}

/** A stretch of a sample that is read. */
export interface Reading {
  /** Its first place, in frames of the sample; no place lies outside it. */
  at: number;
  /** From one place to the next; below 0 backwards. */
  step: number;
  /** At least 1. */
  count: number;
  /** How loud its first frame is, and by how much each is louder than the last. */
  gain: number;
  decay: number;
}

/**
 * Reads a level by windowed-sinc interpolation.
 * @param channel of a level, with its margins
 * @param per frames of the level to one of the sample
 * @param into one of the stretches above, from `to` on
 * @returns the gain of what follows
 */
export function readSample(
  channel: Float32Array,
  per: number,
  reading: Reading,
  into: Float64Array,
  to: number,
): number {
  const { at, step, count, gain, decay } = reading;
  // Frame by frame there is nothing to be read between.
  if ((step === 1 || step === -1) && at % 1 === 0 && per >= 1) return copyFrames(channel, per, reading, into, to);
  const last = at + (count - 1) * step;
  const begin = Math.floor(Math.min(at, last) * per);
  const frames = Math.floor(Math.max(at, last) * per) - begin + TAPS;
  if (!fast || frames > WINDOW) return readSlowly(channel, per, reading, into, to);
  // What is weighed for all places.
  const from = begin + BEFORE;
  for (let i = 0; i < frames; i++) near[i] = channel[from + i]!;
  return fast.read(count, at * per - begin, step * per, gain, decay, into.byteOffset + 8 * to);
}

function copyFrames(channel: Float32Array, per: number, reading: Reading, into: Float64Array, to: number): number {
  const { at, step, count, decay } = reading;
  let { gain } = reading;
  for (let i = 0; i < count; i++) {
    into[to + i] = channel[MARGIN + (at + i * step) * per]! * gain;
    gain *= decay;
  }
  return gain;
}

/** What sampleReader.wat does: in single precision, and in the order of its four lanes. Three times as slow. */
export function readSlowly(
  channel: Float32Array,
  per: number,
  reading: Reading,
  into: Float64Array,
  to: number,
): number {
  const { fround } = Math;
  const { at, step, count, decay } = reading;
  let { gain } = reading;
  for (let i = 0; i < count; i++) {
    const exact = (at + i * step) * per;
    const whole = Math.floor(exact);
    const place = (exact - whole) * PHASES;
    const phase = Math.floor(place);
    const along = fround(place - phase);
    let a = 0;
    let b = 0;
    let c = 0;
    let d = 0;
    for (let tap = 0; tap < TAPS; tap += 4) {
      const row = phase * TAPS + tap;
      const x = whole + BEFORE + tap;
      a = fround(a + fround(channel[x]! * weightAt(row, along)));
      b = fround(b + fround(channel[x + 1]! * weightAt(row + 1, along)));
      c = fround(c + fround(channel[x + 2]! * weightAt(row + 2, along)));
      d = fround(d + fround(channel[x + 3]! * weightAt(row + 3, along)));
    }
    into[to + i] = fround(fround(a + c) + fround(b + d)) * gain;
    gain *= decay;
  }
  return gain;
}

/** A weight between two of the table. */
const weightAt = (index: number, along: number) => Math.fround(weights[index]! + Math.fround(along * slopes[index]!));
