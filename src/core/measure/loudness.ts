import { raiseBetween, MOST_RISE, TAPS } from '../sound/betweenSamples';
import { Weighting } from './weighting';

/** How loud a piece of music is, as broadcasters and listening services measure it. */
export interface Loudness {
  /** Of the whole, LUFS; -Infinity for silence. */
  integrated: number;
  /** Of its loudest 400 ms, LUFS. */
  loudest: number;
  /** Between its soft and its loud parts, LU. */
  range: number;
  /** Of the wave between the samples, dBTP. */
  truePeak: number;
  /** Of the three seconds up to each second, LUFS. */
  course: number[];
}

const STEP_SECONDS = 0.1;
const MOMENTARY_STEPS = 4;
const SHORT_STEPS = 30;
const SILENCE = -70;

/**
 * Measures loudness after ITU-R BS.1770-4, its range after EBU Tech 3342, and the true peak after Annex 2 of BS.1770 by four times
 * oversampling.
 */
export class LoudnessMeter {
  private readonly left: Weighting;
  private readonly right: Weighting;
  private readonly peaks = [new TruePeak(), new TruePeak()] as const;
  private readonly stepFrames: number;
  private inStep = 0;
  private energy = 0;
  /** Mean square of each tenth of a second, both channels together. */
  private readonly steps: number[] = [];

  /** @param sampleRate frames per second */
  constructor(sampleRate: number) {
    this.left = new Weighting(sampleRate);
    this.right = new Weighting(sampleRate);
    this.stepFrames = Math.round(STEP_SECONDS * sampleRate);
  }

  add(left: Float32Array, right: Float32Array): void {
    this.peaks[0].add(left);
    this.peaks[1].add(right);
    for (let from = 0; from < left.length;) {
      const to = Math.min(left.length, from + this.stepFrames - this.inStep);
      this.energy += this.left.energy(left, from, to) + this.right.energy(right, from, to);
      this.inStep += to - from;
      from = to;
      if (this.inStep < this.stepFrames) break;
      this.steps.push(this.energy / this.stepFrames);
      this.energy = this.inStep = 0;
    }
  }

  get result(): Loudness {
    const momentary = this.means(MOMENTARY_STEPS);
    const short = this.means(SHORT_STEPS);
    const peak = Math.max(this.peaks[0].most, this.peaks[1].most);
    return {
      integrated: gated(momentary, -10),
      loudest: momentary.length > 0 ? loudnessOf(momentary.reduce((most, one) => Math.max(most, one), 0)) : -Infinity,
      range: rangeOf(short),
      truePeak: 20 * Math.log10(peak),
      course: short.filter((_, i) => i % 10 === 0).map(loudnessOf),
    };
  }

  /** Mean squares of so many steps in a row, beginning at each step. */
  private means(count: number): number[] {
    const means: number[] = [];
    let sum = 0;
    this.steps.forEach((energy, i) => {
      sum += energy;
      if (i >= count) sum -= this.steps[i - count]!;
      if (i >= count - 1) means.push(Math.max(0, sum / count));
    });
    return means;
  }
}

function loudnessOf(energy: number): number {
  return -0.691 + 10 * Math.log10(energy);
}

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/** Those above silence, and not further than `below` (LU) beneath their mean. */
function aboveGate(energies: readonly number[], below: number): number[] {
  const heard = energies.filter((energy) => loudnessOf(energy) > SILENCE);
  if (heard.length === 0) return [];
  const gate = loudnessOf(mean(heard)) + below;
  return heard.filter((energy) => loudnessOf(energy) > gate);
}

function gated(energies: readonly number[], below: number): number {
  const heard = aboveGate(energies, below);
  return heard.length === 0 ? -Infinity : loudnessOf(mean(heard));
}

/** From the tenth to the ninety-fifth percentile of the short-term loudness. */
function rangeOf(energies: readonly number[]): number {
  const sorted = aboveGate(energies, -20)
    .map(loudnessOf)
    .sort((a, b) => a - b);
  if (sorted.length === 0) return 0;
  const at = (share: number) => sorted[Math.round((sorted.length - 1) * share)]!;
  return at(0.95) - at(0.1);
}

/** The highest value of one channel's wave, between its samples too. */
class TruePeak {
  private readonly highest = new Float64Array(1);
  private last = new Float64Array(TAPS - 1);

  get most(): number {
    return this.highest[0]!;
  }

  add(samples: Float32Array): void {
    const all = new Float64Array(this.last.length + samples.length);
    all.set(this.last);
    all.set(samples, this.last.length);
    const { highest } = this;
    for (let i = 0; i < samples.length; i++) {
      const level = Math.abs(samples[i]!);
      if (level > highest[0]!) highest[0] = level;
    }
    // Most of the music is far from its peak: there is nothing to be found between its samples.
    let before = Math.abs(all[TAPS / 2 - 1]!);
    for (let i = 0; i + TAPS <= all.length; i++) {
      const after = Math.abs(all[i + TAPS / 2]!);
      if ((before > after ? before : after) * MOST_RISE > highest[0]!) raiseBetween(all, i, highest);
      before = after;
    }
    this.last = all.slice(all.length - (TAPS - 1));
  }
}
