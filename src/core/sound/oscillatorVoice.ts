import { decayPerFrame, exp2, sinTurns } from '../math';
import type { Oscillator } from './tone';
import { depthOf, tableAt, waveTables, type WaveTable } from './waves';

/** How the stroke and the player have an oscillator. */
export interface OscillatorTouch {
  /** 0..1 */
  velocity: number;
  /** -1..1 */
  bright: number;
  /** Share of its place left or right, 0..1. */
  width: number;
  /** Ratio of its decays to what is written. */
  longer: number;
}

/** Octaves by which *bright* at its ends raises or lowers what is hard, and deepens modulation. */
const BRIGHT_LEVEL = 2;
const BRIGHT_DEPTH = 1.5;
/** Share of the sample rate above which a sine fades away, before it would fold at a half. */
const FADES_FROM = 0.44;
const NYQUIST = 0.5;

/**
 * How deep a sine may be modulated, in turns, when this many of its sidebands fit below half the sample rate: the next one is then
 * 80 dB down. For |J_n(x)| <= (x/2)^n / n! (Abramowitz and Stegun 9.1.62), n being the sideband that folds, x = 2 (n!/10000)^(1/n).
 */
const DEEPEST = [3.2e-5, 0.0045, 0.0268, 0.0704, 0.1314, 0.2053, 0.2886, 0.379, 0.4744];

/** One wave of a sounding note. Its numbers are none until one begins: what begins as 0 would be held as an integer (see `doubles`). */
export class OscillatorVoice {
  private tables: readonly WaveTable[] | null = null;
  private table!: WaveTable;
  private ratio = NaN;
  private modulatorRatio = NaN;
  private phase = NaN;
  private modulatorPhase = NaN;
  private step = NaN;
  private modulatorStep = NaN;
  private level = NaN;
  /** Its level is so many times as high with each sample: by itself, and while it is brightened. */
  private ownDecay = NaN;
  private levelDecay = NaN;
  /** Octaves of its level, or of its modulation, that full brightness brings. */
  private brightens = NaN;
  private pan = NaN;
  /** Of the modulation: what fades, what stays, and the most that does not fold. */
  private depth = NaN;
  private ownDepthDecay = NaN;
  private depthDecay = NaN;
  private stays = NaN;
  private staysGrow = NaN;
  private deepest = NaN;
  /** What of a sine is left where it comes near half the sample rate. */
  private left = NaN;

  constructor(private readonly sampleRate: number) {}

  /** A note begins. */
  start(oscillator: Oscillator, { velocity, bright, width, longer }: OscillatorTouch): void {
    const { wave, ratio, level, phase, pan, decay, hardness, modulator } = oscillator;
    const { sampleRate } = this;
    this.tables = wave === 'sine' ? null : waveTables(wave);
    this.ratio = wave === 'sine' ? ratio : ratio / depthOf(wave);
    this.phase = phase;
    this.modulatorPhase = 0;
    this.pan = pan * width;
    this.levelDecay = this.ownDecay = decayPerFrame(decay * longer, sampleRate);
    const hard = 1 - hardness + hardness * velocity;
    this.brightens = modulator ? BRIGHT_DEPTH : BRIGHT_LEVEL * hardness;
    this.level = modulator ? level : level * hard * exp2(this.brightens * bright);
    this.modulatorRatio = 0;
    if (!modulator) return;
    const { depth, decay: fades, stays } = modulator;
    const deep = depth * hard * exp2(BRIGHT_DEPTH * bright);
    this.modulatorRatio = modulator.ratio;
    this.stays = deep * stays;
    this.depth = deep - this.stays;
    this.depthDecay = this.ownDepthDecay = decayPerFrame(fades * longer, sampleRate);
    this.staysGrow = 1;
  }

  /**
   * It becomes brighter, evenly to the ear, within the next frames; then it stays so.
   * @param by of its full range of -1..1; 0 once it is there
   */
  brighten(by: number, frames: number): void {
    const grows = by === 0 ? 1 : exp2((this.brightens * by) / frames);
    if (this.modulatorRatio === 0) this.levelDecay = this.ownDecay * grows;
    else {
      this.depthDecay = this.ownDepthDecay * grows;
      this.staysGrow = grows;
    }
  }

  /** @param step of the note, cycles a sample */
  tune(step: number): void {
    this.step = step * this.ratio;
    if (this.tables) {
      this.table = this.tables[tableAt(this.tables, this.step)]!;
      this.step = Math.min(this.step, NYQUIST);
      return;
    }
    this.left = Math.min(1, Math.max(0, (NYQUIST - this.step) / (NYQUIST - FADES_FROM)));
    this.step = Math.min(this.step, NYQUIST);
    if (this.modulatorRatio === 0) return;
    this.modulatorStep = Math.min(step * this.modulatorRatio, NYQUIST);
    const fitting = Math.floor((NYQUIST - this.step) / this.modulatorStep);
    this.deepest = fitting < DEEPEST.length ? DEEPEST[fitting]! : 1;
  }

  /** Adds the next samples to the middle and, by its place, to the sides. */
  render(middle: Float64Array, sides: Float64Array, frames: number): void {
    if (this.tables) this.renderTable(middle, sides, frames);
    else if (this.modulatorRatio > 0) this.renderModulated(middle, sides, frames);
    else this.renderSine(middle, sides, frames);
  }

  /** Between samples a cubic that passes through four of them (Catmull and Rom 1974). */
  private renderTable(middle: Float64Array, sides: Float64Array, frames: number): void {
    const { samples, frames: cycle } = this.table;
    const { step, levelDecay, pan } = this;
    let { phase, level } = this;
    for (let i = 0; i < frames; i++) {
      const at = phase * cycle;
      const whole = at | 0;
      const x = at - whole;
      const a = samples[whole]!;
      const b = samples[whole + 1]!;
      const c = samples[whole + 2]!;
      const d = samples[whole + 3]!;
      const slope = 0.5 * (c - a);
      const bend = a - 2.5 * b + 2 * c - 0.5 * d;
      const twist = 0.5 * (d - a) + 1.5 * (b - c);
      const y = (b + x * (slope + x * (bend + x * twist))) * level;
      middle[i]! += y;
      sides[i]! -= y * pan;
      level *= levelDecay;
      phase += step;
      if (phase >= 1) phase -= 1;
    }
    this.phase = phase;
    this.level = level;
  }

  private renderSine(middle: Float64Array, sides: Float64Array, frames: number): void {
    const { step, levelDecay, pan, left } = this;
    let { phase, level } = this;
    for (let i = 0; i < frames; i++) {
      const y = sinTurns(phase) * level * left;
      middle[i]! += y;
      sides[i]! -= y * pan;
      level *= levelDecay;
      phase += step;
      if (phase >= 1) phase -= 1;
    }
    this.phase = phase;
    this.level = level;
  }

  private renderModulated(middle: Float64Array, sides: Float64Array, frames: number): void {
    const { step, modulatorStep, levelDecay, depthDecay, staysGrow, pan, deepest, left } = this;
    let { phase, modulatorPhase, level, depth, stays } = this;
    for (let i = 0; i < frames; i++) {
      const deep = Math.min(deepest, depth + stays);
      const y = sinTurns(phase + deep * sinTurns(modulatorPhase)) * level * left;
      middle[i]! += y;
      sides[i]! -= y * pan;
      level *= levelDecay;
      depth *= depthDecay;
      stays *= staysGrow;
      phase += step;
      if (phase >= 1) phase -= 1;
      modulatorPhase += modulatorStep;
      if (modulatorPhase >= 1) modulatorPhase -= 1;
    }
    this.phase = phase;
    this.modulatorPhase = modulatorPhase;
    this.level = level;
    this.depth = depth;
    this.stays = stays;
  }
}
