import { MAX_TRACKS, PADS } from '../document/limits';
import { WITH_TRACK } from '../document/mix';
import type { MixBus } from '../sound/mix/mixBus';
import type { Strip } from '../sound/mix/strip';
import { NONE, Ringing } from '../sound/ringing';
import type { VoicePool } from '../sound/voicePool';
import type { TrackTape } from './trackTape';
import type { VoiceEnds } from './voiceEnds';

/**
 * The sound of each track, before its level: its voices together, through its channel; and what of its pads goes to groups. It is rendered
 * here, or by another engine, and handed over on a tape.
 */
export class TrackSounds {
  /** Id of the only track that is heard; null: all are. */
  heard: number | null = null;
  /** What is written by this engine, or by another one and read by this. */
  private written: TrackTape | null = null;
  private read: TrackTape | null = null;
  /** What is found out for other renders, and what another one has found. */
  private learnt: VoiceEnds | null = null;
  private followed: VoiceEnds | null = null;
  /** The group that each pad of each track goes to, or WITH_TRACK; and which tracks have one that goes to any. */
  private readonly padGoesTo = new Int8Array(MAX_TRACKS * PADS).fill(WITH_TRACK);
  private readonly hasApart = new Uint8Array(MAX_TRACKS);
  private readonly ringing: Ringing;

  /** @param strips by track */
  constructor(
    private readonly pool: VoicePool,
    private readonly strips: readonly Strip[],
  ) {
    this.ringing = new Ringing(pool.voices);
  }

  // --- where pads go ----------------------------------------------------------------------------------------

  /** @param group that a pad goes to, or WITH_TRACK */
  send(track: number, pad: number, group: number): void {
    this.padGoesTo[track * PADS + pad] = group;
    const ofTrack = this.padGoesTo.subarray(track * PADS, (track + 1) * PADS);
    this.hasApart[track] = ofTrack.some((to) => to !== WITH_TRACK) ? 1 : 0;
  }

  trackRemoved(track: number): void {
    this.padGoesTo.fill(WITH_TRACK, track * PADS, (track + 1) * PADS);
    this.hasApart[track] = 0;
  }

  /** Whether pads of any track go to a group. */
  hasPadsFor(group: number): boolean {
    return this.padGoesTo.includes(group);
  }

  /** Whether pads of a track go to any group. */
  hasPadsApart(track: number): boolean {
    return this.hasApart[track] === 1;
  }

  // --- several engines --------------------------------------------------------------------------------------

  /** What is rendered from now on goes onto a tape. */
  writeTo(tape: TrackTape): void {
    this.written = tape;
  }

  /** From now on no voice is rendered: they are read as another engine has written them. */
  readFrom(tape: TrackTape): void {
    this.read = tape;
  }

  /** Which voices end when is noted from now on. */
  learnEnds(ends: VoiceEnds): void {
    this.learnt = ends;
  }

  /** From now on voices that are not heard end as it says, and are not rendered. */
  followEnds(ends: VoiceEnds): void {
    ends.rewind();
    this.followed = ends;
  }

  /** Whether the channel of a track is rendered by this engine: of three the one that writes takes one, so both are about as busy. */
  private treats(track: number): boolean {
    const isWriters = track % 3 === 0;
    return this.read === null ? this.written === null || isWriters : !isWriters;
  }

  // --- sound ------------------------------------------------------------------------------------------------

  /** Before each stretch: looks which voices ring. */
  beginStretch(): void {
    this.ringing.look();
  }

  /**
   * Renders a track but for its pads that go to groups.
   * @param bus that only the track is in afterwards
   * @param frames up to MAX_STRETCH
   * @param frame the engine's first of these
   * @returns whether anything sounds; if not, the bus stays as it was
   */
  render(bus: MixBus, track: number, frames: number, frame: number): boolean {
    const strip = this.strips[track]!;
    let sounds = this.bringVoices(bus, track, WITH_TRACK, frames);
    if (this.treats(track) && (sounds || strip.isAwake)) {
      if (!sounds) bus.clear(frames);
      strip.treat(bus, frames, frame);
      sounds = true;
    }
    this.written?.writeBus(sounds ? bus : null, frames);
    return sounds;
  }

  /** Renders the pads of a track that go to a group: they pass by its channel. See `render`. */
  renderApart(bus: MixBus, track: number, group: number, frames: number): boolean {
    const sounds = this.bringVoices(bus, track, group, frames);
    this.written?.writeBus(sounds ? bus : null, frames);
    return sounds;
  }

  /**
   * After each stretch: voices that have ended in the engine that renders them have ended in the others.
   * @param frame the engine's first one after it
   */
  endStretch(frame: number): void {
    if (this.read) this.endAsRead(this.read);
    if (this.followed) this.endAsLearnt(this.followed, frame);
    if (this.written || this.learnt) this.tellEnds(frame);
  }

  private bringVoices(bus: MixBus, track: number, group: number, frames: number): boolean {
    if (this.read) return this.read.readBus(bus, frames);
    if (this.followed && !this.isHeard(track)) return false;
    return this.ringing.on(track) > 0 && this.renderVoices(bus, track, group, frames);
  }

  private renderVoices(bus: MixBus, track: number, group: number, frames: number): boolean {
    const { voices, clock } = this.pool;
    let any = false;
    bus.clear(frames);
    for (let place = this.ringing.first(track); place !== NONE; place = this.ringing.next(place)) {
      const voice = voices[place]!;
      if (this.padGoesTo[track * PADS + voice.pad] !== group) continue;
      voice.render(bus, frames, clock);
      any = true;
    }
    // They go on, unheard.
    if (any && !this.isHeard(track)) bus.clear(frames);
    return any;
  }

  private isHeard(track: number): boolean {
    return this.heard === null || this.heard === track;
  }

  private tellEnds(frame: number): void {
    for (let track = 0; track < MAX_TRACKS; track++) {
      for (let place = this.ringing.first(track); place !== NONE; place = this.ringing.next(place)) {
        if (this.pool.voices[place]!.active) continue;
        this.written?.write(place);
        this.learnt?.note(frame, place);
      }
    }
    this.written?.write(NONE);
  }

  private endAsRead(tape: TrackTape): void {
    for (let place = tape.read(); place !== NONE; place = tape.read()) this.pool.voices[place]!.active = false;
  }

  private endAsLearnt(ends: VoiceEnds, frame: number): void {
    for (let place = ends.next(frame); place !== null; place = ends.next(frame)) {
      const voice = this.pool.voices[place]!;
      // Those that are heard end by themselves.
      if (!this.isHeard(voice.track)) voice.active = false;
    }
  }
}
