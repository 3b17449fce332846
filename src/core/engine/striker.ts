import { HELD_CONTROLS } from '../document/moves';
import type { Handlers } from '../protocol/commands';
import { frameAt } from '../time/timeline';
import type { DrumVoice, PadStroke } from '../sound/drumVoice';
import type { Shape } from '../sound/shape';
import { VoicePool } from '../sound/voicePool';
import { AlsoPlays, type WaitingStroke } from './alsoPlays';
import type { PadControls } from './padControls';
import { NotesBeneath } from './notesBeneath';
import type { FramePart } from './part';
import type { SampleBank } from './sampleBank';
import type { PadVoice, SoundRack } from './soundRack';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';
import type { EventQueue } from '../protocol/events';

/** Frames within which a note ends as the next one begins. */
const ENDS_WITHIN = 2;

/** A stroke that is to sound now. */
export interface Stroke {
  track: number;
  pad: number;
  /** Names the hit. */
  id: number;
  /** 0..1 */
  velocity: number;
  /** Semitones of its own. */
  pitch: number;
  /** It only sounds, and is recorded nowhere. */
  through: boolean;
  /** Struck by hand or its note repeat, and not played from the pattern. */
  live: boolean;
  /** Where its loop is, in the pattern; NaN when it stands still. */
  position: number;
  /** Song tick at which it sounds, and for how many ticks a note is held: Infinity for as long as its key is down. */
  tick: number;
  length: number;
  /** For the event: song ticks at which it is placed (NaN: it was not recorded) and was struck, and the frame heard then. */
  placed: number;
  struck: number;
  heard: number;
}

/** A stroke to be filled in and handed over again and again: a struct, so that strokes cost no garbage. */
export function newStroke(): Stroke {
  return { track: 0, pad: 0, id: 0, velocity: 0.5, pitch: 0.5, through: false, live: false, position: 0.5, tick: 0.5, length: 0.5, placed: 0.5, struck: 0.5, heard: 0.5 }; // prettier-ignore
}

/** The parts that a striker asks, and the events that it tells. */
interface Known {
  rack: TrackRack;
  sounds: SoundRack;
  samples: SampleBank;
  controls: PadControls;
  events: EventQueue;
}

/** Makes strokes sound, and ends notes that are held. */
export class Striker implements FramePart {
  readonly voices: VoicePool;
  /** Strokes are told, and make no sound. */
  isSilent = false;

  /** What pads have other pads play: a part of its own. */
  readonly also: AlsoPlays;

  private readonly beneath = new NotesBeneath();
  private readonly rack: TrackRack;
  private readonly sounds: SoundRack;
  private readonly samples: SampleBank;
  private readonly controls: PadControls;
  private readonly events: EventQueue;

  constructor(
    sampleRate: number,
    private readonly transport: Transport,
    { rack, sounds, samples, controls, events }: Known,
  ) {
    this.rack = rack;
    this.sounds = sounds;
    this.samples = samples;
    this.controls = controls;
    this.events = events;
    this.voices = new VoicePool(sampleRate, transport);
    this.also = new AlsoPlays(sampleRate, transport, (waiting) => this.soundAlso(waiting));
  }

  readonly commands: Handlers<'strike'> = {
    strike: (stroke) => {
      const { track, pad, frames } = stroke;
      const shape = { ...stroke, note: this.controls.padNote(track, pad) };
      this.sound(stroke, shape, Infinity, this.transport.frame + frames);
    },
  };

  /** A stroke sounds, and the page is told. */
  strike(stroke: Stroke): void {
    const { track, pad } = stroke;
    const { frame } = this.transport;
    const shape = this.controls.shapeOf(track, pad, stroke.pitch, stroke.position);
    if (!this.isSilent) this.soundStroke(stroke, shape);
    const event = this.events.add('sounded', frame);
    event.track = track;
    event.pad = pad;
    event.velocity = stroke.velocity;
    event.pitch = stroke.pitch;
    event.id = stroke.id;
    event.live = stroke.live;
    event.placed = stroke.placed;
    event.struck = stroke.struck;
    event.heard = stroke.heard;
    event.length = stroke.length;
    event.bend = shape.pitch;
    event.filter = shape.filter;
    event.decay = shape.decay;
    event.level = shape.level;
    event.pan = shape.pan;
    event.drive = shape.drive;
    event.room = shape.room;
    event.resonance = shape.resonance;
    event.start = shape.start;
    event.pressure = shape.pressure;
    event.bright = shape.bright;
  }

  private soundStroke(stroke: Stroke, shape: Shape): void {
    const { frame, playing } = this.transport;
    const { tick, length } = stroke;
    const isTimed = length !== Infinity;
    const offTick = isTimed && playing ? tick + length : Infinity;
    const offFrame = isTimed && !playing ? frame + this.transport.standingFrames(length) : Infinity;
    this.sound(stroke, shape, offTick, offFrame);
  }

  /** A pad and all that it also plays sound, until a song tick or a frame where they are held. */
  private sound(stroke: PadStroke, shape: Shape, offTick: number, offFrame: number): void {
    const { track, pad } = stroke;
    const voice = this.sounds.tracks[track]!.pads[pad]!;
    const begun = this.trigger(voice, stroke, shape);
    if (begun?.held) this.hold(begun, offTick, offFrame);
    const { also } = voice;
    for (let i = 0; i < also.length; i++) {
      const waiting = this.also.wait(stroke, also[i]!, shape, this.transport.repeatClock.framesPerTick);
      waiting.offTick = offTick;
      waiting.offFrame = offFrame;
    }
  }

  private soundAlso(waiting: WaitingStroke): void {
    const { track, pad, isKeyDown, offTick, offFrame } = waiting;
    const voice = this.sounds.tracks[track]!.pads[pad]!;
    // What would be held by a pad that was let go meanwhile does not begin.
    if (voice.patch.isHeld && !isKeyDown) return;
    const begun = this.trigger(voice, waiting, waiting);
    if (!begun) return;
    begun.key = waiting.key;
    if (begun.held) this.hold(begun, offTick, offFrame);
  }

  /** Null: its sample has not come yet. */
  private trigger({ patch, cutGroup }: PadVoice, stroke: PadStroke, shape: Shape): DrumVoice | null {
    if (patch.tone && patch.isMono) {
      const slurred = this.slur(stroke, shape);
      if (slurred) return slurred;
    }
    const sample = patch.sample ? this.samples.find(patch.sample.id) : null;
    if (sample === undefined) return null;
    return this.voices.trigger(patch, stroke, cutGroup, this.transport.frame, shape, sample);
  }

  /** A note that begins while another is held goes on from it. Null: none is held, or the same is struck again. */
  private slur({ track, pad, velocity }: PadStroke, shape: Shape): DrumVoice | null {
    const { frame } = this.transport;
    let voice = this.voices.heldNote(track, frame);
    // What ends as the next one begins is over, even if that is a sample later.
    while (voice && this.endFrame(voice) <= frame + ENDS_WITHIN) {
      this.end(voice);
      voice = this.voices.heldNote(track, frame);
    }
    const note = shape.note + shape.pitch;
    if (!voice || voice.note === note) {
      this.beneath.letGo(track, -1);
      return null;
    }
    this.beneath.add(voice);
    voice.slur(pad, note, velocity);
    for (const control of HELD_CONTROLS) this.voices.move(control, track, pad, shape[control], frame);
    return voice;
  }

  private hold(voice: DrumVoice, offTick: number, offFrame: number): void {
    voice.offTick = offTick;
    voice.offFrame = offFrame;
  }

  /** A pad is let go: the sounds end that it holds. */
  letGo(track: number, pad: number): void {
    this.beneath.letGo(track, pad);
    this.voices.letGo(track, pad, this.end);
    this.also.letGo(track, pad);
  }

  /** A held note ends; where one plays at a time, and another is held beneath it, that comes back. */
  private readonly end = (voice: DrumVoice): void => {
    const beneath = this.beneath.take(voice.track, this.isOver);
    if (!beneath) return this.voices.release(voice);
    voice.slur(beneath.pad, beneath.note, NaN);
    for (const control of HELD_CONTROLS) voice.move(control, this.voices.heldAt(control, voice.track, beneath.pad));
    this.hold(voice, beneath.offTick, beneath.offFrame);
  };

  /** A stroke by hand sounds now, wherever the loop is, in the octave that hands play in. */
  strikeByHand(stroke: Stroke): void {
    const { transport } = this;
    const { player } = this.rack.tracks[stroke.track]!;
    stroke.live = true;
    stroke.pitch += this.sounds.tracks[stroke.track]!.handPitch;
    stroke.tick = transport.songTick;
    stroke.position = transport.playing ? player.positionAt(stroke.tick) : NaN;
    this.strike(stroke);
  }

  // --- the end of notes -------------------------------------------------------------------------------------

  nextFrame(): number {
    let next = Infinity;
    for (const voice of this.voices.voices) {
      if (voice.held && voice.active) next = Math.min(next, this.endFrame(voice));
    }
    return next;
  }

  playFrame(): void {
    for (const voice of this.voices.voices) if (voice.held && voice.active && this.isOver(voice)) this.end(voice);
  }

  private readonly isOver = (note: { offTick: number; offFrame: number }): boolean =>
    this.endFrame(note) <= this.transport.frame;

  songStops(): void {
    for (let track = 0; track < this.rack.tracks.length; track++) this.letGo(track, -1);
  }

  /** Notes that a pattern or note repeat plays end; keys that are down go on. */
  trackChanges(track: number): void {
    this.beneath.letGoTimed(track);
    for (const voice of this.voices.voices) {
      const timed = voice.offTick < Infinity || voice.offFrame < Infinity;
      if (voice.active && voice.held && voice.track === track && timed) this.end(voice);
    }
  }

  soundsChange(track: number): void {
    this.beneath.letGo(track, -1);
    this.voices.silence(track);
  }

  trackRemoved(track: number): void {
    this.beneath.letGo(track, -1);
    this.voices.silence(track);
  }

  private endFrame({ offTick, offFrame }: { offTick: number; offFrame: number }): number {
    const { transport } = this;
    const byTick = offTick < Infinity && transport.playing ? frameAt(transport.now, offTick) : Infinity;
    return Math.min(byTick, offFrame);
  }
}
