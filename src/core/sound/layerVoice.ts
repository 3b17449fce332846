import { decayPerFrame, exp2, hash } from '../math';
import { setMatched, type Biquad } from './matchedFilter';
import { METAL_FRAMES, metalTables, tableFor, type MetalTable } from './metal';
import type { Layer } from './recipe';
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

/** Grains are counted against so many parts of chance. */
const CHANCE = 16777216;
/** By how much the time from one burst to the next differs, where they are as uneven as they can be. */
const UNEVEN_TIME = 0.25;

/** Room to render an attack in. */
const attackSound = new Float64Array(MAX_STRETCH);
const attackGain = new Float64Array(MAX_STRETCH);

/**
 * One sounding layer: noise, grains or metal through a resonant filter (in direct form I: from one sample to the
 * next there is but one multiplication and one subtraction to wait for; its coefficients move only where a wave bends its pitch, and
 * slowly) under an attack and a decay. All state is per sample, so how a
 * render is cut into blocks changes nothing.
 */
export class LayerVoice implements Biquad {
  /** Frames until this layer is silent. */
  left = 0;

  b0 = 0;
  b1 = 0;
  b2 = 0;
  a1 = 0;
  a2 = 0;

  private noise = 1;
  /** Frames until it begins. */
  private waitLeft = 0;
  /** What its bursts are drawn from: all layers of a stroke have them at the same moments. */
  private burstSeed = 1;
  /** A grain falls on a sample when chance is below this; 0 for plain noise. */
  private grains = 0;
  private grainGain = 0;
  private readonly tables: readonly MetalTable[];
  private metal: Float32Array;
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
  private untilBurst = 0;
  /** The last two samples that went into the filter, and that came out. */
  private x1 = 0;
  private x2 = 0;
  private y1 = 0;
  private y2 = 0;

  constructor(private readonly sampleRate: number) {
    this.tables = metalTables(sampleRate);
    this.metal = this.tables[0]!.sound;
  }

  /**
   * @param touch pitch is of the metal and of the filter; a low velocity lowers the cutoff as well as the level
   * @param seed non-zero 32-bit integer
   */
  start(layer: Layer, touch: Touch, seed: number): void {
    const { sampleRate } = this;
    const { velocity, gain, pitch, longer, hold } = touch;
    const { bursts, source } = layer;
    this.noise = seed;
    this.burstSeed = touch.seed;
    this.waitLeft = Math.round((layer.after ?? 0) * sampleRate);
    this.bendRatio = 1;
    this.filterRatio = 1;
    this.layer = layer;
    if (source === 'metal') this.startMetal(touch);
    else this.metalAt = -1;
    const perSecond = source === 'grains' ? layer.grains! : 0;
    this.grains = Math.min(CHANCE, (perSecond / sampleRate) * CHANCE);
    // As loud as noise, however many there are, and at any rate: what is shorter must be so much louder.
    this.grainGain = Math.sqrt(sampleRate / Math.max(1, perSecond) / 3);
    this.holdLeft = Math.round(hold * sampleRate);
    const hardness = layer.hardness ?? 0;
    this.gain =
      gain * layer.level * (1 - hardness + hardness * velocity) * (source === 'metal' ? 1 : noiseGain(sampleRate));
    this.attackStep = 1 / Math.max(1, Math.round(layer.attack * sampleRate));
    this.lastDecay = decayPerFrame(layer.decay * longer, sampleRate);
    this.burstsLeft = bursts ? bursts.count : 0;
    this.decay = bursts ? decayPerFrame(bursts.decay, sampleRate) : this.heldDecay;
    let beforeLast = 0;
    for (let burst = this.burstsLeft; burst > 0; burst--) beforeLast += this.framesOf(burst);
    this.left = this.waitLeft + beforeLast + Math.round((layer.decay * longer * LIFE + hold) * sampleRate);
    this.strike();

    const hz = layer.cutoff * (pitch * touch.filter) * exp2((layer.bright ?? 0) * (velocity - 1));
    this.cutoff = hz / sampleRate;
    setMatched(this, layer.filter, this.cutoff, layer.q);
    this.x1 = this.x2 = this.y1 = this.y2 = 0;
  }

  private startMetal({ pitch, seed }: Touch): void {
    const table = tableFor(this.tables, pitch);
    this.metal = table.sound;
    // All layers of a stroke ring with the same metal: at places of their own they would cancel each other, now more, now less. What
    // is only at the sides is to have nothing in common with the middle.
    this.metalAt = ((seed >>> 16) + (this.layer.isSide ? METAL_FRAMES / 2 : 0)) & (METAL_FRAMES - 1);
    this.metalStep = this.struckStep = pitch / table.pitch;
    this.isPitched = this.metalStep !== 1;
  }

  /** Frames from the burst that has so many still to come to the next one. */
  private framesOf(burst: number): number {
    const { every, uneven } = this.layer.bursts!;
    const differs = hash(this.burstSeed, burst, 5) / 2147483648;
    return Math.round(every * (1 + UNEVEN_TIME * uneven * differs) * this.sampleRate);
  }

  /** Begins a burst, or the last stroke. */
  private strike(): void {
    const { bursts } = this.layer;
    const uneven = bursts ? 1 - bursts.uneven * (0.5 + hash(this.burstSeed, this.burstsLeft, 7) / 4294967296) : 1;
    this.envelope = this.gain * (this.burstsLeft > 0 ? uneven : 1);
    this.attack = 0;
    this.untilBurst = this.burstsLeft > 0 ? this.framesOf(this.burstsLeft) : 0;
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
    setMatched(this, this.layer.filter, this.cutoff * ratio, this.layer.q);
  }

  /** Adds the next `frames` samples (at most MAX_STRETCH) to `out` from its start. */
  render(out: Float64Array, frames: number): void {
    const end = Math.min(frames, this.left);
    let from = Math.min(end, this.waitLeft);
    this.waitLeft -= from;
    while (from < end) {
      if (this.burstsLeft > 0 && this.untilBurst === 0) this.strikeAgain();
      let to = end;
      if (this.burstsLeft > 0) to = Math.min(end, from + this.untilBurst);
      else if (this.holdLeft > 0) to = Math.min(end, from + this.holdLeft);
      this.renderStroke(out, from, to);
      if (this.burstsLeft > 0) this.untilBurst -= to - from;
      else if (this.holdLeft > 0) this.hold(to - from);
      from = to;
    }
    this.left -= end;
  }

  private strikeAgain(): void {
    this.burstsLeft--;
    this.strike();
    if (this.burstsLeft === 0) this.decay = this.heldDecay;
  }

  private hold(frames: number): void {
    this.holdLeft -= frames;
    if (this.holdLeft === 0) this.decay = this.lastDecay;
  }

  private renderStroke(out: Float64Array, from: number, to: number): void {
    const start = this.attack < 1 ? this.renderAttack(out, from, to) : from;
    if (start < to) this.renderRun(out, start, to);
  }

  /** Renders what lies in the attack apart, so that the long loops have none in them. Returns where it ends. */
  private renderAttack(out: Float64Array, from: number, to: number): number {
    let frames = 0;
    while (from + frames < to && this.attack < 1) {
      this.attack = Math.min(1, this.attack + this.attackStep);
      attackGain[frames++] = this.attack;
    }
    attackSound.fill(0, 0, frames);
    this.renderRun(attackSound, 0, frames);
    for (let i = 0; i < frames; i++) {
      const before = out[from + i]!;
      out[from + i] = before + (before + attackSound[i]! - before) * attackGain[i]!;
    }
    return from + frames;
  }

  private renderRun(out: Float64Array, from: number, to: number): void {
    if (this.metalAt >= 0 && this.isPitched) this.renderPitchedMetal(out, from, to);
    else if (this.metalAt >= 0) this.renderMetal(out, from, to);
    else if (this.grains > 0) this.renderGrains(out, from, to);
    else this.renderNoise(out, from, to);
  }

  private renderMetal(out: Float64Array, from: number, to: number): void {
    const { metal, decay, b0, b1, b2, a1, a2 } = this;
    let { metalAt, envelope, x1, x2, y1, y2 } = this;
    for (let i = from; i < to; i++) {
      const x = metal[metalAt]!;
      metalAt = (metalAt + 1) & (METAL_FRAMES - 1);
      const y = b0 * x + b1 * x1 + b2 * x2 - a2 * y2 - a1 * y1;
      x2 = x1;
      x1 = x;
      y2 = y1;
      y1 = y;
      out[i]! += y * envelope;
      envelope *= decay;
    }
    this.metalAt = metalAt;
    this.envelope = envelope;
    this.x1 = x1;
    this.x2 = x2;
    this.y1 = y1;
    this.y2 = y2;
  }

  /** The metal read faster or slower, through a cubic between its four nearest frames (Catmull-Rom). */
  private renderPitchedMetal(out: Float64Array, from: number, to: number): void {
    const { metal, decay, b0, b1, b2, a1, a2, metalStep } = this;
    const mask = METAL_FRAMES - 1;
    let { metalAt, envelope, x1, x2, y1, y2 } = this;
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
      const y = b0 * x + b1 * x1 + b2 * x2 - a2 * y2 - a1 * y1;
      x2 = x1;
      x1 = x;
      y2 = y1;
      y1 = y;
      out[i]! += y * envelope;
      envelope *= decay;
    }
    this.metalAt = metalAt;
    this.envelope = envelope;
    this.x1 = x1;
    this.x2 = x2;
    this.y1 = y1;
    this.y2 = y2;
  }

  private renderNoise(out: Float64Array, from: number, to: number): void {
    const { decay, b0, b1, b2, a1, a2 } = this;
    let { noise, envelope, x1, x2, y1, y2 } = this;
    for (let i = from; i < to; i++) {
      noise ^= noise << 13;
      noise ^= noise >>> 17;
      noise ^= noise << 5;
      const x = noise * 4.656612873077393e-10;
      const y = b0 * x + b1 * x1 + b2 * x2 - a2 * y2 - a1 * y1;
      x2 = x1;
      x1 = x;
      y2 = y1;
      y1 = y;
      out[i]! += y * envelope;
      envelope *= decay;
    }
    this.noise = noise;
    this.envelope = envelope;
    this.x1 = x1;
    this.x2 = x2;
    this.y1 = y1;
    this.y2 = y2;
  }

  /** Single impulses at chance moments, up or down: small hard things that fall on each other. */
  private renderGrains(out: Float64Array, from: number, to: number): void {
    const { decay, b0, b1, b2, a1, a2, grains, grainGain } = this;
    let { noise, envelope, x1, x2, y1, y2 } = this;
    for (let i = from; i < to; i++) {
      noise ^= noise << 13;
      noise ^= noise >>> 17;
      noise ^= noise << 5;
      const x = noise >>> 8 >= grains ? 0 : noise & 1 ? grainGain : -grainGain;
      const y = b0 * x + b1 * x1 + b2 * x2 - a2 * y2 - a1 * y1;
      x2 = x1;
      x1 = x;
      y2 = y1;
      y1 = y;
      out[i]! += y * envelope;
      envelope *= decay;
    }
    this.noise = noise;
    this.envelope = envelope;
    this.x1 = x1;
    this.x2 = x2;
    this.y1 = y1;
    this.y2 = y2;
  }
}
