import { decayPerFrame, exp2, tanHalfTurns } from './math';
import { METAL_FRAMES } from './metal';
import type { Layer } from './recipes';

/** Sounds for 1.5 times its -60 dB time: it ends 90 dB down. */
const LIFE = 1.5;

/**
 * One sounding layer: noise or metal through a state-variable filter (trapezoidal integration, after Simper's
 * published "linear SVF") under an attack and a decay. All state is per sample, so how a render is cut into blocks changes nothing.
 */
export class LayerVoice {
  /** Frames until this layer is silent. */
  left = 0;

  private noise = 1;
  private metalAt = -1;
  private gain = 0;
  private envelope = 0;
  private attack = 0;
  private attackStep = 0;
  private decay = 0;
  private lastDecay = 0;
  private burstsLeft = 0;
  private burstEvery = 0;
  private untilBurst = 0;
  /** The filter in state-space form: each next state, and the output, as so much of both states and of the input. */
  private s1FromS1 = 0;
  private s1FromS2 = 0;
  private s1FromInput = 0;
  private s2FromS1 = 0;
  private s2FromS2 = 0;
  private s2FromInput = 0;
  private outFromS1 = 0;
  private outFromS2 = 0;
  private outFromInput = 0;
  private s1 = 0;
  private s2 = 0;

  /**
   * @param velocity 0..1: lowers the cutoff as well as the level
   * @param gain linear, velocity included
   * @param seed non-zero 32-bit integer
   */
  start(layer: Layer, velocity: number, gain: number, seed: number, sampleRate: number): void {
    this.noise = seed;
    this.metalAt = layer.source === 'metal' ? seed >>> 16 : -1;
    this.gain = gain * layer.level;
    this.envelope = this.gain;
    this.attack = 0;
    this.attackStep = 1 / Math.max(1, Math.round(layer.attack * sampleRate));
    this.lastDecay = decayPerFrame(layer.decay, sampleRate);
    const [bursts, every, burstDecay] = layer.bursts ?? [0, 0, 1];
    this.burstsLeft = bursts;
    this.burstEvery = Math.round(every * sampleRate);
    this.untilBurst = this.burstEvery;
    this.decay = bursts > 0 ? decayPerFrame(burstDecay, sampleRate) : this.lastDecay;
    this.left = Math.round((layer.decay * LIFE + bursts * every) * sampleRate);

    this.setFilter(layer, Math.min(layer.cutoff * exp2(layer.bright * (velocity - 1)), sampleRate * 0.45) / sampleRate);
  }

  /**
   * With v1 the band-pass and v2 the low-pass output, Simper's filter is v3 = x - s2, v1 = a1 s1 + a2 v3,
   * v2 = s2 + a2 s1 + a3 v3, s1' = 2 v1 - s1, s2' = 2 v2 - s2; multiplied out, each sample waits for less of the one before.
   * @param cutoff as a share of the sample rate
   */
  private setFilter({ filter, q }: Layer, cutoff: number): void {
    const g = tanHalfTurns(cutoff);
    const k = 1 / q;
    const a1 = 1 / (1 + g * (g + k));
    const a2 = g * a1;
    const a3 = g * a2;
    this.s1FromS1 = 2 * a1 - 1;
    this.s1FromS2 = -2 * a2;
    this.s1FromInput = 2 * a2;
    this.s2FromS1 = 2 * a2;
    this.s2FromS2 = 1 - 2 * a3;
    this.s2FromInput = 2 * a3;
    const ofInput = filter === 'high' ? 1 : 0;
    const ofBand = filter === 'high' ? -k : filter === 'band' ? k : 0;
    const ofLow = filter === 'high' ? -1 : filter === 'low' ? 1 : 0;
    this.outFromS1 = ofBand * a1 + ofLow * a2;
    this.outFromS2 = ofLow * (1 - a3) - ofBand * a2;
    this.outFromInput = ofInput + ofBand * a2 + ofLow * a3;
    this.s1 = 0;
    this.s2 = 0;
  }

  /** Adds the next `frames` samples to `out` from its start. */
  render(out: Float64Array, frames: number, metal: Float64Array): void {
    let from = 0;
    const end = Math.min(frames, this.left);
    while (from < end) {
      if (this.burstsLeft > 0 && this.untilBurst === 0) this.strikeAgain();
      const to = this.burstsLeft > 0 ? Math.min(end, from + this.untilBurst) : end;
      this.renderStroke(out, from, to, metal);
      if (this.burstsLeft > 0) this.untilBurst -= to - from;
      from = to;
    }
    this.left -= end;
  }

  private strikeAgain(): void {
    this.burstsLeft--;
    this.untilBurst = this.burstEvery;
    this.envelope = this.gain;
    this.attack = 0;
    if (this.burstsLeft === 0) this.decay = this.lastDecay;
  }

  private renderStroke(out: Float64Array, from: number, to: number, metal: Float64Array): void {
    let i = from;
    // The attack is a few samples of most sounds: it gets a loop of its own so that the long one stays lean.
    for (; i < to && this.attack < 1; i++) {
      this.attack = Math.min(1, this.attack + this.attackStep);
      const before = out[i]!;
      this.renderRun(out, i, i + 1, metal);
      out[i] = before + (out[i]! - before) * this.attack;
    }
    if (i < to) this.renderRun(out, i, to, metal);
  }

  private renderRun(out: Float64Array, from: number, to: number, metal: Float64Array): void {
    const { decay, s1FromS1, s1FromS2, s1FromInput, s2FromS1, s2FromS2, s2FromInput } = this;
    const { outFromS1, outFromS2, outFromInput } = this;
    let { noise, metalAt, envelope, s1, s2 } = this;
    const isMetal = metalAt >= 0;
    for (let i = from; i < to; i++) {
      let x: number;
      if (isMetal) {
        x = metal[metalAt]!;
        metalAt = (metalAt + 1) & (METAL_FRAMES - 1);
      } else {
        noise ^= noise << 13;
        noise ^= noise >>> 17;
        noise ^= noise << 5;
        x = noise * 4.656612873077393e-10;
      }
      out[i]! += (outFromInput * x + outFromS1 * s1 + outFromS2 * s2) * envelope;
      const next = s1FromInput * x + s1FromS1 * s1 + s1FromS2 * s2;
      s2 = s2FromInput * x + s2FromS1 * s1 + s2FromS2 * s2;
      s1 = next;
      envelope *= decay;
    }
    this.noise = noise;
    this.metalAt = metalAt;
    this.envelope = envelope;
    this.s1 = s1;
    this.s2 = s2;
  }
}
