import { MAX_TRACKS, PADS } from '../document/limits';
import type { HeldControl } from '../document/moves';
import { DrumVoice, type PadStroke } from './drumVoice';
import type { SongClock } from './lfoVoice';
import type { PreparedSample } from '../sample/levels';
import type { Patch } from './patch';
import type { Shape } from './shape';

/** Voices that may ring at once; as many more exist so that each that is stolen can fade out. */
export const MAX_VOICES = 64;
const SPARE = MAX_VOICES;

const RETRIGGER_SECONDS = 0.008;
const STEAL_SECONDS = 0.003;

/** All strokes that ring, and the rules for which of them give way: pads that cut each other off, rings per pad, and the limit of the whole. */
export class VoicePool {
  readonly voices: DrumVoice[] = [];
  /** What hands and Moves do to the notes of each pad of each track while they are held. */
  private readonly held: Record<HeldControl, Float64Array> = {
    pressure: new Float64Array(MAX_TRACKS * PADS),
    bright: new Float64Array(MAX_TRACKS * PADS),
  };

  /** @param clock by which slow waves go */
  constructor(
    private readonly sampleRate: number,
    readonly clock: SongClock,
  ) {
    for (let i = 0; i < MAX_VOICES + SPARE; i++) this.voices.push(new DrumVoice(sampleRate));
  }

  /**
   * Starts a stroke at `frame`, making room for it first. Allocates nothing.
   * @param cutGroup the track's voices of this group are cut off; 0 for none
   * @param sample what the patch names, if it plays one
   */
  trigger(
    patch: Patch,
    stroke: PadStroke,
    cutGroup: number,
    frame: number,
    shape?: Shape,
    sample?: PreparedSample | null,
  ): DrumVoice {
    const voice = this.giveWay(patch, stroke, cutGroup, frame) ?? this.justBegun(frame);
    voice.start(patch, stroke, frame, this.clock, shape, sample);
    voice.cutGroup = cutGroup;
    if (patch.tone && shape) {
      const at = stroke.track * PADS + stroke.pad;
      this.held.pressure[at] = shape.pressure;
      this.held.bright[at] = shape.bright;
    }
    return voice;
  }

  /** Where a control of the notes of a pad is, in the control's range. */
  heldAt(control: HeldControl, track: number, pad: number): number {
    return this.held[control][track * PADS + pad]!;
  }

  /** All that a pad of a track plays is moved there from now on. */
  move(control: HeldControl, track: number, pad: number, value: number): void {
    this.held[control][track * PADS + pad] = value;
    for (const voice of this.voices) {
      if (voice.active && voice.track === track && voice.pad === pad) voice.move(control, value);
    }
  }

  /**
   * Ends a track's notes: those of one pad's key that is down (whose end is not known yet), or with -1 all of them.
   * @param end ends one
   */
  letGo(track: number, pad: number, end: (voice: DrumVoice) => void): void {
    for (const voice of this.voices) {
      if (!voice.active || !voice.held || voice.track !== track) continue;
      const ofKey = voice.key === pad && voice.offTick === Infinity && voice.offFrame === Infinity;
      if (pad < 0 || ofKey) end(voice);
    }
  }

  /** The voice of a track that plays one note at a time, while that is held; null: none is. */
  heldNote(track: number): DrumVoice | null {
    for (const voice of this.voices) {
      if (voice.active && voice.held && !voice.fading && voice.track === track && !Number.isNaN(voice.note))
        return voice;
    }
    return null;
  }

  /** Lets every voice of a track fade out quickly, or of all tracks with -1. */
  silence(track: number): void {
    for (const voice of this.voices) {
      if (voice.active && (track < 0 || voice.track === track)) voice.fadeOut(this.frames(RETRIGGER_SECONDS));
    }
  }

  /** Ends every voice on the spot: for when none is heard any more. */
  end(): void {
    for (const voice of this.voices) voice.active = false;
  }

  get ringing(): number {
    let count = 0;
    for (const voice of this.voices) if (voice.active) count++;
    return count;
  }

  ringingOn(track: number): number {
    let count = 0;
    for (const voice of this.voices) if (voice.active && voice.track === track) count++;
    return count;
  }

  /** Lets voices fade that a stroke ends. Returns the first that is free; one pass finds both, since chords trigger often. */
  private giveWay(patch: Patch, { track, pad }: PadStroke, cutGroup: number, frame: number): DrumVoice | null {
    let rings = 0;
    let ringing = 0;
    let free: DrumVoice | null = null;
    let oldestOfPad: DrumVoice | null = null;
    let oldest: DrumVoice | null = null;
    for (const voice of this.voices) {
      if (!voice.active) {
        free ??= voice;
        continue;
      }
      if (voice.fading) continue;
      if (cutGroup !== 0 && voice.cutGroup === cutGroup && voice.track === track) {
        // Of a note that began with this one nothing was heard yet.
        if (patch.tone && voice.startFrame === frame) voice.active = false;
        else voice.cutOff();
        continue;
      }
      ringing++;
      if (!oldest || voice.startFrame < oldest.startFrame) oldest = voice;
      if (voice.track === track && voice.pad === pad) {
        rings++;
        if (!oldestOfPad || voice.startFrame < oldestOfPad.startFrame) oldestOfPad = voice;
      }
    }
    if (oldestOfPad && rings >= patch.rings) oldestOfPad.fadeOut(this.frames(RETRIGGER_SECONDS));
    else if (oldest && ringing >= MAX_VOICES) oldest.fadeOut(this.frames(STEAL_SECONDS));
    return free;
  }

  /** When all voices are taken, one that has only just begun gives way: nothing of it was heard yet. */
  private justBegun(frame: number): DrumVoice {
    let last = this.voices[0]!;
    for (const voice of this.voices) if (voice.fading && voice.startFrame === frame) last = voice;
    return last;
  }

  private frames(seconds: number): number {
    return Math.max(1, Math.round(seconds * this.sampleRate));
  }
}
