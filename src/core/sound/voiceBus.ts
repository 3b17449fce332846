import { soundMemory, takeBytes } from './soundMemory';
import { MAX_STRETCH } from './stretch';

const STRETCH_BYTES = 8 * MAX_STRETCH;

/**
 * A stretch of stereo signal and what it sends to the room: what voices are added to. It holds nothing from one stretch to the next, and
 * its room in the memory is taken for good: one serves all engines of a thread.
 */
export class VoiceBus {
  /** Where its channels lie in the memory, in bytes. */
  readonly leftAt = takeBytes(3 * STRETCH_BYTES);
  readonly rightAt = this.leftAt + STRETCH_BYTES;
  readonly sendAt = this.rightAt + STRETCH_BYTES;
  readonly left = new Float64Array(soundMemory, this.leftAt, MAX_STRETCH);
  readonly right = new Float64Array(soundMemory, this.rightAt, MAX_STRETCH);
  /** To the room. */
  readonly send = new Float64Array(soundMemory, this.sendAt, MAX_STRETCH);

  clear(frames: number): void {
    this.left.fill(0, 0, frames);
    this.right.fill(0, 0, frames);
    this.send.fill(0, 0, frames);
  }
}
