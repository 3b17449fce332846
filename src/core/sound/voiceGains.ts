import { sinTurns } from '../math';
import { leftSound, rightSound } from './sampleReader';
import type { VoiceBus } from './voiceBus';
import { gains, mix, mixSides } from './voiceLoops';

/** How loud a voice is left and right, and the way into a bus: it goes there at once, or in a line. */
export class VoiceGains {
  /** Share sent to the room. */
  room = 0;
  private left = 0;
  private right = 0;
  /** By which they move with each sample. */
  private slopeLeft = 0;
  private slopeRight = 0;

  /**
   * Constant power: the squares of both gains add up to `level` squared.
   * @param pan -1 left .. 1 right
   */
  set(level: number, pan: number): void {
    const place = Math.min(1, Math.max(-1, pan));
    this.left = sinTurns((1 - place) / 8) * level;
    this.right = sinTurns((1 + place) / 8) * level;
    this.slopeLeft = 0;
    this.slopeRight = 0;
  }

  /** In so many samples it will be there. */
  moveTo(level: number, pan: number, frames: number): void {
    const { left, right } = this;
    this.set(level, pan);
    this.slopeLeft = (this.left - left) / frames;
    this.slopeRight = (this.right - right) / frames;
    this.left = left;
    this.right = right;
  }

  /** Adds `leftSound` from `at` on to a bus, from `to` on. */
  mix(at: number, bus: VoiceBus, to: number, frames: number): void {
    if (this.slopeLeft !== 0 || this.slopeRight !== 0) this.mixMoving(at, bus, to, frames);
    else {
      gains[0] = this.left;
      gains[1] = this.right;
      gains[2] = this.room * (this.left + this.right) * 0.5;
      mix(at, bus, to, frames);
    }
  }

  private mixMoving(at: number, bus: VoiceBus, to: number, frames: number): void {
    const { slopeLeft, slopeRight } = this;
    const { left, right, send } = bus;
    const room = this.room * 0.5;
    let { left: gainLeft, right: gainRight } = this;
    for (let i = 0; i < frames; i++) {
      const y = leftSound[at + i]!;
      left[to + i]! += y * gainLeft;
      right[to + i]! += y * gainRight;
      send[to + i]! += y * room * (gainLeft + gainRight);
      gainLeft += slopeLeft;
      gainRight += slopeRight;
    }
    this.left = gainLeft;
    this.right = gainRight;
  }

  /**
   * Adds both channels, each of which keeps its side: panning turns them like a balance.
   * @param areSides they are middle and side: left is their sum, right their difference
   */
  mixStereo(areSides: boolean, at: number, bus: VoiceBus, to: number, frames: number): void {
    const { slopeLeft, slopeRight } = this;
    const { left, right, send } = bus;
    const room = this.room * 0.5;
    if (areSides && slopeLeft === 0 && slopeRight === 0) {
      gains[0] = this.left;
      gains[1] = this.right;
      gains[2] = room;
      return mixSides(at, bus, to, frames);
    }
    const turn = areSides ? 1 : 0;
    let { left: gainLeft, right: gainRight } = this;
    for (let i = 0; i < frames; i++) {
      const a = leftSound[at + i]!;
      const b = rightSound[at + i]!;
      const l = (a + turn * b) * gainLeft;
      const r = (areSides ? a - b : b) * gainRight;
      left[to + i]! += l;
      right[to + i]! += r;
      send[to + i]! += (l + r) * room;
      gainLeft += slopeLeft;
      gainRight += slopeRight;
    }
    this.left = gainLeft;
    this.right = gainRight;
  }
}
