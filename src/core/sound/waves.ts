import { fourierOf } from './fourier';

/**
 * Waves by the amplitudes of their harmonics (k = 1 is the fundamental, all are sines): the textbook series of saw, square and
 * triangle; a string that is plucked at a seventh of its length, whose every seventh harmonic is missing; a reed in a closed pipe,
 * with few even harmonics; and the pipes of an organ, named by their lengths in feet: 8 is the note itself.
 */
const HARMONICS = {
  saw: (k: number) => 1 / k,
  square: (k: number) => (k % 2) / k,
  triangle: (k: number) => (k % 4 === 1 ? 1 : k % 4 === 3 ? -1 : 0) / (k * k),
  string: (k: number) => PLUCKED[k % 7]! / k,
  reed: (k: number) => (k % 2 === 1 ? 1 : 0.25) / (k * Math.sqrt(k)),
  bowed: (k: number) => 1 / (k * (1 + k / 9)),
  foundation: pipes({ 1: 0.8, 2: 1, 3: 0.55, 4: 0.5 }),
  chorus: pipes({ 1: 0.7, 2: 1, 3: 0.5, 4: 0.7, 6: 0.3, 8: 0.45, 10: 0.15, 12: 0.15, 16: 0.3 }),
  flutes: pipes({ 2: 1, 4: 0.25, 8: 0.08 }),
  hollow: pipes({ 1: 0.6, 2: 0.3, 3: 1, 6: 0.3, 9: 0.12 }),
  street: pipes({ 2: 0.7, 4: 1, 6: 0.35, 8: 0.75, 12: 0.25, 16: 0.5 }),
} as const satisfies Record<string, (k: number) => number>;
export type WaveName = keyof typeof HARMONICS;

/** |sin(π k / 7)| for k = 0..6: how much of each harmonic a string has that is plucked at a seventh of its length. */
const PLUCKED = [0, 0.433884, 0.781831, 0.974928, 0.974928, 0.781831, 0.433884];

/** Pipes over a fundamental an octave below the note, so that a sixteen-foot pipe is harmonic 1 and an eight-foot one 2. */
function pipes(levels: Record<number, number>): (k: number) => number {
  return (k) => levels[k] ?? 0;
}

/** How many times lower than its note a wave's fundamental lies. */
export function depthOf(name: WaveName): 1 | 2 {
  return name === 'foundation' || name === 'chorus' || name === 'flutes' || name === 'hollow' || name === 'street' ? 2 : 1; // prettier-ignore
}

/** Samples of one cycle, with what its ends need to be read between: `frames` of them from index 1 on. */
export interface WaveTable {
  samples: Float32Array;
  frames: number;
  /** Cycles a sample up to which none of its harmonics folds. */
  highest: number;
}

/**
 * Two tables to an octave: table l has the 2^(l/2) lowest harmonics, and is for steps of up to 0.5 / 2^(l/2) cycles a sample. The last
 * one's 512 reach 16.7 kHz for C1.
 */
const TABLES = 19;
/** So many samples to a cycle of the highest harmonic, and to the shortest table: what reading between them adds lies below -100 dB. */
const OVERSAMPLED = 8;
const LEAST_FRAMES = 1024;

const made: Partial<Record<WaveName, readonly WaveTable[]>> = {};

/**
 * The tables of a wave, that with the fewest harmonics first. They are made when they are first asked for, and then kept: ask
 * before they are to sound.
 */
export function waveTables(name: WaveName): readonly WaveTable[] {
  return (made[name] ??= makeTables(HARMONICS[name]));
}

/** Index of the table with the most harmonics of which none folds at a step. @param step cycles a sample */
export function tableAt(tables: readonly WaveTable[], step: number): number {
  let i = tables.length - 1;
  while (i > 0 && tables[i]!.highest < step) i--;
  return i;
}

/** Harmonics softer than this share of the first are none: 100 dB. */
const LEAST = 1e-5;

function makeTables(amplitude: (k: number) => number): WaveTable[] {
  // The same power for all waves, so that none is louder than another.
  const gain = 1 / Math.sqrt(powerOf(amplitude));
  const tables: WaveTable[] = [];
  const last = highestHarmonic(amplitude);
  for (let times = 1; tables.length < TABLES; times *= 2) {
    const [few, more] = [Math.round(times), Math.floor(times * Math.SQRT2)];
    // With no harmonic more than the last one has, it is the last one.
    const pair = few > last ? [tables.at(-1)!, tables.at(-1)!] : makePair(amplitude, gain, few, more);
    tables.push({ ...pair[0]!, highest: 0.5 / times }, { ...pair[1]!, highest: 0.5 / (times * Math.SQRT2) });
  }
  return tables.slice(0, TABLES);
}

function powerOf(amplitude: (k: number) => number): number {
  let power = 0;
  for (let k = 1; k <= 64; k++) power += amplitude(k) * amplitude(k);
  return power;
}

function highestHarmonic(amplitude: (k: number) => number): number {
  let k = 512;
  while (Math.abs(amplitude(k)) < LEAST) k--;
  return k;
}

/** One transform makes two tables: one of its real part, one of its imaginary part. */
function makePair(
  amplitude: (k: number) => number,
  gain: number,
  few: number,
  more: number,
): Omit<WaveTable, 'highest'>[] {
  // prettier-ignore
  let frames = LEAST_FRAMES;
  while (frames < OVERSAMPLED * more) frames *= 2;
  const fourier = fourierOf(frames);
  const { real, imaginary } = fourier;
  fourier.clear();
  for (let k = 1; k <= more; k++) {
    const half = 0.5 * gain * amplitude(k);
    if (half === 0) continue;
    const place = fourier.placeOf(k);
    const mirror = fourier.placeOf(frames - k);
    // Bins of -i and +i are a sine; turned by i, they are one in the imaginary part.
    if (k <= few) {
      imaginary[place] = -half;
      imaginary[mirror] = half;
    }
    real[place] = half;
    real[mirror] = -half;
  }
  fourier.transform();
  return [closed(real), closed(imaginary)];
}

/** A cycle with the samples beyond its ends that are needed to read between those at them. */
function closed(cycle: Float64Array): Omit<WaveTable, 'highest'> {
  const frames = cycle.length;
  const samples = new Float32Array(frames + 3);
  samples[0] = cycle[frames - 1]!;
  for (let i = 0; i < frames; i++) samples[i + 1] = cycle[i]!;
  samples[frames + 1] = cycle[0]!;
  samples[frames + 2] = cycle[1]!;
  return { samples, frames };
}
