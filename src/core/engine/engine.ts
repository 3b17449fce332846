import { Launcher } from '../launch/launcher';
import { type CommandType, type Handlers, type Command } from '../protocol/commands';
import { MAX_STRETCH } from '../sound/stretch';
import { frameAt } from '../time/timeline';
import { CommandLog } from './commandLog';
import { Hands } from './hands';
import { HeardPads } from './heardPads';
import { LatencyCheck } from './latencyCheck';
import { LaunchControl } from './launchControl';
import { LoopWindows } from './loopWindows';
import { Metronome } from './metronome';
import { Mixer, type Tap } from './mixer';
import { MixMoves } from './mixMoves';
import { NoteRepeater } from './noteRepeater';
import { PadControls } from './padControls';
import type { FramePart, Part, TickPart } from './part';
import { PatternIntake } from './patternIntake';
import { PatternPlayback } from './patternPlayback';
import { HeldNotes } from './heldNotes';
import { Recorder } from './recorder';
import { Rolls } from './rolls';
import { SampleBank } from './sampleBank';
import { Snapshots } from './snapshots';
import { SoundRack } from './soundRack';
import { Striker } from './striker';
import { TrackRack } from './trackRack';
import type { TrackTape } from './trackTape';
import { Transport } from './transport';
import type { VoiceEnds } from './voiceEnds';
import { EventQueue } from '../protocol/events';

/** Frames between two `state` events. */
const STATE_EVERY = 2048;

/**
 * The instrument: it knows time, plays patterns, records hits and makes the sound. Commands go in, samples and events come
 * out. The same commands at the same frames give the same samples wherever it runs and however its output is cut into blocks.
 *
 * It owns the order of things and nothing else: each concept is a part in a file of its own.
 */
export class Engine {
  readonly events = new EventQueue();
  /** The commands that were applied, for whoever asks for them. */
  readonly log = new CommandLog();

  /** All parts, in the order in which they are told of each other's time. */
  private readonly parts: Part[] = [];
  private readonly transport: Transport;
  private readonly mixer: Mixer;
  private readonly striker: Striker;
  /**
   * Parts that act at a frame or at a song tick. At one frame the frame parts come first: a note ends before another begins
   * on its key, and hands come before the pattern, whose hit of the same pad gives way to them. At one tick the order of the
   * list holds: another pattern or window takes over before what is played on its first tick.
   */
  private readonly frameParts: readonly FramePart[];
  private readonly tickParts: readonly TickPart[];
  private readonly handlers: Handlers;

  /** In order of their frames. */
  private readonly pending: Command[] = [];
  /** Frame of the next thing that a part does. */
  private due = 0;
  /** Frame of the next `state` event. */
  private stateFrame: number;
  private readonly snapshots: Snapshots;

  /**
   * @param sampleRate frames per second
   * @param frame of the first sample, for one that goes on from the `snapshot` of another
   */
  constructor(
    readonly sampleRate: number,
    frame = 0,
  ) {
    const { events, parts } = this;
    const transport = new Transport(sampleRate, events, parts, frame);
    const rack = new TrackRack(transport, events);
    const sounds = new SoundRack(parts);
    const samples = new SampleBank();
    const heardPads = new HeardPads();
    const controls = new PadControls(rack, sounds);
    const striker = new Striker(sampleRate, transport, { rack, sounds, samples, controls, events });
    const heldNotes = new HeldNotes(transport, rack, controls, striker, events);
    const launcher = new Launcher({
      span: (track, slot) => rack.tracks[track]!.slots[slot]?.span ?? 0,
      start: (track, slot) => rack.tracks[track]!.slots[slot]?.start ?? 0,
      bar: () => transport.barTicks,
    });
    const launch = new LaunchControl(launcher, transport, rack, striker, events, parts);
    const windows = new LoopWindows(rack, transport, events);
    const recorder = new Recorder(transport, rack, sounds, launcher, events);
    const repeater = new NoteRepeater(transport, rack, sounds, controls, recorder, striker);
    const hands = new Hands(transport, rack, recorder, striker, repeater, events);
    const rolls = new Rolls(transport, rack, heardPads, striker);
    const others = { hands, recorder, repeater, heardPads, sounds };
    const playback = new PatternPlayback(transport, rack, striker, rolls, others);
    const metronome = new Metronome(sampleRate, transport);
    const check = new LatencyCheck(sampleRate, transport, metronome, events);
    const intake = new PatternIntake(rack, recorder, transport);
    const mixer = new Mixer(sampleRate, transport, launcher, striker.voices, metronome.click, events);
    const mixMoves = new MixMoves(transport, rack, mixer, striker, events);

    this.transport = transport;
    this.striker = striker;
    this.mixer = mixer;
    this.stateFrame = frame + STATE_EVERY;
    const states = {
      transport,
      launcher,
      rack,
      recorder,
      repeater,
      controls,
      hands,
      check,
      mixer,
      mixMoves,
      voices: striker.voices,
      also: striker.also,
    };
    this.snapshots = new Snapshots(states);
    this.frameParts = [striker, striker.also, repeater, check, heldNotes, mixMoves, mixer.meters];
    this.tickParts = [launch, windows, rolls, playback, metronome];
    parts.push(striker, striker.also, hands, repeater, check, launch, windows, rolls, playback, metronome);
    parts.push(recorder, intake, heardPads, controls, sounds, rack, heldNotes, mixMoves, mixer);
    // A command that no part handles does not compile.
    this.handlers = {
      ...transport.commands,
      ...launch.commands,
      ...windows.commands,
      ...intake.commands,
      ...recorder.commands,
      ...repeater.commands,
      ...hands.commands,
      ...striker.commands,
      ...controls.commands,
      ...heardPads.commands,
      ...sounds.commands,
      ...samples.commands,
      ...metronome.commands,
      ...check.commands,
      ...mixer.commands,
      ...mixMoves.commands,
      ...mixer.meters.commands,
      snapshot: ({ state }) => {
        if (state) this.snapshots.restore(state);
      },
      removeTrack: ({ track }) => {
        for (const part of parts) part.trackRemoved?.(track);
      },
    };
  }

  /** From the next sample on something else of the mix goes out: for stems. */
  hear(tap: Tap): void {
    this.mixer.hear(tap);
  }

  /** From the next sample on the tracks are rendered onto a tape, and nothing comes out: another engine mixes them (see `TrackTape`). */
  writeTracks(tape: TrackTape): void {
    this.mixer.writeTracks(tape);
  }

  /** From the next sample on the tracks come from the tape of an engine that was told the same. */
  readTracks(tape: TrackTape): void {
    this.mixer.readTracks(tape);
  }

  /** From the next sample on it is noted which voices end when, for `followEnds`. */
  learnEnds(ends: VoiceEnds): void {
    this.mixer.learnEnds(ends);
  }

  /**
   * From the next sample on voices that are not heard (see `hear`) are not rendered, and end as they did in an engine that was told the same
   * and began at the same frame.
   */
  followEnds(ends: VoiceEnds): void {
    this.mixer.followEnds(ends);
  }

  /** The next frame to be rendered. */
  get frame(): number {
    return this.transport.frame;
  }

  /** Voices that sound now, those fading out included. */
  get ringing(): number {
    return this.striker.voices.ringing;
  }

  /** How many of them are a track's. */
  ringingOn(track: number): number {
    return this.striker.voices.ringingOn(track);
  }

  /** Whether nothing sounds and the song stands still. */
  get isAtRest(): boolean {
    return !this.transport.playing && this.ringing === 0;
  }

  /** Takes a command, and the arrays that it brings. A frame that has passed, or NOW, means the next sample. */
  post(command: Command): void {
    const due: Command = { ...command, frame: Math.max(command.frame, this.frame) };
    let i = this.pending.length;
    while (i > 0 && this.pending[i - 1]!.frame > due.frame) i--;
    this.pending.splice(i, 0, due);
  }

  /** Renders the next `frames` samples into both outputs, from index `offset`. */
  process(outLeft: Float32Array, outRight: Float32Array, frames = outLeft.length, offset = 0): void {
    let done = 0;
    while (done < frames) {
      const n = Math.min(frames - done, MAX_STRETCH, this.playHere() - this.frame);
      this.mixer.render(outLeft, outRight, offset + done, n);
      this.advance(n);
      done += n;
    }
  }

  /**
   * Goes on by `frames` without making any sound: for those who only want to know what happens, many times faster than
   * `process`. What it sounds like afterwards is not what it would have been.
   */
  skim(frames: number): void {
    const { striker, transport } = this;
    const end = this.frame + frames;
    striker.isSilent = true;
    // Nobody asks how loud it is.
    this.stateFrame = Infinity;
    while (this.frame < end) transport.frame = Math.min(end, this.playHere());
    striker.isSilent = false;
    this.stateFrame = end + STATE_EVERY;
  }

  /** Plays what is due at this frame. Returns the next frame at which anything is. */
  private playHere(): number {
    if (this.due <= this.frame) this.playDue();
    if (this.nextCommand <= this.frame) this.applyCommands();
    return Math.min(this.due, this.nextCommand, this.stateFrame);
  }

  private advance(frames: number): void {
    this.transport.frame += frames;
    if (this.frame === this.stateFrame) this.reportState();
  }

  private get nextCommand(): number {
    return this.pending.length > 0 ? this.pending[0]!.frame : Infinity;
  }

  /** Applies all commands of this frame. What is due at it has been played before, and is not played again. */
  private applyCommands(): void {
    for (const part of this.parts) part.passBy?.();
    while (this.nextCommand <= this.frame) {
      const command = this.pending.shift()!;
      this.note(command);
      this.apply(command);
    }
    this.playDue();
  }

  private note(command: Command): void {
    // Who looks at the meters changes nothing that is heard.
    if (command.type === 'meters') return;
    if (command.type !== 'snapshot') this.log.note(command);
    else if (this.log.isKept && this.snapshots.isResting) this.log.note({ ...command, state: this.snapshots.take() });
  }

  private apply<T extends CommandType>(command: Command<T>): void {
    const handle = this.handlers[command.type as T] as (command: Command<T>) => void;
    handle(command);
  }

  /** Lets the parts do all that is due at this frame, and notes the frame of what comes next. Only commands can change that. */
  private playDue(): void {
    do this.due = this.playNext();
    while (this.due <= this.frame);
  }

  /** Lets the first part act if it is due. Returns the frame of what comes next, or of what was done. */
  private playNext(): number {
    const { frame } = this;
    let next = Infinity;
    for (const part of this.frameParts) {
      const at = part.nextFrame();
      if (at <= frame) {
        part.playFrame();
        return at;
      }
      if (at < next) next = at;
    }
    let first: TickPart | null = null;
    let tick = Infinity;
    for (const part of this.tickParts) {
      const at = part.nextTick();
      if (at >= tick) continue;
      tick = at;
      first = part;
    }
    if (!first) return next;
    const at = frameAt(this.transport.now, tick);
    if (at <= frame) first.playTick(tick);
    return Math.min(next, at);
  }

  private reportState(): void {
    this.stateFrame += STATE_EVERY;
    const event = this.events.add('state', this.frame);
    event.tick = this.transport.songTick;
    event.voices = this.ringing;
    event.peak = this.mixer.peak;
    event.resting = this.snapshots.isResting;
    this.mixer.peak = 0;
  }
}
