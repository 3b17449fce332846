import { sinTurns } from '../math';

/** What voices are added to. */
export interface VoiceBus {
  readonly left: Float64Array;
  readonly right: Float64Array;
  /** To the room. */
  readonly send: Float64Array;
}

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

  /** Adds a sound from `at` on to a bus, from `to` on. */
  mix(sound: Float64Array, at: number, bus: VoiceBus, to: number, frames: number): void {
    if (this.slopeLeft !== 0 || this.slopeRight !== 0) this.mixMoving(sound, at, bus, to, frames);
    else this.mixStill(sound, at, bus, to, frames);
  }

  private mixStill(sound: Float64Array, at: number, bus: VoiceBus, to: number, frames: number): void {
    const { left: gainLeft, right: gainRight } = this;
    const { left, right, send } = bus;
    const toRoom = this.room * (gainLeft + gainRight) * 0.5;
    for (let i = 0; i < frames; i++) {
      const y = sound[at + i]!;
      left[to + i]! += y * gainLeft;
      right[to + i]! += y * gainRight;
      send[to + i]! += y * toRoom;
    }
  }

  private mixMoving(sound: Float64Array, at: number, bus: VoiceBus, to: number, frames: number): void {
    const { slopeLeft, slopeRight } = this;
    const { left, right, send } = bus;
    const room = this.room * 0.5;
    let { left: gainLeft, right: gainRight } = this;
    for (let i = 0; i < frames; i++) {
      const y = sound[at + i]!;
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
   * Two channels, each of which keeps its side: panning turns them like a balance.
   * @param areSides they are middle and side: left is their sum, right their difference
   */
  mixStereo(
    one: Float64Array,
    other: Float64Array,
    areSides: boolean,
    at: number,
    bus: VoiceBus,
    to: number,
    frames: number,
  ): void {
    const { slopeLeft, slopeRight } = this;
    const { left, right, send } = bus;
    const room = this.room * 0.5;
    const turn = areSides ? 1 : 0;
    let { left: gainLeft, right: gainRight } = this;
    for (let i = 0; i < frames; i++) {
      const a = one[at + i]!;
      const b = other[at + i]!;
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
