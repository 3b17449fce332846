import { decayPerFrame } from '../math';

/** Below this (-90 dB) a note is over. */
const SILENCE = 3.2e-5;

/** Seconds, and the level of a note that is held, 0..1. */
interface Times {
  attack: number;
  hold: number;
  decay: number;
  sustain: number;
  release: number;
}

/** How loud a note is from its start until it has died away: attack in a line, hold, decay to what is held, release. */
export class ToneEnvelope {
  /** 0..1: how far the attack has come. */
  attack = 0;

  private attackStep = 0;
  private holdLeft = 0;
  private sustain = 0;
  private above = 0;
  private aboveDecay = 1;
  private tail = 1;
  private tailDecay = 1;
  private releaseDecay = 1;
  /** What it is multiplied with, and by how much that moves with each sample. */
  private level = 0;
  private slope = 0;

  constructor(private readonly sampleRate: number) {}

  start({ attack, hold, decay, sustain, release }: Times, level: number): void {
    const { sampleRate } = this;
    this.attack = 0;
    this.attackStep = 1 / Math.max(1, Math.round(attack * sampleRate));
    this.holdLeft = Math.round(hold * sampleRate);
    this.sustain = sustain;
    this.above = 1 - sustain;
    this.aboveDecay = decayPerFrame(decay, sampleRate);
    this.tail = 1;
    this.tailDecay = 1;
    this.releaseDecay = decayPerFrame(release, sampleRate);
    this.level = level;
    this.slope = 0;
  }

  /** The key goes up. */
  letGo(): void {
    this.tailDecay = this.releaseDecay;
  }

  /** In so many samples it is so loud. */
  moveTo(level: number, frames: number): void {
    this.slope = (level - this.level) / frames;
  }

  get isOver(): boolean {
    return this.tail < SILENCE || (this.sustain === 0 && this.above < SILENCE);
  }

  /** Shapes the first `frames` samples and adds them to two sounds, from `at` on. */
  process(
    middle: Float64Array,
    sides: Float64Array,
    frames: number,
    outMiddle: Float64Array,
    outSides: Float64Array,
    at: number,
  ): void {
    // prettier-ignore
    const { attackStep, sustain, aboveDecay, tailDecay, slope } = this;
    let { attack, holdLeft, above, tail, level } = this;
    for (let i = 0; i < frames; i++) {
      if (attack < 1) attack = Math.min(1, attack + attackStep);
      const gain = attack * (sustain + above) * tail * level;
      outMiddle[at + i]! += middle[i]! * gain;
      outSides[at + i]! += sides[i]! * gain;
      if (attack === 1) {
        if (holdLeft > 0) holdLeft--;
        else above *= aboveDecay;
      }
      tail *= tailDecay;
      level += slope;
    }
    this.attack = attack;
    this.holdLeft = holdLeft;
    this.above = above;
    this.tail = tail;
    this.level = level;
  }
}
