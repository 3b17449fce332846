import { decibels } from '../math';
import { raiseBetween, MOST_RISE, TAPS } from './betweenSamples';

/** Frames of sound that it holds; a power of two. */
const HELD = 64;
/** Look-ahead in frames: the sound is delayed by so much, and the gain falls before a peak arrives. */
export const LIMITER_LATENCY = HELD - 1;
/** A wave between two samples is known this many frames after the first of them. */
const KNOWN_AFTER = TAPS / 2;
/** Frames over which the gain is averaged: all of them know of the peak that they meet. */
const AVERAGED = HELD - KNOWN_AFTER - 1;
/** Frames for which a need is kept: until the sample after the peak has left. */
const KEPT = AVERAGED + 2;

/**
 * What the wave does not exceed, between its samples either: -1 dBTP, and a little less, since meters with longer filters find a little
 * more.
 */
export const CEILING = decibels(-1.15);

/** Gains are whole numbers of this, so that the running sum is exact and never drifts. */
const UNITY = 1 << 24;
/**
 * After a single peak the gain is soon back; where the music goes on being too loud it stays down, and comes back slowly: quick enough
 * not to be missed, too slow to pump. Seconds.
 */
const SOON = 0.05;
const SETTLES = 0.1;
const SLOWLY = 0.7;

/**
 * A stereo-linked look-ahead limiter of true peaks.
 *
 * The gain that each frame needs is kept at its minimum for KEPT frames, released, and averaged over AVERAGED frames; delayed by
 * LIMITER_LATENCY, the sound meets a gain that is no larger than it needs.
 */
export class Limiter {
  /** The sound, written twice, HELD apart, so that any stretch of it lies in one piece. */
  private readonly left = new Float64Array(2 * HELD);
  private readonly right = new Float64Array(2 * HELD);
  /** Needs that wait, when each became known, and which of them is the first. */
  private readonly needs = new Int32Array(HELD);
  private readonly known = new Int32Array(HELD);
  private first = 0;
  private waiting = 0;
  private frame = 0;
  private readonly gains = new Int32Array(AVERAGED).fill(UNITY);
  private sum = UNITY * AVERAGED;
  private released = UNITY;
  /** Where the gain goes back to soon: lower, the longer it has been low. */
  private settled = UNITY;
  /** Nothing that it knows of needs another gain than 1, and it has come back to that. */
  private isOpen = true;
  private at = 0;
  private gainAt = 0;
  private readonly soon: number;
  private readonly settles: number;
  private readonly slowly: number;

  constructor(sampleRate: number) {
    this.soon = 1 / (SOON * sampleRate);
    this.settles = 1 / (SETTLES * sampleRate);
    this.slowly = 1 / (SLOWLY * sampleRate);
  }

  /** Whether nothing is on its way through it, and its gain is open. */
  get isSilent(): boolean {
    return this.isOpen && this.left.every((x) => x === 0) && this.right.every((x) => x === 0);
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
    const { left, right } = this;
    for (let i = 0; i < frames; i++) {
      const { at } = this;
      left[at] = left[at + HELD] = inLeft[i]!;
      right[at] = right[at + HELD] = inRight[i]!;
      highest[0] = 0;
      raise(left, at);
      raise(right, at);
      const peak = highest[0]!;
      applied[0] = 1;
      if (peak > CEILING || !this.isOpen) {
        this.setGain(peak > CEILING ? Math.floor((CEILING / peak) * UNITY) : UNITY);
      }
      const gain = applied[0]!;
      const out = (at + 1) & (HELD - 1);
      this.at = out;
      outLeft[from + i] = left[out]! * gain;
      outRight[from + i] = right[out]! * gain;
    }
  }

  /** The gain of the sample that leaves, once the need of the one that has just become known is known. */
  private setGain(need: number): void {
    const target = this.trackMinimum(need);
    if (target < this.released) this.released = target;
    else if (this.released < this.settled) {
      this.released = Math.min(target, this.released + Math.ceil((this.settled - this.released) * this.soon));
    } else if (this.released < target) this.released = Math.min(target, this.settled);
    if (target < this.settled) this.settled -= Math.ceil((this.settled - this.released) * this.settles);
    else if (this.settled < UNITY) this.settled += Math.ceil((UNITY - this.settled) * this.slowly);
    const { gains, gainAt } = this;
    this.sum += this.released - gains[gainAt]!;
    gains[gainAt] = this.released;
    this.gainAt = gainAt + 1 === AVERAGED ? 0 : gainAt + 1;
    this.isOpen = target === UNITY && this.settled === UNITY && this.sum === UNITY * AVERAGED;
    if (this.isOpen) this.waiting = 0;
    applied[0] = this.sum / (UNITY * AVERAGED);
  }

  /**
   * The smallest need of the last KEPT frames. Of all of them only those wait that are smaller than all that came after them: the first
   * in the queue is the smallest (D. Lemire, Streaming maximum-minimum filter, 2006).
   */
  private trackMinimum(need: number): number {
    const { needs, known } = this;
    const now = this.frame++ & 0xffff;
    while (this.waiting > 0 && needs[(this.first + this.waiting - 1) & (HELD - 1)]! >= need) this.waiting--;
    const last = (this.first + this.waiting++) & (HELD - 1);
    needs[last] = need;
    known[last] = now;
    if (((now - known[this.first]!) & 0xffff) >= KEPT) {
      this.first = (this.first + 1) & (HELD - 1);
      this.waiting--;
    }
    return needs[this.first]!;
  }
}

/** Of a frame, in both channels; and its gain. Numbers that a function returns may take memory each time. */
const highest = new Float64Array(1);
const applied = new Float64Array(1);

/**
 * Raises it to the highest that the wave is from the sample KNOWN_AFTER frames ago to the next one. Most of the music is far from its
 * peak.
 */
function raise(sound: Float64Array, at: number): void {
  const first = sound[at + HELD - KNOWN_AFTER]!;
  const second = sound[at + HELD - KNOWN_AFTER + 1]!;
  const one = Math.abs(first);
  const other = Math.abs(second);
  const higher = one > other ? one : other;
  if (higher > highest[0]!) highest[0] = higher;
  if (higher * MOST_RISE > CEILING) raiseBetween(sound, at + HELD - TAPS + 1, highest);
}
