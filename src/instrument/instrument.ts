import { LiveHost } from '@/audio/liveHost';
import type { PatternPlace } from '@/core/document/pattern';
import { nextHitId, type OpenSet } from '@/core/document/set';
import { trackStage } from '@/core/document/stage';
import { LIMITER_LATENCY } from '@/core/sound/limiter';
import type { Command, Instruction, Sent } from '@/core/protocol/commands';
import type { EngineEvent } from '@/core/protocol/events';
import { JustPlayed } from '@/core/record/justPlayed';
import { addTap, tappedTempo } from '@/core/time/tempo';
import { ticksPerBar } from '@/core/time/ticks';
import { setOpened } from '@/store/openSlice';
import { selectHeardSet, selectPlace, selectSet, selectShown, selectStage } from '@/store/selectors';
import { audioChanged, transportReported } from '@/store/sessionSlice';
import type { InputDevice } from '@/store/settingsSlice';
import { stageReported } from '@/store/stageSlice';
import type { RootState, Store } from '@/store/store';
import { tempoSet } from '@/store/timeSlice';
import { DocumentFollower } from './documentFollower';
import type { EngineHost, MakeHost } from './engineHost';
import { Functions } from './functions/functions';
import { GesturePlaces } from './gesturePlaces';
import { Hands, type HandPress } from './hands';
import { Meters } from './meters';
import { LatencyClicks } from './latencyClicks';
import { Outbox } from './outbox';
import { Performance } from './performance';
import { placesPlayed } from './placesPlayed';
import { RecordedHits } from './recordedHits';
import { RepeatFollower } from './repeatFollower';
import { Rides } from './rides';
import { RunCapture } from './runCapture';
import { SampleFollower, type FindSample } from './sampleFollower';
import { StageFollower } from './stageFollower';
import { windowTicks } from './windowTicks';

/** Hears what the engine told in one message. */
export type OnTold = (events: readonly EngineEvent[]) => void;

/**
 * The player's hands on the engine: pads, controls and transport. It keeps engine and document together by its followers,
 * and sends what is played.
 */
export class Instrument {
  readonly performance: Performance;
  /** Everything that hands played of late, armed or not. */
  readonly justPlayed = new JustPlayed();
  readonly latencyClicks: LatencyClicks;
  readonly runs: RunCapture;
  readonly hands: Hands;
  readonly rides: Rides;
  readonly meters: Meters;
  /** All that keys and controllers can work. */
  readonly functions: Functions;
  private readonly toldListeners = new Set<OnTold>();
  private openPlace: (place: string) => void = () => undefined;
  private readonly host: EngineHost;
  private readonly outbox: Outbox;
  private document!: DocumentFollower;
  private samples?: SampleFollower;
  private stage!: StageFollower;
  private repeat!: RepeatFollower;
  private readonly recorded: RecordedHits;
  private readonly gestures = new GesturePlaces();
  /** Names the recording that goes on. */
  private session = Date.now();
  private taps: number[] = [];
  private lastHitId = 0;
  private idsTold = 0;
  /** What the engine was told last. */
  private followed: OpenSet | null = null;
  /** Within one message of the engine's the document changes more than once, and is followed at its end. */
  private isTaking = false;

  constructor(
    private readonly store: Store,
    makeHost: MakeHost = (...listeners) => new LiveHost(...listeners),
    private readonly findSample: FindSample = () => Promise.resolve(null),
  ) {
    this.host = makeHost(
      (state, problem) => {
        store.dispatch(audioChanged({ state, problem: problem ?? null }));
        // Nothing sounds: the song stands where it was heard last.
        if (state === 'failed') this.halt();
      },
      (events, log) => this.take(events, log),
    );
    this.outbox = new Outbox(this.host);
    this.runs = new RunCapture(store, this.host, () => this.document.isTold);
    this.latencyClicks = new LatencyClicks(this.host);
    this.meetEngine();
    this.recorded = new RecordedHits(store);
    this.performance = new Performance(
      (timeStamp) => this.host.engineFrameHeard(timeStamp),
      () => selectSet(store.getState()),
    );
    this.rides = new Rides(store, this.performance, (instruction) => this.send(instruction));
    this.hands = new Hands(store, {
      send: (...sent) => this.send(...sent),
      frameHeard: (timeStamp) => this.host.frameHeard(timeStamp),
      framesIn: (ms) => Math.round((ms * this.host.sampleRate) / 1000),
      nextId: () => this.nextId(),
      isFull: (place) => this.isFull(place),
      keys: this.rides,
    });
    this.meters = new Meters((instruction) => this.send(instruction));
    this.functions = new Functions({ store, instrument: this, openPlace: (place) => this.openPlace(place) });
  }

  /** Starts the sound engine and tells it the set; from then on it follows every change. */
  async start(): Promise<void> {
    await this.host.start();
    this.outbox.release(() => this.follow());
    this.store.subscribe(() => this.follow());
  }

  /** Starts another engine in the place of one that failed: it gets the set, and stands where the song stood. */
  async restart(): Promise<void> {
    this.halt();
    this.outbox.hold({ type: 'locate', tick: this.performance.anchor.tick });
    this.performance.forget();
    await this.host.restart();
    // Not before: what changes while it starts is told to nobody.
    this.meetEngine();
    this.outbox.release(() => this.follow());
    this.meters.restart();
  }

  private halt(): void {
    const tick = Math.max(0, this.performance.tickNow);
    this.performance.halt(tick);
    this.store.dispatch(transportReported({ playing: false, recording: false, awayFromTop: tick > 0 }));
  }

  /** What follows the document begins with an engine that knows nothing. */
  private meetEngine(): void {
    this.runs.meetEngine();
    this.document = new DocumentFollower((instructions) => this.host.sendAll(instructions));
    this.stage = new StageFollower();
    this.samples?.end();
    this.samples = new SampleFollower(this.store, this.findSample, (instruction) => this.send(instruction));
    this.repeat = new RepeatFollower((instructions) => this.host.sendAll(instructions));
    this.followed = null;
    this.idsTold = 0;
  }

  /** Calls back when the engine has told something: at a steady pace, too, while nothing happens. @returns ends it */
  onTold(listener: OnTold): () => void {
    this.toldListeners.add(listener);
    return () => void this.toldListeners.delete(listener);
  }

  /** Whoever has a screen says how a place of it is opened. */
  onPlace(open: (place: string) => void): void {
    this.openPlace = open;
  }

  /** A sample that was missing may be on this device now. */
  lookForSamples(): void {
    this.samples?.follow(selectHeardSet(this.state));
  }

  /** Call from any gesture: browsers give sound only to a page that was touched. */
  unlock(): void {
    this.host.unlock();
  }

  // --- playing ----------------------------------------------------------------------------------------------

  /**
   * @param velocity 0..1
   * @param timeStamp of the event, ms; `pitch` in semitones from the pad's own note
   */
  padDown(pad: number, velocity: number, timeStamp: number, device: InputDevice, pitch = 0): void {
    this.slide(pad, 0);
    this.hands.strike({ track: this.shown, pad, velocity, at: this.corrected(timeStamp, device), pitch });
  }

  padUp(pad: number, timeStamp: number, device: InputDevice): void {
    this.hands.letGo({ track: this.shown, pad, at: this.corrected(timeStamp, device) });
  }

  /** The finger on a held pad presses harder or softer, or slides: see `HandPress`. */
  padPress(
    pad: number,
    press: Pick<HandPress, 'velocity' | 'pressure' | 'aside'>,
    timeStamp: number,
    device: InputDevice,
  ): void {
    this.hands.press({ ...press, track: this.shown, pad, at: this.corrected(timeStamp, device) });
  }

  /** The finger on a held pad has slid so many steps to faster rates of note repeat (below 0: slower). */
  slide(pad: number, steps: number): void {
    this.repeat.slide(this.state, pad, steps);
  }

  /** An id that no hit has: odd, since the engine gives even ones to the hits of note repeat. */
  nextId(): number {
    return (this.lastHitId += this.lastHitId % 2 === 0 ? 1 : 2);
  }

  /** Sets so many ids aside; returns the first: every second number from there on is free. */
  reserveIds(count: number): number {
    const first = this.nextId();
    this.lastHitId += 2 * Math.max(0, count - 1);
    return first;
  }

  /** Lets go of everything, as when the page loses the keyboard. */
  releaseAll(): void {
    this.hands.releaseAll();
  }

  /** Where an edit belongs: the pattern that is shown, or of a gesture the one on which it began. */
  placeOf(gesture?: string): PatternPlace {
    return this.gestures.placeOf(gesture, selectPlace(this.state));
  }

  /** Whether the pattern holds all it can; says so once a recording. */
  isFull(place: PatternPlace): boolean {
    return this.recorded.isFull(place, this.session);
  }

  /** The tempo follows taps, by the time stamps (ms) of their presses. */
  tapTempo(timeStamp: number): void {
    this.taps = addTap(this.taps, timeStamp);
    const bpm = tappedTempo(this.taps);
    if (bpm !== null) this.store.dispatch(tempoSet(bpm));
  }

  /** Everything that is held is let go: pads, and controls. */
  panic(): void {
    this.releaseAll();
    this.rides.letGoOfAll();
  }

  // --- transport --------------------------------------------------------------------------------------------

  /** Plays from where the song stands; when recording is armed, after the count-in and from the start of the bar. */
  play(): void {
    const { meter, countIn } = selectSet(this.state);
    const { tick, recording } = this.performance.anchor;
    const bar = ticksPerBar(meter);
    if (this.outbox.records(recording) && countIn > 0) {
      this.send({ type: 'play', startTick: Math.floor(tick / bar) * bar, countInTicks: countIn * bar });
    } else this.send({ type: 'play', startTick: tick, countInTicks: 0 });
  }

  /** When what the engine makes at a frame is heard, ms on the clock of `performance.now()`. */
  timeHeard(frame: number): number {
    return this.host.timeHeard(frame + LIMITER_LATENCY);
  }

  /** The song goes so many times faster than its tempo, for as long as it is told so. */
  bendTempo(ratio: number): void {
    this.send({ type: 'tempoBend', ratio });
  }

  /** Plays from a song tick, without a count-in. */
  playFrom(tick: number): void {
    this.send({ type: 'locate', tick }, { type: 'play', startTick: tick, countInTicks: 0 });
  }

  /** Stops; when the song stands still already, goes back to its top. */
  stop(): void {
    this.send(this.performance.anchor.playing ? { type: 'stop' } : { type: 'locate', tick: 0 });
  }

  /** Stops, takes recording back and goes to the top. */
  rest(): void {
    this.send({ type: 'stop' }, { type: 'record', on: false, session: this.session }, { type: 'locate', tick: 0 });
  }

  playOrStop(): void {
    if (this.performance.anchor.playing) this.stop();
    else this.play();
  }

  toggleRecord(): void {
    const on = !this.outbox.records(this.performance.anchor.recording);
    if (on) this.session++;
    this.send({ type: 'record', on, session: this.session });
    // What is recorded must be heard.
    const { stopped, slot } = trackStage(selectStage(this.state), this.shown);
    if (on && stopped) this.perform({ type: 'launch', track: this.shown, slot, on: 0, inPlace: true });
  }

  /** Tick 0 of what plays on a track lies at a song tick, so that a pattern just kept goes on where it was played. */
  launchAt(track: number, songTick: number): void {
    this.send({ type: 'phase', track, tick: songTick });
  }

  /** Launching, stopping, muting, Lift, all at one frame: what `launches.ts` makes of what hands do. What is to play is told first. */
  perform(...instructions: Instruction[]): void {
    this.document.tellFirst(instructions.flatMap((instruction) => placesPlayed(selectSet(this.state), instruction)));
    this.send(...instructions);
  }

  /** Puts another set in the place of this one, letting go of what is held. */
  open(opened: OpenSet): void {
    this.hands.releaseAll();
    this.send({ type: 'leaveSection' });
    this.store.dispatch(setOpened(opened));
  }

  // --- both ways --------------------------------------------------------------------------------------------

  private get state(): RootState {
    return this.store.getState();
  }

  private get shown(): number {
    return this.performance.shown;
  }

  private send(...instructions: Sent[]): void {
    this.outbox.send(...instructions);
  }

  /** Tells the engine what is new in the document and on the stage since it was last told. */
  private follow(): void {
    if (this.isTaking) return;
    const { state } = this;
    const shown = selectShown(state);
    if (shown !== this.performance.shown) {
      // What is held stays with the track that it was struck on: it is let go.
      this.releaseAll();
      this.performance.shown = shown;
    }
    this.repeat.follow(state);
    const set = selectHeardSet(state);
    const stage = selectStage(state);
    if (set === this.followed?.set && stage === this.followed.stage) return;
    this.followed = { set, stage };
    this.samples?.follow(set);
    this.document.follow(set, stage, windowTicks(state));
    this.host.sendAll(this.stage.follow(set, stage));
    this.performance.followDocument(set);
    // Undo may bring back hits with numbers that were given out before.
    const highest = nextHitId(selectSet(state)) - 1;
    this.lastHitId = Math.max(this.lastHitId, highest);
    if (highest > this.idsTold) this.send({ type: 'reserveIds', above: (this.idsTold = highest) });
  }

  /** One message of the engine's: all that it recorded and all changes of what plays become one change each. */
  private take(events: readonly EngineEvent[], log: readonly Command[]): void {
    this.isTaking = true;
    this.performance.takeAll(events);
    this.meters.take(events);
    for (const event of events) this.takeOne(event);
    this.recorded.take(events);
    const reports = this.stage.reports(events);
    if (reports.length > 0) this.store.dispatch(stageReported(reports));
    this.isTaking = false;
    this.follow();
    this.document.followOn();
    this.rides.follow(performance.now());
    this.runs.take(events, log);
    for (const listener of this.toldListeners) listener(events);
  }

  private takeOne(event: EngineEvent): void {
    switch (event.kind) {
      case 'anchor':
        return this.reportTransport(event);
      case 'recorded':
        return this.document.recorded(event);
      case 'released':
        this.justPlayed.release(event.id, (event.frames / this.host.sampleRate) * 1000);
        return this.document.released(event);
      case 'sounded':
        return event.live ? this.remember(event) : undefined;
      case 'checked':
        return this.latencyClicks.clicked(event.frame);
    }
  }

  private reportTransport({ playing, recording, tick }: Extract<EngineEvent, { kind: 'anchor' }>): void {
    const { session } = this.state;
    const awayFromTop = !playing && tick > 0;
    this.outbox.recordingTold(recording);
    if (session.recording && !recording) this.rides.recordingEnds();
    if (session.playing !== playing || session.recording !== recording || session.awayFromTop !== awayFromTop) {
      this.store.dispatch(transportReported({ playing, recording, awayFromTop }));
    }
  }

  private remember({ id, track, pad, velocity, pitch, heard }: Extract<EngineEvent, { kind: 'sounded' }>): void {
    const bar = ticksPerBar(selectSet(this.state).meter);
    const songTick = this.performance.songTickAt(heard);
    // A count-in is for finding the beat, not for keeping.
    if (songTick !== null && songTick < this.performance.fromTick - bar / 32) return;
    const ms = (heard / this.host.sampleRate) * 1000;
    this.justPlayed.add({ id, track, pad, velocity, pitch, ms, songTick, heldMs: 0 }, bar);
  }

  private corrected(timeStamp: number, device: InputDevice): number {
    return timeStamp - (this.state.settings.latencyMs[device] ?? 0);
  }
}
