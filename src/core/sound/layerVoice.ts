import { decayPerFrame, exp2, hash } from '../math';
import { LayerSource } from './layerSource';
import { setMatched, type Biquad } from './matchedFilter';
import { noiseGain } from './noise';
import type { LayerPart } from './parts';
import { LEFT_AT, leftSound, RIGHT_AT, rightSound } from './sampleReader';
import { takeBytes } from './soundMemory';
import { MAX_STRETCH } from './stretch';
import type { Touch } from './touch';
import { LANES, LAYER_NUMBERS, layerFrom, layerLanes, layerNoise, layerRooms, layerTo, noiseAt } from './voiceLoops';

/** Share by which the pitch moves before the filter follows: a tenth of a semitone. */
const FILTER_STEP = 0.006;
/** Sounds for 1.5 times its -60 dB time: it ends 90 dB down. */
const LIFE = 1.5;

/** By how much the time from one burst to the next differs, where they are as uneven as they can be. */
const UNEVEN_TIME = 0.25;

/** Room to render an attack in. */
const attackSound = new Float64Array(MAX_STRETCH);
const attackGain = new Float64Array(MAX_STRETCH);
/** Where a lane goes that is not needed, in bytes. */
const NOWHERE = takeBytes(8 * MAX_STRETCH);

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

  private readonly source: LayerSource;
  private readonly noiseGain: number;
  /** It is heard at the sides. */
  private isSide = false;
  /** Frames until it begins. */
  private waitLeft = 0;
  /** What its bursts are drawn from: all layers of a stroke have them at the same moments. */
  private burstSeed = 1;
  private bendRatio = 1;
  private filterRatio = 1;
  private layer!: LayerPart;
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
    this.noiseGain = noiseGain(sampleRate);
    this.source = new LayerSource(sampleRate);
  }

  /**
   * @param touch pitch is of the metal and of the filter; a low velocity lowers the cutoff as well as the level
   * @param seed non-zero 32-bit integer
   */
  start(layer: LayerPart, touch: Touch, seed: number): void {
    const { sampleRate } = this;
    const { velocity, gain, pitch, longer, hold } = touch;
    const { bursts, source } = layer;
    this.source.start(layer, touch, seed);
    this.burstSeed = touch.seed;
    this.waitLeft = Math.round(layer.after * sampleRate);
    this.bendRatio = 1;
    this.filterRatio = 1;
    this.layer = layer;
    this.isSide = layer.isSide;
    this.holdLeft = Math.round(hold * sampleRate);
    const { hardness } = layer;
    this.gain = gain * layer.level * (1 - hardness + hardness * velocity) * (source === 'metal' ? 1 : this.noiseGain);
    this.attackStep = 1 / Math.max(1, Math.round(layer.attack * sampleRate));
    this.lastDecay = decayPerFrame(layer.decay * longer, sampleRate);
    this.burstsLeft = bursts ? bursts.count : 0;
    this.decay = bursts ? decayPerFrame(bursts.decay, sampleRate) : this.heldDecay;
    let beforeLast = 0;
    for (let burst = this.burstsLeft; burst > 0; burst--) beforeLast += this.framesOf(burst);
    this.left = this.waitLeft + beforeLast + Math.round((layer.decay * longer * LIFE + hold) * sampleRate);
    this.strike();

    const hz = layer.cutoff * (pitch * touch.filter) * exp2(layer.bright * (velocity - 1));
    this.cutoff = hz / sampleRate;
    setMatched(this, layer.filter, this.cutoff, layer.q);
    this.x1 = this.x2 = this.y1 = this.y2 = 0;
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
    this.source.bend(ratio);
    // Its filter follows in steps that nobody hears in a burst of noise: each costs as much as thirty samples.
    if (Math.abs(ratio - this.filterRatio) < FILTER_STEP * this.filterRatio) return;
    this.filterRatio = ratio;
    setMatched(this, this.layer.filter, this.cutoff * ratio, this.layer.q);
  }

  /** Adds the next `frames` samples to `leftSound`, or where it is at the sides, to `rightSound`. */
  render(frames: number): void {
    const out = this.isSide ? rightSound : leftSound;
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
    this.source.open(to - from, layerRooms[0]!);
    const { decay, b0, b1, b2, a1, a2 } = this;
    const { sound } = this.source;
    const before = this.source.at - from;
    let { envelope, x1, x2, y1, y2 } = this;
    for (let i = from; i < to; i++) {
      const x = sound[before + i]!;
      const y = b0 * x + b1 * x1 + b2 * x2 - a2 * y2 - a1 * y1;
      x2 = x1;
      x1 = x;
      y2 = y1;
      y1 = y;
      out[i]! += y * envelope;
      envelope *= decay;
    }
    this.envelope = envelope;
    this.x1 = x1;
    this.x2 = x2;
    this.y1 = y1;
    this.y2 = y2;
  }

  // --- side by side -----------------------------------------------------------------------------------------

  /** Whether nothing begins or ends in it within so many frames: then it can be rendered beside others. */
  isEvenFor(frames: number): boolean {
    return (
      this.left >= frames &&
      this.waitLeft === 0 &&
      this.burstsLeft === 0 &&
      (this.holdLeft === 0 || this.holdLeft > frames) &&
      this.source.isShared
    );
  }

  /** Frames for which its attack goes on, or a few more. */
  get attackFrames(): number {
    return this.attack < 1 ? Math.ceil((1 - this.attack) / this.attackStep) + 1 : 0;
  }

  /** Lays it into a lane, to be rendered for so many frames. */
  toLane(lane: number, frames: number): void {
    const { source } = this;
    if (source.isNoise) {
      layerNoise[lane] = source.chance;
      layerFrom[lane] = noiseAt(lane);
    } else {
      layerNoise[lane] = 0;
      source.open(frames, layerRooms[lane]!);
      layerFrom[lane] = source.sound.byteOffset + 4 * source.at;
    }
    layerTo[lane] = this.isSide ? RIGHT_AT : LEFT_AT;
    layerLanes[lane] = this.b0;
    layerLanes[LANES + lane] = this.b1;
    layerLanes[2 * LANES + lane] = this.b2;
    layerLanes[3 * LANES + lane] = this.a1;
    layerLanes[4 * LANES + lane] = this.a2;
    layerLanes[5 * LANES + lane] = this.envelope;
    layerLanes[6 * LANES + lane] = this.decay;
    layerLanes[7 * LANES + lane] = this.x1;
    layerLanes[8 * LANES + lane] = this.x2;
    layerLanes[9 * LANES + lane] = this.y1;
    layerLanes[10 * LANES + lane] = this.y2;
    layerLanes[11 * LANES + lane] = this.attack;
    layerLanes[12 * LANES + lane] = this.attackStep;
  }

  /** Takes back what has been rendered. */
  fromLane(lane: number, frames: number): void {
    if (this.source.isNoise) this.source.chance = layerNoise[lane]!;
    this.envelope = layerLanes[5 * LANES + lane]!;
    this.x1 = layerLanes[7 * LANES + lane]!;
    this.x2 = layerLanes[8 * LANES + lane]!;
    this.y1 = layerLanes[9 * LANES + lane]!;
    this.y2 = layerLanes[10 * LANES + lane]!;
    this.attack = layerLanes[11 * LANES + lane]!;
    this.left -= frames;
    if (this.holdLeft > 0) this.hold(frames);
  }
}

/** A lane that is not needed: it reads what another one reads, and leaves nothing of it. */
export function emptyLane(lane: number): void {
  layerFrom[lane] = layerFrom[0]!;
  layerTo[lane] = NOWHERE;
  layerNoise[lane] = 0;
  for (let number = 0; number < LAYER_NUMBERS; number++) layerLanes[number * LANES + lane] = 0;
}
