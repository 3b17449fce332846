import { decayPerFrame, exp2, sinTurns } from './math';
import type { Body } from './recipes';

const MAX_MODES = 4;
const LIFE = 1.5;
/** A few samples of ramp take the edge off a mode without softening the strike. */
const ATTACK_SECONDS = 0.0005;

/** The sounding body of a drum: up to four sine modes under one pitch sweep, each with a decay of its own. */
export class BodyVoice {
  /** Frames until the body is silent. */
  left = 0;

  private modes = 0;
  private readonly phase = new Float64Array(MAX_MODES);
  private readonly step = new Float64Array(MAX_MODES);
  private readonly level = new Float64Array(MAX_MODES);
  private readonly decay = new Float64Array(MAX_MODES);
  private sweep = 0;
  private sweepDecay = 0;
  private attack = 0;
  private attackStep = 0;

  /**
   * @param velocity 0..1: a harder strike sweeps further
   * @param gain linear, velocity included
   */
  start(body: Body, velocity: number, gain: number, sampleRate: number): void {
    this.modes = body.modes.length;
    let longest = 0;
    for (let m = 0; m < this.modes; m++) {
      const [ratio, level, decay] = body.modes[m]!;
      this.phase[m] = 0;
      this.step[m] = (body.pitch * ratio) / sampleRate;
      // A soft strike leaves the upper modes asleep.
      this.level[m] = gain * level * (m === 0 ? 1 : 0.4 + 0.6 * velocity);
      this.decay[m] = decayPerFrame(decay, sampleRate);
      longest = Math.max(longest, decay);
    }
    this.sweep = (body.sweep - 1) * (0.35 + 0.65 * velocity);
    this.sweepDecay = exp2(-1.4426950408889634 / (body.sweepTime * sampleRate));
    this.attack = 0;
    this.attackStep = 1 / Math.max(1, Math.round(ATTACK_SECONDS * sampleRate));
    this.left = Math.round(longest * LIFE * sampleRate);
  }

  /** Adds the next `frames` samples to `out` from its start. */
  render(out: Float64Array, frames: number): void {
    const end = Math.min(frames, this.left);
    for (let m = 0; m < this.modes; m++) this.renderMode(m, out, end);
    for (let i = 0; i < end; i++) {
      this.sweep *= this.sweepDecay;
      if (this.attack < 1) this.attack += this.attackStep;
    }
    if (this.sweep < 1e-15) this.sweep = 0;
    this.left -= end;
  }

  private renderMode(m: number, out: Float64Array, end: number): void {
    const { attackStep, sweepDecay } = this;
    const step = this.step[m]!;
    const decay = this.decay[m]!;
    let { sweep, attack } = this;
    let phase = this.phase[m]!;
    let level = this.level[m]!;
    for (let i = 0; i < end; i++) {
      out[i]! += sinTurns(phase) * level * (attack < 1 ? attack : 1);
      phase += step * (1 + sweep);
      if (phase >= 1) phase -= 1;
      sweep *= sweepDecay;
      level *= decay;
      if (attack < 1) attack += attackStep;
    }
    this.phase[m] = phase;
    this.level[m] = level;
  }
}
