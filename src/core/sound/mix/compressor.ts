import { MIX_RANGES } from '../../document/mix';
import { decibels, exp2 } from '../../math';
import { compress, COMPRESSOR, COMPRESSOR_NUMBERS, OPEN_DB, PEAK_FRAMES } from './compressorLoop';
import { Glide, glideLooks } from './glide';
import type { MixBus } from './mixBus';

/** -log2(e): e^(-x) is 2 to the power of this times x. */
const E = -1.4426950408889634;

/** What a compressor can be told. */
export const COMPRESSOR_SETTINGS = ['threshold', 'ratio', 'attack', 'release', 'makeUp', 'knee'] as const;
export type CompressorSetting = (typeof COMPRESSOR_SETTINGS)[number];

/**
 * A compressor of the feed-forward kind, both channels by the louder of them: the peak of four frames, its logarithm, the curve, and attack and
 * release in dB, which goes to its value by a one-pole filter (Giannoulis and others, 2012, smooth and branching). With a ratio of 1 it does
 * nothing, and costs nothing.
 */
export class Compressor {
  isOn = false;
  private readonly glides: Record<CompressorSetting, Glide>;
  private readonly numbers = new Float64Array(COMPRESSOR_NUMBERS);

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
    this.aim();
    this.clear();
  }

  /** dB by which it makes the sound softer now, without make-up. */
  get reduction(): number {
    return this.numbers[COMPRESSOR.reduction]!;
  }

  get isWanted(): boolean {
    const { ratio, makeUp } = this.glides;
    return this.isOn || ratio.value !== 1 || makeUp.value !== 0 || !ratio.isThere || !makeUp.isThere;
  }

  /** Whether a look would change nothing of it. */
  get isStill(): boolean {
    const { threshold, ratio, attack, release, makeUp, knee } = this.glides;
    const areThere = threshold.isThere && attack.isThere && release.isThere && knee.isThere;
    return areThere && ratio.isThere && makeUp.isThere && this.isOn === (ratio.value !== 1 || makeUp.value !== 0);
  }

  /** Whether it has let go. */
  get isQuiet(): boolean {
    return this.numbers[COMPRESSOR.reduction]! < OPEN_DB && this.numbers[COMPRESSOR.peak] === 0;
  }

  /** Threshold, make-up and knee in dB, attack and release in ms: to 63 % of the way. */
  set(setting: CompressorSetting, value: number): void {
    this.glides[setting].goTo(value);
  }

  arrive(): void {
    for (const setting of COMPRESSOR_SETTINGS) this.glides[setting].arrive();
    this.smooth();
    this.aim();
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
    this.aim();
    const isOpen = ratio.value === 1 && makeUp.value === 0 && this.numbers[COMPRESSOR.reduction]! < OPEN_DB;
    this.isOn = turns || rises || !isOpen;
    if (!this.isOn) this.clear();
  }

  private clear(): void {
    const { numbers } = this;
    numbers[COMPRESSOR.gain] = decibels(this.glides.makeUp.value);
    numbers[COMPRESSOR.step] = 0;
    numbers[COMPRESSOR.reduction] = 0;
    numbers[COMPRESSOR.peak] = 0;
  }

  private smooth(): void {
    const { attack, release } = this.glides;
    const perMs = (E * 1000 * PEAK_FRAMES) / this.sampleRate;
    this.numbers[COMPRESSOR.attack] = exp2(perMs / attack.value);
    this.numbers[COMPRESSOR.release] = exp2(perMs / release.value);
  }

  /** Where its curve lies now. */
  private aim(): void {
    const { numbers, glides } = this;
    numbers[COMPRESSOR.threshold] = glides.threshold.value;
    numbers[COMPRESSOR.ratio] = glides.ratio.value;
    numbers[COMPRESSOR.knee] = glides.knee.value;
    numbers[COMPRESSOR.makeUp] = glides.makeUp.value;
  }

  /** @param frame the engine's first of these */
  process(bus: MixBus, from: number, frames: number, frame: number): void {
    if (this.isOn) compress(this.numbers, bus, from, frames, PEAK_FRAMES - (frame % PEAK_FRAMES));
  }
}
