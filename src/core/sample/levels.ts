import { HALF_TAPS, windowedSinc } from './kernel';

/** Frames per second of all samples: they are brought to it once, when they come. */
export const SAMPLE_RATE = 48000;

/** Sound as numbers, a list for each of one or two channels; -1..1. */
export interface SampleAudio {
  channels: Float32Array[];
}

/** The audio of a sample, with its name. */
export interface Sample extends SampleAudio {
  id: string;
}

/**
 * A sample for one half octave of pitches: nothing is in it that would fold back down to where it is heard when it is read so much
 * faster. It has more frames than what is in it needs, so that few of them are weighed for each that is read.
 */
export interface SampleLevel {
  /** Frames of the sample to one of its own: 0.5 where it has twice as many. */
  every: number;
  /** With `MARGIN` frames of silence before and after, so that reading needs no bounds. */
  channels: Float32Array[];
}

/** A sample as the engine plays it. */
export interface PreparedSample {
  /** Names its audio. */
  id: string;
  /** Frames at SAMPLE_RATE. */
  frames: number;
  levels: SampleLevel[];
}

/** Frames of silence around each level. */
export const MARGIN = HALF_TAPS + 2;

/** Half octaves above its own pitch for which a sample is prepared: three octaves. What is read faster still folds. */
const HALF_OCTAVES = 6;

/** Kaiser's shape for 90 dB (see `kernel.ts`). */
const BETA = 8.96;

interface Band {
  /** Shares of the sample rate up to which all is kept, and from which on nothing is. */
  pass: number;
  stop: number;
}

/**
 * Of what is read r times faster, all that will lie below 0.4 of the rate is kept, and all that would lie above half of it goes,
 * where r is the least of the half octave; at its most what is left folds to above 0.4 at the least.
 */
const LOWER_HALF: Band = { pass: 0.4, stop: 0.42 };
const UPPER_HALF: Band = { pass: 0.2828, stop: 0.297 };
/** What folds when every second frame is left out does not reach 0.21 of the rate, where the next level ends. */
const HALVING: Band = { pass: 0.21, stop: 0.29 };
/** Of twice the rate, what keeps all below 0.4 of the rate itself and none of its mirror image. */
const DOUBLING: Band = { pass: 0.2, stop: 0.3 };

/** Which level is read at so many frames of the sample to a frame of sound. */
export function levelFor(ratio: number, levels: number): number {
  if (ratio <= 1) return 0;
  let level = 1;
  let rest = ratio;
  for (; rest >= 2 && level < levels; rest /= 2) level += 2;
  if (rest >= 1.4142135623730951) level++;
  return Math.min(level, levels - 1);
}

/**
 * Prepares a sample for being read slower and faster: filtered for each half octave, with half the frames an octave up. It takes
 * about 0.6 µs a frame and channel, so a worker does it, and seven times the room of the sample.
 */
export function prepareSample({ id, channels }: Sample): PreparedSample {
  const level = (every: number, made: Float32Array[]): SampleLevel => ({ every, channels: made.map(withMargin) });
  const levels = [level(0.5, channels.map(doubled))];
  let octave = channels;
  for (let every = 1; levels.length <= HALF_OCTAVES; every *= 2) {
    if (every > 1) octave = octave.map((channel) => filtered(channel, HALVING, 2));
    levels.push(level(every / 2, octave.map((channel) => doubled(filtered(channel, LOWER_HALF))))); // prettier-ignore
    levels.push(level(every, octave.map((channel) => filtered(channel, UPPER_HALF)))); // prettier-ignore
  }
  return { id, frames: channels[0]!.length, levels };
}

/** Bytes that a prepared sample takes. */
export function preparedBytes({ levels }: PreparedSample): number {
  return levels.reduce((sum, { channels }) => channels.reduce((bytes, { byteLength }) => bytes + byteLength, sum), 0);
}

function withMargin(channel: Float32Array): Float32Array {
  const out = new Float32Array(channel.length + 2 * MARGIN);
  out.set(channel, MARGIN);
  return out;
}

/** Weights of a filter from its middle to its end: it is the same on both sides. */
function halfFilter({ pass, stop }: Band): Float64Array {
  // Taps for 90 dB by Kaiser's rule: (90 - 7.95) / (2.285 * 2π * width).
  const half = Math.ceil(5.72 / (stop - pass) / 2);
  const weights = Float64Array.from({ length: half }, (_, x) => windowedSinc(x, half, (pass + stop) / 2, BETA));
  const sum = weights.reduce((all, weight) => all + 2 * weight, -weights[0]!);
  return weights.map((weight) => weight / sum);
}

/** A channel through a filter, of which one frame in `every` is kept. */
function filtered(channel: Float32Array, band: Band, every = 1): Float32Array {
  const weights = halfFilter(band);
  const half = weights.length;
  const padded = new Float64Array(channel.length + 2 * half);
  padded.set(channel, half);
  const out = new Float32Array(Math.ceil(channel.length / every));
  for (let i = 0; i < out.length; i++) {
    const middle = half + i * every;
    let sum = weights[0]! * padded[middle]!;
    for (let x = 1; x < half; x++) sum += weights[x]! * (padded[middle - x]! + padded[middle + x]!);
    out[i] = sum;
  }
  return out;
}

/** A channel with a frame between every two: those that there were stay as they are. */
function doubled(channel: Float32Array): Float32Array {
  // Every second weight, that of an even distance, is 0.
  const weights = halfFilter(DOUBLING).filter((_, x) => x % 2 === 1);
  const padded = new Float64Array(channel.length + 2 * weights.length);
  padded.set(channel, weights.length);
  const out = new Float32Array(2 * channel.length);
  for (let i = 0; i < channel.length; i++) {
    const before = weights.length + i;
    let sum = 0;
    for (let x = 0; x < weights.length; x++) sum += weights[x]! * (padded[before - x]! + padded[before + 1 + x]!);
    out[2 * i] = channel[i]!;
    out[2 * i + 1] = 2 * sum;
  }
  return out;
}
