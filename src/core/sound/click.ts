import { noiseGain } from './noise';
import { decayPerFrame, hash, sinTurns } from '../math';
import type { ClickSound } from '../document/metronome';

/** One of the metronome's sounds: a struck thing with two partials and a touch of noise. */
interface Ping {
  /** Hz of a beat; the bar's first beat is a fifth higher. */
  hz: number;
  /** The second partial: its pitch ratio and level. */
  partial: { ratio: number; level: number };
  noise: number;
  /** Seconds to -60 dB. */
  decay: number;
}

const PINGS: Record<ClickSound, Ping> = {
  wood: { hz: 1245, partial: { ratio: 2.76, level: 0.25 }, noise: 0, decay: 0.045 },
  bell: { hz: 2093, partial: { ratio: 1.504, level: 0.6 }, noise: 0, decay: 0.11 },
  tick: { hz: 620, partial: { ratio: 5.4, level: 0.12 }, noise: 0.7, decay: 0.016 },
};

/** Pitch and level by strength (see `CLICK`): bar, group, beat, between. */
const PITCH = [1.5, 1.19, 1, 0.8];
const LEVEL = [1, 0.88, 0.8, 0.36];
const ATTACK_FRAMES = 16;
const PEAK = 0.5;

/** The metronome's sound. The first beat of the bar is higher (common practice: so that one hears where the bar begins). */
export class Click {
  private phase = 0;
  private step = 0;
  private envelope = 0;
  private decay = 0;
  private age = 0;
  private left = 0;
  private seed = 1;
  private ping = PINGS.wood;

  constructor(private readonly sampleRate: number) {}

  /**
   * @param strength one of `CLICK`
   * @param level 0..1
   */
  start(sound: ClickSound, strength: number, level: number): void {
    this.ping = PINGS[sound];
    this.phase = 0;
    this.step = (this.ping.hz * PITCH[strength]!) / this.sampleRate;
    this.envelope = PEAK * level * level * LEVEL[strength]!;
    this.decay = decayPerFrame(this.ping.decay, this.sampleRate);
    this.age = 0;
    this.seed = hash(strength, 7, 11);
    this.left = Math.round(this.ping.decay * 1.5 * this.sampleRate);
  }

  get isSilent(): boolean {
    return this.left <= 0;
  }

  /** Adds the next `frames` samples to both sides. */
  render(left: Float64Array, right: Float64Array, frames: number): void {
    const end = Math.min(frames, this.left);
    const { noise, partial } = this.ping;
    const { ratio, level } = partial;
    for (let i = 0; i < end; i++) {
      const ramp = this.age < ATTACK_FRAMES ? this.age / ATTACK_FRAMES : 1;
      let y = sinTurns(this.phase) + level * sinTurns(this.phase * ratio);
      if (noise > 0) {
        this.seed ^= this.seed << 13;
        this.seed ^= this.seed >>> 17;
        this.seed ^= this.seed << 5;
        y += (noise * noiseGain(this.sampleRate) * this.seed) / 2147483648;
      }
      y *= this.envelope * ramp;
      left[i]! += y;
      right[i]! += y;
      this.phase += this.step;
      this.envelope *= this.decay;
      this.age++;
    }
    this.left -= end;
  }
}
