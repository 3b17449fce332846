import type { CommandFields, Handlers } from '../protocol/commands';
import { LIMITER_LATENCY } from '../sound/limiter';
import type { NoteRepeater } from './noteRepeater';
import type { Part } from './part';
import type { Recorder } from './recorder';
import { newStroke, type Striker } from './striker';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';
import type { EventQueue } from '../protocol/events';
import { MAX_TRACKS, PADS } from '../document/limits';

/** Frames after which nobody strikes to what sounded: a minute, longer than any page stands still that is still played. */
const LONGEST_AGO = 60 * 48000;

/** A pad that is held down: the hit that it struck, and where. */
class HeldPad {
  down = false;
  /** Whether the stroke was recorded, and has a length to be told. */
  recorded = false;
  id = 0;
  slot = 0;
  songTick = 0.5;
  heardFrame = 0.5;
}

/** Hands on the pads. */
export class Hands implements Part {
  private readonly held = Array.from({ length: MAX_TRACKS }, () => Array.from({ length: PADS }, () => new HeldPad()));
  private readonly stroke = newStroke();

  constructor(
    private readonly transport: Transport,
    private readonly rack: TrackRack,
    private readonly recorder: Recorder,
    private readonly striker: Striker,
    private readonly repeater: NoteRepeater,
    private readonly events: EventQueue,
  ) {}

  readonly commands: Handlers<'padDown' | 'padUp' | 'releaseAll'> = {
    padDown: (command) => this.padDown(command),
    padUp: ({ track, pad, heard }) => this.padUp(track, pad, this.heardFrame(heard)),
    releaseAll: () => this.releaseAll(),
  };

  /** Whether a pad's note sounds under its key, which is still down. */
  holds(track: number, pad: number, id: number): boolean {
    const held = this.held[track]![pad]!;
    return held.down && held.id === id;
  }

  /** Whether any pad is held. */
  get isHolding(): boolean {
    return this.held.some((pads) => pads.some(({ down }) => down));
  }

  songStops(): void {
    this.releaseAll();
  }

  soundsChange(track: number): void {
    this.release(track);
  }

  trackRemoved(track: number): void {
    this.release(track);
  }

  private padDown({ track, pad, velocity, heard, id, pitch = 0, through = false }: CommandFields['padDown']): void {
    const { stroke, transport } = this;
    const heardFrame = this.heardFrame(heard);
    this.padUp(track, pad, heardFrame);
    stroke.track = track;
    stroke.pad = pad;
    stroke.velocity = velocity;
    stroke.id = id;
    stroke.heard = heardFrame;
    stroke.pitch = pitch;
    stroke.through = through;
    if (this.repeater.on) return this.repeater.press(stroke);
    stroke.struck = transport.timeline.tickAt(heardFrame);
    stroke.length = Infinity;
    const { inputSnap } = this.recorder;
    const feel = this.rack.tracks[track]!.player.feels[pad];
    this.recorder.record(stroke, inputSnap, inputSnap && (feel ?? inputSnap));
    const held = this.held[track]![pad]!;
    held.down = true;
    held.recorded = !Number.isNaN(stroke.placed);
    held.id = id;
    held.slot = this.recorder.lastSlot;
    held.songTick = stroke.struck;
    held.heardFrame = heardFrame;
    this.striker.strikeByHand(stroke);
  }

  private padUp(track: number, pad: number, heardFrame: number): void {
    this.repeater.letGo(track, pad);
    const held = this.held[track]![pad]!;
    if (!held.down) return;
    held.down = false;
    this.striker.letGo(track, pad);
    const longest = Math.max(1, this.rack.tracks[track]!.at(held.slot).span);
    const ticks = Math.round(this.transport.timeline.tickAt(heardFrame) - held.songTick);
    const length = Math.min(longest, Math.max(1, ticks));
    if (held.recorded) this.recorder.setLength(track, held.slot, held.id, length);
    const event = this.events.add('released', this.transport.frame);
    event.track = track;
    event.slot = held.slot;
    event.id = held.id;
    event.length = length;
    event.frames = Math.max(0, heardFrame - held.heardFrame);
  }

  private releaseAll(): void {
    for (let track = 0; track < MAX_TRACKS; track++) this.release(track);
  }

  private release(track: number): void {
    for (let pad = 0; pad < PADS; pad++) {
      this.padUp(track, pad, this.transport.frame);
      this.repeater.stop(track, pad);
    }
  }

  /**
   * Engine frame of what was heard at an output frame. Nothing can be heard before it is made, nor long after: a beat is found by counting
   * from there, which would take without end.
   */
  private heardFrame(output: number): number {
    const { frame } = this.transport;
    return Number.isFinite(output) ? Math.max(frame - LONGEST_AGO, Math.min(frame, output - LIMITER_LATENCY)) : frame;
  }
}
