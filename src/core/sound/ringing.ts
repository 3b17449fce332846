import { MAX_TRACKS } from '../document/limits';
import type { DrumVoice } from './drumVoice';

/** No further voice. */
export const NONE = -1;

/** Which voices of each track rang when it looked last, in the order of the pool: so sums keep theirs, and nobody asks each voice for each track. */
export class Ringing {
  private readonly counts = new Int32Array(MAX_TRACKS);
  private readonly firsts = new Int16Array(MAX_TRACKS);
  private readonly nexts: Int16Array;

  constructor(private readonly voices: readonly DrumVoice[]) {
    this.nexts = new Int16Array(voices.length);
  }

  /** Looks at all voices. */
  look(): void {
    const { voices, counts, firsts, nexts } = this;
    counts.fill(0);
    firsts.fill(NONE);
    for (let i = voices.length - 1; i >= 0; i--) {
      const voice = voices[i]!;
      if (!voice.active) continue;
      counts[voice.track]!++;
      nexts[i] = firsts[voice.track]!;
      firsts[voice.track] = i;
    }
  }

  /** A voice that did not ring has begun: it comes before those of its track that rang already. */
  add(place: number): void {
    const { track } = this.voices[place]!;
    this.counts[track]!++;
    this.nexts[place] = this.firsts[track]!;
    this.firsts[track] = place;
  }

  /** How many voices of a track ring. */
  on(track: number): number {
    return this.counts[track]!;
  }

  /** Place of a track's first voice, or NONE. */
  first(track: number): number {
    return this.firsts[track]!;
  }

  /** Place of the voice of the same track after this one, or NONE. */
  next(place: number): number {
    return this.nexts[place]!;
  }
}
