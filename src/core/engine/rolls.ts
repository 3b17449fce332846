import { rollPitch, rollVelocity } from '../sequence/rollStrokes';
import { SAME_TICKS } from '../time/ticks';
import type { HeardPads } from './heardPads';
import type { TickPart } from './part';
import { newStroke, type Striker } from './striker';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';

/** Rolls that may go on at once; one more makes the oldest end. */
const ROLLS = 64;

/** A roll that is sounding: its strokes go on though the loop comes round or its hit is taken away meanwhile. */
export class SoundingRoll {
  active = false;
  track = 0;
  pad = 0;
  id = 0;
  velocity = 0.5;
  pitch = 0.5;
  /** Song tick of the first stroke. */
  start = 0.5;
  strokes = 0;
  over = 0.5;
  swell = 0.5;
  glide = 0.5;
  /** The stroke to come. */
  stroke = 0;

  /** Song tick of the stroke to come. */
  get next(): number {
    return this.start + (this.stroke * this.over) / this.strokes;
  }
}

/** The strokes of rolls that pattern hits have begun, after their first. */
export class Rolls implements TickPart {
  private readonly rolls = Array.from({ length: ROLLS }, () => new SoundingRoll());
  private rolling = 0;
  private readonly stroke = newStroke();

  constructor(
    private readonly transport: Transport,
    private readonly rack: TrackRack,
    private readonly heardPads: HeardPads,
    private readonly striker: Striker,
  ) {}

  /** A roll of a track begins: fill in the rest of what is returned. Its first stroke has sounded. */
  begin(track: number): SoundingRoll {
    const roll = this.freeRoll();
    roll.active = true;
    roll.track = track;
    roll.stroke = 1;
    this.rolling++;
    return roll;
  }

  nextTick(): number {
    if (this.rolling === 0) return Infinity;
    let next = Infinity;
    for (const roll of this.rolls) if (roll.active && roll.next < next) next = roll.next;
    return next;
  }

  playTick(tick: number): void {
    for (let i = 0; i < ROLLS; i++) {
      const roll = this.rolls[i]!;
      if (roll.active && roll.next <= tick + SAME_TICKS) this.strike(roll);
    }
  }

  songStops(): void {
    for (const roll of this.rolls) roll.active = false;
    this.rolling = 0;
  }

  trackChanges(track: number): void {
    for (const roll of this.rolls) {
      if (!roll.active || roll.track !== track) continue;
      roll.active = false;
      this.rolling--;
    }
  }

  private strike(roll: SoundingRoll): void {
    const { stroke } = this;
    const { track, pad, strokes } = roll;
    const placed = roll.next;
    const index = roll.stroke++;
    if (roll.stroke >= strokes) {
      roll.active = false;
      this.rolling--;
    }
    if (!this.heardPads.isHeard(track, pad)) return;
    stroke.track = track;
    stroke.pad = pad;
    stroke.id = roll.id;
    stroke.velocity = rollVelocity(roll.velocity, index, strokes, roll.swell);
    stroke.pitch = roll.pitch + rollPitch(index, strokes, roll.glide);
    stroke.position = this.rack.tracks[track]!.player.positionAt(placed);
    stroke.tick = stroke.placed = stroke.struck = placed;
    stroke.length = roll.over / strokes;
    stroke.heard = this.transport.frame;
    this.striker.strike(stroke);
  }

  private freeRoll(): SoundingRoll {
    let oldest = this.rolls[0]!;
    for (const roll of this.rolls) {
      if (!roll.active) return roll;
      if (roll.start < oldest.start) oldest = roll;
    }
    this.rolling--;
    return oldest;
  }
}
