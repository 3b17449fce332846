import { MIX_RANGES } from '../../document/mix';
import { decibels, exp2, log2 } from '../../math';
import { Glide, glideLooks } from './glide';

/** Frames whose peak is looked at as one, counted from frame 0: a twelfth of a millisecond. */
const PEAK_FRAMES = 4;
const DB_PER_OCTAVE = 6.020599913279624;
/** log2(10) / 20. */
const OCTAVES_PER_DB = 0.16609640474436813;
/** No level is lower than this: its logarithm is that of silence. */
const SILENCE = 1e-9;
/** dB of reduction that are as good as none. */
const OPEN_DB = 1e-6;
/** -log2(e): e^(-x) is 2 to the power of this times x. */
const E = -1.4426950408889634;

/** What a compressor can be told. */
export const COMPRESSOR_SETTINGS = ['threshold', 'ratio', 'attack', 'release', 'makeUp', 'knee'] as const;
export type CompressorSetting = (typeof COMPRESSOR_SETTINGS)[number];

/**
 * The static curve: the level that comes out for one that goes in, dB, without make-up (D. Giannoulis, M. Massberg, J. Reiss, Digital Dynamic
 * Range Compressor Design, 2012).
 * @example compressedLevel(-10, -20, 4, 6) // -17.5
 */
export function compressedLevel(level: number, threshold: number, ratio: number, knee: number): number {
  const over = level - threshold;
  if (2 * over <= -knee) return level;
  if (2 * over >= knee) return threshold + over / ratio;
  const into = over + knee / 2;
  return level + ((1 / ratio - 1) * into * into) / (2 * knee);
}

/** Where in its numbers: the gain now and its step with each sample, dB by which it reduces, and the highest peak so far. */
const [GAIN, STEP, REDUCTION, PEAK] = [0, 1, 2, 3] as const;

/**
 * A compressor of the feed-forward kind, both channels by the louder of them: the peak of four frames, its logarithm, the curve, and attack and
 * release in dB, which goes to its value by a one-pole filter (Giannoulis and others, 2012, smooth and branching). With a ratio of 1 it does
 * nothing, and costs nothing.
 */
export class Compressor {
  isOn = false;
  private readonly glides: Record<CompressorSetting, Glide>;
  private readonly numbers = Float64Array.of(1, 0, 0, 0);
  private attack = 0;
  private release = 0;

  /** @param sampleRate frames per second */
  constructor(private readonly sampleRate: number) {
    const looks = glideLooks(sampleRate);
    const glide = (setting: CompressorSetting) => new Glide(MIX_RANGES[setting].neutral, looks);
    this.glides = {
      threshold: glide('threshold'),
      ratio: glide('ratio'),
      attack: glide('attack'),
      release: glide('release'),
      makeUp: glide('makeUp'),
      knee: glide('knee'),
    };
    this.smooth();
  }

  /** dB by which it makes the sound softer now, without make-up. */
  get reduction(): number {
    return this.numbers[REDUCTION]!;
  }

  get isWanted(): boolean {
    const { ratio, makeUp } = this.glides;
    return this.isOn || ratio.value !== 1 || makeUp.value !== 0 || !ratio.isThere || !makeUp.isThere;
  }

  /** Whether it has let go. */
  get isQuiet(): boolean {
    return this.numbers[REDUCTION]! < OPEN_DB && this.numbers[PEAK] === 0;
  }

  /** Threshold, make-up and knee in dB, attack and release in ms: to 63 % of the way. */
  set(setting: CompressorSetting, value: number): void {
    this.glides[setting].goTo(value);
  }

  arrive(): void {
    for (const setting of COMPRESSOR_SETTINGS) this.glides[setting].arrive();
    this.smooth();
    const { makeUp, ratio } = this.glides;
    this.isOn = ratio.value !== 1 || makeUp.value !== 0;
    this.clear();
  }

  look(): void {
    const { threshold, ratio, attack, release, makeUp, knee } = this.glides;
    threshold.look();
    knee.look();
    const turns = ratio.look();
    const rises = makeUp.look();
    const slows = attack.look();
    if (release.look() || slows) this.smooth();
    const isOpen = ratio.value === 1 && makeUp.value === 0 && this.numbers[REDUCTION]! < OPEN_DB;
    this.isOn = turns || rises || !isOpen;
    if (!this.isOn) this.clear();
  }

  private clear(): void {
    const { numbers } = this;
    numbers[GAIN] = decibels(this.glides.makeUp.value);
    numbers[STEP] = 0;
    numbers[REDUCTION] = 0;
    numbers[PEAK] = 0;
  }

  private smooth(): void {
    const { attack, release } = this.glides;
    const perMs = (E * 1000 * PEAK_FRAMES) / this.sampleRate;
    this.attack = exp2(perMs / attack.value);
    this.release = exp2(perMs / release.value);
  }

  /** @param frame the engine's first of these */
  process(left: Float64Array, right: Float64Array, from: number, frames: number, frame: number): void {
    if (!this.isOn) return;
    const { numbers } = this;
    let gain = numbers[GAIN]!;
    let step = numbers[STEP]!;
    let peak = numbers[PEAK]!;
    let untilKnown = PEAK_FRAMES - (frame % PEAK_FRAMES);
    for (let i = from; i < from + frames; i++) {
      const l = left[i]!;
      const r = right[i]!;
      const a = l < 0 ? -l : l;
      const b = r < 0 ? -r : r;
      if (a > peak) peak = a;
      if (b > peak) peak = b;
      left[i] = l * gain;
      right[i] = r * gain;
      gain += step;
      if (--untilKnown > 0) continue;
      untilKnown = PEAK_FRAMES;
      numbers[GAIN] = gain;
      numbers[PEAK] = peak;
      this.follow();
      step = numbers[STEP]!;
      peak = 0;
    }
    numbers[GAIN] = gain;
    numbers[PEAK] = peak;
  }

  /** Four frames are known: where the gain is to be four frames later. */
  private follow(): void {
    const { numbers, glides } = this;
    const { threshold, ratio, knee, makeUp } = glides;
    const peak = numbers[PEAK]!;
    const level = DB_PER_OCTAVE * log2(peak > SILENCE ? peak : SILENCE);
    const wanted = level - compressedLevel(level, threshold.value, ratio.value, knee.value);
    const before = numbers[REDUCTION]!;
    const share = wanted > before ? this.attack : this.release;
    const after = wanted + (before - wanted) * share;
    const reduction = after < OPEN_DB && wanted === 0 ? 0 : after;
    numbers[REDUCTION] = reduction;
    numbers[STEP] = (exp2(OCTAVES_PER_DB * (makeUp.value - reduction)) - numbers[GAIN]!) / PEAK_FRAMES;
  }
}
