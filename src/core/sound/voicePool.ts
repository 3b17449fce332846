import { MAX_TRACKS, PADS } from '../document/limits';
import type { HeldControl } from '../document/moves';
import { ByAge } from './byAge';
import { DrumVoice, type PadStroke } from './drumVoice';
import type { SongClock } from './lfoVoice';
import type { PreparedSample } from '../sample/levels';
import type { Patch } from './patch';
import { NONE, Ringing } from './ringing';
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

  /** Frame of the last look at all voices; NaN when they must be looked at anew. */
  private lookedAt = NaN;
  /** Those that rang then, and that began since. */
  private readonly byTrack: Ringing;
  /** Those that did not fade then; and how many do not now. */
  private readonly byAge: ByAge;
  private sounding = 0;
  /** All voices before this place were taken then, or are since. */
  private freeFrom = 0;

  /** @param clock by which slow waves go */
  constructor(
    private readonly sampleRate: number,
    readonly clock: SongClock,
  ) {
    for (let i = 0; i < MAX_VOICES + SPARE; i++) this.voices.push(new DrumVoice(sampleRate));
    this.byTrack = new Ringing(this.voices);
    this.byAge = new ByAge(this.voices);
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
    if (this.lookedAt !== frame) this.look(frame);
    const free = this.firstFree();
    this.giveWay(patch, stroke, cutGroup, frame);
    const place = free === NONE ? this.justBegun(frame) : free;
    const voice = this.voices[place]!;
    voice.start(patch, stroke, frame, this.clock, shape, sample);
    voice.cutGroup = cutGroup;
    if (free === NONE) this.lookedAt = NaN;
    else this.add(place);
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

  /** All that a pad of a track plays at a frame is moved there from now on. */
  move(control: HeldControl, track: number, pad: number, value: number, frame: number): void {
    this.held[control][track * PADS + pad] = value;
    if (this.lookedAt !== frame) this.look(frame);
    const { voices, byTrack } = this;
    for (let place = byTrack.first(track); place !== NONE; place = byTrack.next(place)) {
      const voice = voices[place]!;
      if (voice.active && voice.pad === pad) voice.move(control, value);
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

  /** The voice of a track that plays one note at a time, while that is held at a frame; null: none is. If several are, the first of the pool. */
  heldNote(track: number, frame: number): DrumVoice | null {
    if (this.lookedAt !== frame) this.look(frame);
    const { voices, byTrack } = this;
    let first = NONE;
    for (let place = byTrack.first(track); place !== NONE; place = byTrack.next(place)) {
      const { active, held, fading, note } = voices[place]!;
      if (active && held && !fading && !Number.isNaN(note) && (first === NONE || place < first)) first = place;
    }
    return first === NONE ? null : voices[first]!;
  }

  /** Lets every voice of a track fade out quickly, or of all tracks with -1. */
  silence(track: number): void {
    for (const voice of this.voices) {
      if (voice.active && (track < 0 || voice.track === track)) voice.fadeOut(this.frames(RETRIGGER_SECONDS));
    }
    this.lookedAt = NaN;
  }

  /** A note's key goes up. */
  release(voice: DrumVoice): void {
    voice.letGo();
    if (voice.fading) this.lookedAt = NaN;
  }

  /** Ends every voice on the spot: for when none is heard any more. */
  endAll(): void {
    for (const voice of this.voices) this.end(voice);
  }

  private end(voice: DrumVoice): void {
    voice.active = false;
    this.lookedAt = NaN;
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

  // --- room for a stroke ------------------------------------------------------------------------------------

  /** Looks at all voices: before the first of the strokes that fall on a frame. Until the next one they only fade, and begin here. */
  private look(frame: number): void {
    this.lookedAt = frame;
    this.byTrack.look();
    this.freeFrom = 0;
    this.sounding = this.byAge.look();
  }

  /** A voice has begun. */
  private add(place: number): void {
    this.byTrack.add(place);
    this.sounding++;
  }

  /** Place of the first voice of the pool that is free, or NONE. */
  private firstFree(): number {
    const { voices } = this;
    while (this.freeFrom < voices.length && voices[this.freeFrom]!.active) this.freeFrom++;
    return this.freeFrom < voices.length ? this.freeFrom : NONE;
  }

  /** Lets voices fade that a stroke ends. Only its track is looked through: chords trigger often. */
  private giveWay(patch: Patch, { track, pad }: PadStroke, cutGroup: number, frame: number): void {
    const { voices, byTrack } = this;
    let rings = 0;
    let oldest = NONE;
    for (let place = byTrack.first(track); place !== NONE; place = byTrack.next(place)) {
      const voice = voices[place]!;
      if (!voice.active || voice.fading) continue;
      if (cutGroup !== 0 && voice.cutGroup === cutGroup) {
        this.sounding--;
        // Of a note that began with this one nothing was heard yet.
        if (patch.tone && voice.startFrame === frame) this.end(voice);
        else voice.cutOff();
        continue;
      }
      if (voice.pad !== pad) continue;
      rings++;
      if (oldest === NONE || this.isOlder(place, oldest)) oldest = place;
    }
    if (oldest !== NONE && rings >= patch.rings) this.fade(voices[oldest]!, RETRIGGER_SECONDS);
    else if (this.sounding >= MAX_VOICES) this.fade(this.oldest(frame), STEAL_SECONDS);
  }

  /** Of voices that began at once the first of the pool counts as the oldest. */
  private isOlder(one: number, other: number): boolean {
    const before = this.voices[one]!.startFrame - this.voices[other]!.startFrame;
    return before < 0 || (before === 0 && one < other);
  }

  /** Where all others fade, those that have only just begun are left. */
  private oldest(frame: number): DrumVoice {
    const place = this.byAge.oldest(frame);
    return place !== NONE ? this.voices[place]! : this.voices.find(({ active, fading }) => active && !fading)!;
  }

  /** @param voice that rings, and does not fade yet */
  private fade(voice: DrumVoice, seconds: number): void {
    voice.fadeOut(this.frames(seconds));
    this.sounding--;
  }

  /** When all voices are taken, one that has only just begun gives way: nothing of it was heard yet. */
  private justBegun(frame: number): number {
    let last = 0;
    for (let place = 0; place < this.voices.length; place++) {
      const voice = this.voices[place]!;
      if (voice.fading && voice.startFrame === frame) last = place;
    }
    return last;
  }

  private frames(seconds: number): number {
    return Math.max(1, Math.round(seconds * this.sampleRate));
  }
}
