import { decibels } from '../math';

/** Frames over which the limiter looks for peaks; a power of two. */
const LOOKAHEAD = 64;
/** Look-ahead in frames: the sound is delayed by so much, and the gain falls before a peak arrives. */
export const LIMITER_LATENCY = LOOKAHEAD - 1;
/** -1 dBFS: what no sample exceeds. */
export const CEILING = decibels(-1);

/** Gains are whole numbers of this, so that the running sum is exact and never drifts. */
const UNITY = 1 << 24;
const RELEASE_SECONDS = 0.09;

/**
 * A stereo-linked look-ahead peak limiter.
 *
 * The gain each frame would need is held at its minimum over LOOKAHEAD frames, released slowly, and averaged over
 * LOOKAHEAD frames; delayed by LIMITER_LATENCY, the sound meets a gain that is no larger than it needs.
 */
export class Limiter {
  private readonly left = new Float64Array(LOOKAHEAD);
  private readonly right = new Float64Array(LOOKAHEAD);
  private readonly needed = new Int32Array(LOOKAHEAD).fill(UNITY);
  private readonly held = new Int32Array(LOOKAHEAD).fill(UNITY);
  private sum = UNITY * LOOKAHEAD;
  private released = UNITY;
  private minimum = UNITY;
  private minimumAge = 0;
  private at = 0;
  private readonly release: number;

  constructor(sampleRate: number) {
    this.release = 1 / (RELEASE_SECONDS * sampleRate);
  }

  /** Whether nothing is on its way through it, and its gain is open. */
  get isSilent(): boolean {
    const open = this.released === UNITY && this.sum === UNITY * LOOKAHEAD && this.minimum === UNITY;
    return open && this.left.every((x) => x === 0) && this.right.every((x) => x === 0);
  }

  /** Limits `frames` samples of the two inputs into the two outputs. */
  process(
    inLeft: Float64Array,
    inRight: Float64Array,
    outLeft: Float32Array,
    outRight: Float32Array,
    from: number,
    frames: number,
  ): void {
    const { left, right, needed, held, release } = this;
    let { at, sum, released } = this;
    for (let i = 0; i < frames; i++) {
      const l = inLeft[i]!;
      const r = inRight[i]!;
      const absL = l < 0 ? -l : l;
      const absR = r < 0 ? -r : r;
      const peak = absL > absR ? absL : absR;
      const need = peak > CEILING ? Math.floor((CEILING / peak) * UNITY) : UNITY;
      needed[at] = need;
      this.trackMinimum(need, at);

      const target = this.minimum;
      if (target < released) released = target;
      else if (released < UNITY) {
        released = Math.min(target, released + Math.ceil((UNITY - released) * release));
      }
      sum += released - held[at]!;
      held[at] = released;

      left[at] = l;
      right[at] = r;
      at = (at + 1) & (LOOKAHEAD - 1);
      const gain = sum / (UNITY * LOOKAHEAD);
      outLeft[from + i] = left[at]! * gain;
      outRight[from + i] = right[at]! * gain;
    }
    this.at = at;
    this.sum = sum;
    this.released = released;
  }

  /** Keeps the smallest need of the last LOOKAHEAD frames; looks for it anew only when it has left the window. */
  private trackMinimum(need: number, at: number): void {
    if (need <= this.minimum) {
      this.minimum = need;
      this.minimumAge = 0;
      return;
    }
    if (++this.minimumAge < LOOKAHEAD) return;
    let smallest = UNITY;
    let age = 0;
    for (let back = 0; back < LOOKAHEAD; back++) {
      const value = this.needed[(at - back) & (LOOKAHEAD - 1)]!;
      if (value < smallest) {
        smallest = value;
        age = back;
      }
    }
    this.minimum = smallest;
    this.minimumAge = age;
  }
}
