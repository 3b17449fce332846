/**
 * Which voices end when, as a render of all of them has found. Another render of the same need not render those that nobody hears: when a
 * voice ends is all that others ask of it. How either is cut into stretches does not matter.
 */
export class VoiceEnds {
  /** By which frame each has ended, in order, and its place in the pool. */
  private readonly frames: number[] = [];
  private readonly places: number[] = [];
  private at = 0;

  /** A voice has ended before a frame, which is none before that of the last one. */
  note(frame: number, place: number): void {
    this.frames.push(frame);
    this.places.push(place);
  }

  /** Begins again with the first. */
  rewind(): void {
    this.at = 0;
  }

  /** Place of the next voice that has ended by a frame; null: no more have. */
  next(frame: number): number | null {
    return this.at < this.frames.length && this.frames[this.at]! <= frame ? this.places[this.at++]! : null;
  }
}
