import { decibels } from '../math';

const LOWEST_NOTE = 24;
/** Seconds in which most of the way to another note's gain is gone. */
const GLIDE_SECONDS = 0.005;

/**
 * Gain at a note between those of the octaves.
 * @param even dB at C1, C2 ..
 * @param note MIDI note
 * @example evenGain([0, -6], 30) // -3 dB: 0.708
 */
export function evenGain(even: readonly number[], note: number): number {
  const octave = Math.min(even.length - 1, Math.max(0, (note - LOWEST_NOTE) / 12));
  const whole = Math.min(even.length - 2, Math.floor(octave));
  return decibels(even[whole]! + (even[whole + 1]! - even[whole]!) * (octave - whole));
}

/** Makes each note of an instrument as loud as the others, after its saturation: that is as strong for all of them. */
export class Evenness {
  private gain = 1;
  private target = 1;
  private readonly share: number;

  constructor(sampleRate: number) {
    this.share = 1 / (GLIDE_SECONDS * sampleRate);
  }

  start(even: readonly number[], note: number): void {
    this.gain = this.target = evenGain(even, note);
  }

  /** The note goes on as another one. */
  slur(even: readonly number[], note: number): void {
    this.target = evenGain(even, note);
  }

  /** Multiplies the first `frames` samples of one or two sounds. */
  process(sound: Float64Array, other: Float64Array | null, frames: number): void {
    const { target, share } = this;
    let { gain } = this;
    for (let i = 0; i < frames; i++) {
      sound[i]! *= gain;
      if (other) other[i]! *= gain;
      gain += (target - gain) * share;
    }
    this.gain = gain;
  }
}
