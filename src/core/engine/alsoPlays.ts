import type { Shape } from '../sound/shape';
import type { FramePart } from './part';
import type { AlsoStroke } from './soundRack';
import type { Stroke } from './striker';
import type { Transport } from './transport';

/** Strokes that may wait at once; one more, and the one that would come last is left out. */
const WAITING = 256;

/** A stroke that waits for its moment. */
export class WaitingStroke implements Shape {
  active = false;
  frame = 0;
  track = 0;
  pad = 0;
  /** The pad whose stroke it follows, and whether that one is still held. */
  key = 0;
  isKeyDown = true;
  velocity = 0.5;
  /** When a sound that is held ends, if that is known. */
  offTick = Infinity;
  offFrame = Infinity;
  pitch = 0.5;
  filter = 0.5;
  decay = 0.5;
  level = 0.5;
  pan = 0.5;
  drive = 0.5;
  room = 0.5;
  resonance = 0.5;
  pressure = 0.5;
  bright = 0.5;
  start = 0.5;
  note = NaN;
}

/** What a pad's strokes have other pads play a little later. */
export class AlsoPlays implements FramePart {
  private readonly waiting = Array.from({ length: WAITING }, () => new WaitingStroke());
  private count = 0;

  /** @param sound makes a stroke sound whose moment has come */
  constructor(
    private readonly sampleRate: number,
    private readonly transport: Transport,
    private readonly sound: (stroke: WaitingStroke) => void,
  ) {}

  /** Whether any stroke is still to come. */
  get isWaiting(): boolean {
    return this.count > 0;
  }

  /**
   * Another pad is to sound by this stroke.
   * @param framesPerTick at this moment: the delay keeps its length whatever the tempo does meanwhile
   */
  wait(
    stroke: Pick<Stroke, 'track' | 'pad' | 'velocity'>,
    also: AlsoStroke,
    shape: Shape,
    framesPerTick: number,
  ): WaitingStroke {
    // prettier-ignore
    const next = this.free();
    if (!next.active) this.count++;
    next.active = true;
    next.frame = this.transport.frame + Math.round((also.ms * this.sampleRate) / 1000 + also.ticks * framesPerTick);
    next.track = stroke.track;
    next.pad = also.pad;
    next.key = stroke.pad;
    next.isKeyDown = true;
    next.velocity = stroke.velocity * also.share;
    next.offTick = Infinity;
    next.offFrame = Infinity;
    next.pitch = shape.pitch;
    next.filter = shape.filter;
    next.decay = shape.decay;
    next.level = shape.level;
    next.pan = shape.pan;
    next.drive = shape.drive;
    next.room = shape.room;
    next.resonance = shape.resonance;
    next.pressure = shape.pressure;
    next.bright = shape.bright;
    next.start = shape.start;
    next.note = shape.note;
    return next;
  }

  /** A pad is let go (-1: all of a track): what follows it is not held when it comes. */
  letGo(track: number, pad: number): void {
    if (this.count === 0) return;
    for (const next of this.waiting) {
      if (next.active && next.track === track && (pad < 0 || next.key === pad)) next.isKeyDown = false;
    }
  }

  nextFrame(): number {
    if (this.count === 0) return Infinity;
    let first = Infinity;
    for (const next of this.waiting) if (next.active && next.frame < first) first = next.frame;
    return first;
  }

  playFrame(): void {
    for (const next of this.waiting) {
      if (!next.active || next.frame > this.transport.frame) continue;
      next.active = false;
      this.count--;
      this.sound(next);
    }
  }

  soundsChange(track: number): void {
    this.forget(track);
  }

  trackRemoved(track: number): void {
    this.forget(track);
  }

  private forget(track: number): void {
    for (const next of this.waiting) {
      if (!next.active || next.track !== track) continue;
      next.active = false;
      this.count--;
    }
  }

  private free(): WaitingStroke {
    let last = this.waiting[0]!;
    for (const next of this.waiting) {
      if (!next.active) return next;
      if (next.frame > last.frame) last = next;
    }
    return last;
  }
}
