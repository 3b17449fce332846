import { decayPerFrame, exp2, tanHalfTurns } from '../math';
import { METAL_FRAMES } from './metal';
import type { Layer } from './recipes';
import { MAX_STRETCH } from './stretch';
import type { Touch } from './touch';

/** Share by which the pitch moves before the filter follows: a tenth of a semitone. */
const FILTER_STEP = 0.006;
/** Sounds for 1.5 times its -60 dB time: it ends 90 dB down. */
const LIFE = 1.5;

/**
 * White noise reaches up to half the sample rate: the higher the rate, the less of it lies where one hears it. This makes it as
 * loud at any rate as at 48 kHz.
 */
export function noiseGain(sampleRate: number): number {
  return Math.sqrt(sampleRate / 48000);
}

/** Room to render an attack in. */
const attackSound = new Float64Array(MAX_STRETCH);
const attackGain = new Float64Array(MAX_STRETCH);

/**
 * One sounding layer: noise or metal through a resonant filter (the second-order analogue prototypes by bilinear
 * transform, in transposed direct form II: the fewest operations a sample; its coefficients move only where a wave bends its pitch,
 * and slowly) under an attack and a decay. All state is per sample, so how a render is cut into blocks changes nothing.
 */
export class LayerVoice {
  /** Frames until this layer is silent. */
  left = 0;

  private noise = 1;
  private metalAt = -1;
  /** Frames of metal to a frame of sound: its pitch as it was struck, and as it is bent. */
  private struckStep = 1;
  private metalStep = 1;
  /** It is read between its frames, too. */
  private isPitched = false;
  private bendRatio = 1;
  private filterRatio = 1;
  private layer!: Layer;
  /** Of the filter, as a share of the sample rate. */
  private cutoff = 0.1;
  /** Frames before the last decay begins. */
  private holdLeft = 0;
  private gain = 0;
  private envelope = 0;
  private attack = 0;
  private attackStep = 0;
  private decay = 0;
  private lastDecay = 0;
  private burstsLeft = 0;
  private burstEvery = 0;
  private untilBurst = 0;
  private b0 = 0;
  private b1 = 0;
  private b2 = 0;
  private a1 = 0;
  private a2 = 0;
  private s1 = 0;
  private s2 = 0;

  constructor(private readonly sampleRate: number) {}

  /**
   * @param touch pitch is of the metal and of the filter; a low velocity lowers the cutoff as well as the level
   * @param seed non-zero 32-bit integer
   */
  start(layer: Layer, touch: Touch, seed: number): void {
    const { sampleRate } = this;
    const { velocity, gain, pitch, longer, hold } = touch;
    const { bursts } = layer;
    this.noise = seed;
    // All layers of a stroke ring with the same metal: at places of their own they would cancel each other, now more, now less.
    this.metalAt = layer.source === 'metal' ? touch.seed >>> 16 : -1;
    this.metalStep = this.struckStep = pitch;
    this.isPitched = pitch !== 1;
    this.bendRatio = 1;
    this.filterRatio = 1;
    this.layer = layer;
    this.holdLeft = Math.round(hold * sampleRate);
    this.gain = gain * layer.level * (layer.source === 'noise' ? noiseGain(sampleRate) : 1);
    this.envelope = this.gain;
    this.attack = 0;
    this.attackStep = 1 / Math.max(1, Math.round(layer.attack * sampleRate));
    this.lastDecay = decayPerFrame(layer.decay * longer, sampleRate);
    this.burstsLeft = bursts ? bursts.count : 0;
    this.burstEvery = bursts ? Math.round(bursts.every * sampleRate) : 0;
    this.untilBurst = this.burstEvery;
    this.decay = bursts ? decayPerFrame(bursts.decay, sampleRate) : this.heldDecay;
    const beforeLast = bursts ? bursts.count * bursts.every : 0;
    this.left = Math.round((layer.decay * longer * LIFE + beforeLast + hold) * sampleRate);

    const hz = layer.cutoff * (pitch * touch.filter) * exp2(layer.bright * (velocity - 1));
    this.cutoff = hz / sampleRate;
    this.setFilter(layer, this.cutoff);
    this.s1 = 0;
    this.s2 = 0;
  }

  private get heldDecay(): number {
    return this.holdLeft > 0 ? 1 : this.lastDecay;
  }

  /** From the next sample on its pitch is so many times that at which it was struck. */
  bend(ratio: number): void {
    if (ratio === this.bendRatio) return;
    this.bendRatio = ratio;
    this.isPitched = true;
    this.metalStep = this.struckStep * ratio;
    // Its filter follows in steps that nobody hears in a burst of noise: each costs as much as thirty samples.
    if (Math.abs(ratio - this.filterRatio) < FILTER_STEP * this.filterRatio) return;
    this.filterRatio = ratio;
    this.setFilter(this.layer, this.cutoff * ratio);
  }

  /** @param cutoff as a share of the sample rate */
  private setFilter({ filter, q }: Layer, cutoff: number): void {
    const g = tanHalfTurns(Math.min(0.45, cutoff));
    const damping = g / q;
    const scale = 1 / (1 + damping + g * g);
    this.a1 = 2 * (g * g - 1) * scale;
    this.a2 = (1 - damping + g * g) * scale;
    if (filter === 'band') {
      this.b0 = damping * scale;
      this.b1 = 0;
      this.b2 = -this.b0;
    } else {
      this.b0 = (filter === 'low' ? g * g : 1) * scale;
      this.b1 = filter === 'low' ? 2 * this.b0 : -2 * this.b0;
      this.b2 = this.b0;
    }
  }

  /** Adds the next `frames` samples (at most MAX_STRETCH) to `out` from its start. */
  render(out: Float64Array, frames: number, metal: Float64Array): void {
    let from = 0;
    const end = Math.min(frames, this.left);
    while (from < end) {
      if (this.burstsLeft > 0 && this.untilBurst === 0) this.strikeAgain();
      let to = end;
      if (this.burstsLeft > 0) to = Math.min(end, from + this.untilBurst);
      else if (this.holdLeft > 0) to = Math.min(end, from + this.holdLeft);
      this.renderStroke(out, from, to, metal);
      if (this.burstsLeft > 0) this.untilBurst -= to - from;
      else if (this.holdLeft > 0) this.hold(to - from);
      from = to;
    }
    this.left -= end;
  }

  private strikeAgain(): void {
    this.burstsLeft--;
    this.untilBurst = this.burstEvery;
    this.envelope = this.gain;
    this.attack = 0;
    if (this.burstsLeft === 0) this.decay = this.heldDecay;
  }

  private hold(frames: number): void {
    this.holdLeft -= frames;
    if (this.holdLeft === 0) this.decay = this.lastDecay;
  }

  private renderStroke(out: Float64Array, from: number, to: number, metal: Float64Array): void {
    const start = this.attack < 1 ? this.renderAttack(out, from, to, metal) : from;
    if (start < to) this.renderRun(out, start, to, metal);
  }

  /** Renders what lies in the attack apart, so that the long loops have none in them. Returns where it ends. */
  private renderAttack(out: Float64Array, from: number, to: number, metal: Float64Array): number {
    let frames = 0;
    while (from + frames < to && this.attack < 1) {
      this.attack = Math.min(1, this.attack + this.attackStep);
      attackGain[frames++] = this.attack;
    }
    attackSound.fill(0, 0, frames);
    this.renderRun(attackSound, 0, frames, metal);
    for (let i = 0; i < frames; i++) {
      const before = out[from + i]!;
      out[from + i] = before + (before + attackSound[i]! - before) * attackGain[i]!;
    }
    return from + frames;
  }

  private renderRun(out: Float64Array, from: number, to: number, metal: Float64Array): void {
    if (this.metalAt >= 0 && this.isPitched) this.renderPitchedMetal(out, from, to, metal);
    else if (this.metalAt >= 0) this.renderMetal(out, from, to, metal);
    else this.renderNoise(out, from, to);
  }

  private renderMetal(out: Float64Array, from: number, to: number, metal: Float64Array): void {
    const { decay, b0, b1, b2, a1, a2 } = this;
    let { metalAt, envelope, s1, s2 } = this;
    for (let i = from; i < to; i++) {
      const x = metal[metalAt]!;
      metalAt = (metalAt + 1) & (METAL_FRAMES - 1);
      const y = b0 * x + s1;
      s1 = b1 * x + s2 - a1 * y;
      s2 = b2 * x - a2 * y;
      out[i]! += y * envelope;
      envelope *= decay;
    }
    this.metalAt = metalAt;
    this.envelope = envelope;
    this.s1 = s1;
    this.s2 = s2;
  }

  /** The metal read faster or slower, through a cubic between its four nearest frames (Catmull-Rom). */
  private renderPitchedMetal(out: Float64Array, from: number, to: number, metal: Float64Array): void {
    const { decay, b0, b1, b2, a1, a2, metalStep } = this;
    const mask = METAL_FRAMES - 1;
    let { metalAt, envelope, s1, s2 } = this;
    for (let i = from; i < to; i++) {
      const whole = Math.floor(metalAt);
      const t = metalAt - whole;
      const before = metal[(whole + mask) & mask]!;
      const left = metal[whole & mask]!;
      const right = metal[(whole + 1) & mask]!;
      const after = metal[(whole + 2) & mask]!;
      const bend = 2 * before - 5 * left + 4 * right - after;
      const x = left + 0.5 * t * (right - before + t * (bend + t * (3 * (left - right) + after - before)));
      metalAt += metalStep;
      if (metalAt >= METAL_FRAMES) metalAt -= METAL_FRAMES;
      const y = b0 * x + s1;
      s1 = b1 * x + s2 - a1 * y;
      s2 = b2 * x - a2 * y;
      out[i]! += y * envelope;
      envelope *= decay;
    }
    this.metalAt = metalAt;
    this.envelope = envelope;
    this.s1 = s1;
    this.s2 = s2;
  }

  private renderNoise(out: Float64Array, from: number, to: number): void {
    const { decay, b0, b1, b2, a1, a2 } = this;
    let { noise, envelope, s1, s2 } = this;
    for (let i = from; i < to; i++) {
      noise ^= noise << 13;
      noise ^= noise >>> 17;
      noise ^= noise << 5;
      const x = noise * 4.656612873077393e-10;
      const y = b0 * x + s1;
      s1 = b1 * x + s2 - a1 * y;
      s2 = b2 * x - a2 * y;
      out[i]! += y * envelope;
      envelope *= decay;
    }
    this.noise = noise;
    this.envelope = envelope;
    this.s1 = s1;
    this.s2 = s2;
  }
}
