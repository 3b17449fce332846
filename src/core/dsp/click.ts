import { decayPerFrame, sinTurns } from './math';

const ACCENT_HZ = 1865;
const BEAT_HZ = 1245;
const DECAY_SECONDS = 0.045;
const ATTACK_FRAMES = 16;
const PEAK = 0.5;

/** The metronome's sound: a short wooden ping, a fifth higher on the first beat of the bar. */
export class Click {
  private phase = 0;
  private step = 0;
  private envelope = 0;
  private age = 0;
  private left = 0;

  constructor(private readonly sampleRate: number) {}

  /** @param level 0..1 */
  start(accent: boolean, level: number): void {
    this.phase = 0;
    this.step = (accent ? ACCENT_HZ : BEAT_HZ) / this.sampleRate;
    this.envelope = PEAK * level * level * (accent ? 1 : 0.8);
    this.age = 0;
    this.left = Math.round(DECAY_SECONDS * 1.5 * this.sampleRate);
  }

  /** Adds the next `frames` samples to both sides. */
  render(left: Float64Array, right: Float64Array, frames: number): void {
    const end = Math.min(frames, this.left);
    const decay = decayPerFrame(DECAY_SECONDS, this.sampleRate);
    for (let i = 0; i < end; i++) {
      const ramp = this.age < ATTACK_FRAMES ? this.age / ATTACK_FRAMES : 1;
      const y = (sinTurns(this.phase) + 0.25 * sinTurns(this.phase * 2.76)) * this.envelope * ramp;
      left[i]! += y;
      right[i]! += y;
      this.phase += this.step;
      this.envelope *= decay;
      this.age++;
    }
    this.left -= end;
  }
}
