import type { Handlers } from '../protocol/commands';
import type { EngineState } from '../protocol/engineState';
import { framesPerTick, SAME_TICKS, ticksPerBar, type Meter } from '../time/ticks';
import { anchorLike, atTempo, tickAt, Timeline, type Anchor } from '../time/timeline';
import type { Part } from './part';
import type { EventQueue } from '../protocol/events';

/** Where the song is, how fast it goes, and how far it was played. */
export class Transport implements Part {
  /** The next frame to be rendered. */
  frame: number;
  meter: Meter = { beats: 4, unit: 4 };
  /** Where the count-in ends and the patterns begin. */
  fromTick = 0;
  /** Frame at which the song was started last. */
  startFrame = 0;
  /** Names the recording in the events of its hits. */
  session = 0;
  /** Song ticks up to which patterns were played. */
  playedThrough = -1;
  readonly timeline: Timeline;
  /** Time while the song stands still, for note repeat: tick 0 is its first press. */
  private standing: Anchor;
  private bpm = 120;
  private bend = 1;

  /**
   * @param parts told when the song starts and stops
   * @param frame of the first sample
   */
  constructor(
    private readonly sampleRate: number,
    private readonly events: EventQueue,
    private readonly parts: readonly Part[],
    frame: number,
  ) {
    this.frame = frame;
    const perTick = framesPerTick(this.bpm, sampleRate);
    const start = { frame, tick: 0, framesPerTick: perTick, playing: false, recording: false };
    this.standing = anchorLike(start, { playing: true });
    this.timeline = new Timeline(start);
  }

  readonly commands: Handlers<'play' | 'stop' | 'locate' | 'tempo' | 'tempoBend' | 'meter' | 'record'> = {
    play: ({ startTick, countInTicks }) => this.play(startTick, countInTicks),
    stop: () => this.stop(),
    locate: ({ tick }) => {
      if (!this.playing) this.lay({ tick });
    },
    tempo: ({ bpm }) => {
      this.bpm = bpm;
      this.changeTempo();
    },
    tempoBend: ({ ratio }) => {
      this.bend = ratio;
      this.changeTempo();
    },
    meter: ({ beats, unit }) => {
      this.meter = { beats, unit };
    },
    record: ({ on, session }) => {
      this.session = session;
      this.lay({ tick: this.songTick, recording: on });
    },
  };

  get now(): Anchor {
    return this.timeline.now;
  }

  get playing(): boolean {
    return this.now.playing;
  }

  get songTick(): number {
    return tickAt(this.now, this.frame);
  }

  get barTicks(): number {
    return ticksPerBar(this.meter);
  }

  get inCountIn(): boolean {
    return this.playing && this.songTick < this.fromTick;
  }

  /** What note repeat counts its lines on. */
  get repeatClock(): Anchor {
    return this.playing ? this.now : this.standing;
  }

  /** Frames of so many ticks while the song stands still. */
  standingFrames(ticks: number): number {
    return Math.round(ticks * this.standing.framesPerTick);
  }

  /** The time of note repeat begins anew, while the song stands still. */
  restartStanding(): void {
    this.standing = anchorLike(this.standing, { frame: this.frame, tick: 0 });
  }

  /** The first song tick that has not been played yet: where what is launched at once begins. */
  get launchTick(): number {
    const { songTick } = this;
    return this.playing ? Math.max(songTick, this.fromTick, this.playedThrough + 2 * SAME_TICKS) : songTick;
  }

  /** While the song stands still: where, and all that the document does not say. */
  get data(): EngineState['transport'] {
    const { bpm, bend, fromTick, playedThrough, session } = this;
    const { tick, framesPerTick: perTick, recording } = this.now;
    return { tick, framesPerTick: perTick, recording, bpm, bend, fromTick, playedThrough, session };
  }

  /** Takes over where another song stood. */
  takeData(data: EngineState['transport']): void {
    this.bpm = data.bpm;
    this.bend = data.bend;
    this.fromTick = data.fromTick;
    this.playedThrough = data.playedThrough;
    this.session = data.session;
    const { tick, framesPerTick: perTick, recording } = data;
    this.standing = anchorLike(this.standing, { frame: this.frame, tick: 0, framesPerTick: perTick });
    this.lay({ tick, framesPerTick: perTick, recording });
  }

  /** Counts every tick up to this frame as played, so that a hit that is recorded or drawn there waits for its next pass. */
  passBy(): void {
    if (this.playing) this.playThrough(tickAt(this.now, this.frame + 0.5));
  }

  /** Counts every tick before this one as played. */
  playThrough(tick: number): void {
    const through = tick - 2 * SAME_TICKS;
    if (through > this.playedThrough) this.playedThrough = through;
  }

  private play(fromTick: number, countInTicks: number): void {
    if (this.playing) return;
    const startTick = fromTick - countInTicks;
    this.fromTick = fromTick;
    this.startFrame = this.frame;
    this.playedThrough = fromTick - 2 * SAME_TICKS; // the start itself is still to be played
    for (const part of this.parts) part.songStarts?.(startTick, fromTick);
    const perTick = framesPerTick(this.bpm * this.bend, this.sampleRate);
    this.lay({ tick: startTick, framesPerTick: perTick, playing: true });
  }

  private stop(): void {
    if (!this.playing) return;
    const tick = this.songTick;
    for (const part of this.parts) part.songStops?.(tick);
    // Stopped within the count-in, nothing was played yet: the song stands where it was to begin.
    this.lay({ tick: Math.max(tick, this.fromTick), playing: false, recording: false });
  }

  private changeTempo(): void {
    const bpm = this.bpm * this.bend;
    this.standing = atTempo(this.standing, this.frame, bpm, this.sampleRate);
    this.lay(atTempo(this.now, this.frame, bpm, this.sampleRate));
  }

  /** A new piece of the song's time begins here. */
  private lay(changed: Partial<Anchor>): void {
    this.timeline.push(anchorLike(this.now, { frame: this.frame, ...changed }));
    const { tick, framesPerTick: perTick, playing, recording } = this.now;
    const event = this.events.add('anchor', this.now.frame);
    event.tick = tick;
    event.framesPerTick = perTick;
    event.playing = playing;
    event.recording = recording;
    event.fromTick = this.fromTick;
  }
}
