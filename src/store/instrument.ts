import { LiveHost } from '@/audio/liveHost';
import { LIMITER_LATENCY } from '@/core/sound/limiter';
import { nextTake } from '@/core/edit/takes';
import { SILENT } from '@/core/launch/launchState';
import { chainPlan, sectionPlans } from '@/core/launch/plans';
import { lanesOf } from '@/core/document/lanes';
import { MAX_HITS, nextHitId, PADS, type BeatSet, type Hit, type Pattern } from '@/core/document/set';
import { JustPlayed } from '@/core/record/justPlayed';
import { windowOf } from '@/core/sequence/loopWindow';
import { type Control } from '@/core/document/moves';
import { repeatTicks } from '@/core/sequence/repeatRates';
import { CHECK_CLICKS, LEAD_IN_CLICKS } from '@/core/time/latency';
import { ticksPerBar, ticksPerBeat } from '@/core/time/ticks';
import { AS_PLAYED } from '@/core/quantize/feel';
import { gridTicks } from '@/core/quantize/grid';
import { MoveRecorder } from './moveRecorder';
import { Performance } from './performance';
import { selectHeardSet, selectInputSnap, selectPattern, selectSet, selectTrack } from './selectors';
import { audioChanged, noticed, stepPressed, stepReleased, transportReported } from './sessionSlice';
import { gatesReported, hitRecorded, hitReleased, launchesReported, setOpened, stepEntered } from './setSlice';
import type { InputDevice } from './settingsSlice';
import type { RootState, Store } from './store';
import type { Instruction } from '@/core/protocol/commands';
import type { EngineEvent } from '@/core/protocol/events';
import {
  heardPadsInstruction,
  metronomeInstruction,
  movesInstruction,
  notesInstruction,
  patternInstruction,
  slotInstructions,
  trackInstructions,
  windowInstruction,
} from '@/core/protocol/fromDocument';

/**
 * The player's hands on the engine. It keeps the engine in step with the document, sends what is played, and brings
 * what the engine recorded back into the document.
 */
export class Instrument {
  readonly performance: Performance;
  /** Everything that hands played of late, armed or not. */
  readonly justPlayed = new JustPlayed();
  /** Times (ms, as `performance.now()`) at which the clicks of the running latency check are heard. */
  readonly checkClicks: number[] = [];
  private readonly host: LiveHost;
  private told: BeatSet | null = null;
  private lastHitId = 0;
  /** Serial of the engine's last recorded hit that the document has. */
  private seen = 0;
  private session = Date.now();
  private saidFull = 0;
  /** Numbers of the takes of this page, by recording, track and pass. */
  private readonly takes = new Map<string, number>();
  /** Note repeat as the engine was told it. */
  private repeatTold = '';
  private idsTold = 0;
  /** What plays on each channel, and its mute and solo, as the engine told it or was told. */
  private readonly plays = new Map<number, number>();
  private readonly gates = new Map<number, string>();
  private readonly moveRecorder: MoveRecorder;
  private readonly slides = new Array<number>(PADS).fill(0);

  constructor(private readonly store: Store) {
    this.host = new LiveHost(
      (state, problem) => {
        store.dispatch(audioChanged(state));
        if (problem) store.dispatch(noticed(problem));
      },
      (events) => this.takeAll(events),
    );
    this.moveRecorder = new MoveRecorder(store);
    this.performance = new Performance(
      (timeStamp) => this.host.engineFrameHeard(timeStamp),
      () => selectSet(store.getState()),
    );
  }

  /** Starts the sound engine and tells it the set; from then on it follows every change. */
  async start(): Promise<void> {
    await this.host.start();
    this.follow();
    this.store.subscribe(() => this.follow());
  }

  /** Call from any gesture: browsers give sound only to a page that was touched. */
  unlock(): void {
    this.host.unlock();
  }

  // --- playing ----------------------------------------------------------------------------------------------

  /**
   * @param velocity 0..1
   * @param timeStamp of the event, ms
   */
  padDown(pad: number, velocity: number, timeStamp: number, device: InputDevice): void {
    const heard = this.host.frameHeard(this.corrected(timeStamp, device));
    this.slide(pad, 0);
    this.host.send({ type: 'padDown', track: this.shown, pad, velocity, heard, id: this.nextId() });
    if (this.stepping) this.enterStep(pad, velocity);
  }

  padUp(pad: number, timeStamp: number, device: InputDevice): void {
    this.host.send({
      type: 'padUp',
      track: this.shown,
      pad,
      heard: this.host.frameHeard(this.corrected(timeStamp, device)),
    });
    const state = this.store.getState();
    if (state.session.step) this.store.dispatch(stepReleased({ pad, ...stepSize(state) }));
  }

  /** The finger on a held pad presses harder or softer, 0..1: what note repeat plays next. */
  padPress(pad: number, velocity: number): void {
    if (this.store.getState().session.repeat.on) this.host.send({ type: 'padPress', track: this.shown, pad, velocity });
  }

  /** The finger on a held pad has slid so many steps to faster rates of note repeat (below 0: slower). */
  slide(pad: number, steps: number): void {
    if (this.slides[pad] === steps) return;
    this.slides[pad] = steps;
    const state = this.store.getState();
    this.host.send({ type: 'repeatRate', track: this.shown, pad, ticks: this.repeatRate(state, pad) });
  }

  /**
   * A hand turns a control of a pad. While recording, its way is written into the pattern's Moves.
   * @param value in the control's range; NaN lets go, and the Moves have it again
   * @param timeStamp of the event, ms
   */
  turn(pad: number, control: Control, value: number, timeStamp: number): void {
    this.host.send({ type: 'turn', track: this.shown, pad, control, value });
    const { playing, recording } = this.performance.anchor;
    if (Number.isNaN(value)) this.moveRecorder.end();
    else if (playing && recording) {
      const tick = this.performance.positionAt(this.performance.tickHeard(timeStamp));
      this.moveRecorder.note(pad, control, tick, value);
    }
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
    this.host.send({ type: 'releaseAll' });
  }

  // --- transport --------------------------------------------------------------------------------------------

  /** Plays from where the song stands; when recording is armed, after the count-in and from the start of the bar. */
  play(): void {
    const { meter, countIn } = selectSet(this.store.getState());
    const { tick, recording } = this.performance.anchor;
    const bar = ticksPerBar(meter);
    if (recording && countIn > 0)
      this.host.send({ type: 'play', startTick: Math.floor(tick / bar) * bar, countInTicks: countIn * bar });
    else this.host.send({ type: 'play', startTick: tick, countInTicks: 0 });
  }

  /** Stops; when the song stands still already, goes back to its top. */
  stop(): void {
    this.host.send(this.performance.anchor.playing ? { type: 'stop' } : { type: 'locate', tick: 0 });
  }

  playOrStop(): void {
    if (this.performance.anchor.playing) this.stop();
    else this.play();
  }

  /** Tick 0 of the shown track's pattern lies at a song tick, so that a pattern just kept goes on where it was played. */
  launchAt(songTick: number): void {
    this.host.send({ type: 'phase', track: this.shown, tick: songTick });
  }

  /** Launching, stopping, muting, Lift: what `launching.ts` makes of what hands do. */
  perform(instruction: Instruction): void {
    this.host.send(instruction);
  }

  /** Begins a latency check: clicks at a steady pace, to be tapped along with. */
  startCheck(): void {
    this.checkClicks.length = 0;
    this.host.send({ type: 'stop' });
    this.host.send({ type: 'latencyCheck', clicks: LEAD_IN_CLICKS + CHECK_CLICKS });
  }

  stopCheck(): void {
    this.host.send({ type: 'latencyCheck', clicks: 0 });
  }

  toggleRecord(): void {
    const on = !this.performance.anchor.recording;
    if (on) this.session++;
    this.host.send({ type: 'record', on, session: this.session });
    // What is recorded must be heard.
    const track = selectTrack(this.store.getState());
    if (on && track.stopped)
      this.host.send({ type: 'launch', track: track.channel, slot: track.current, on: 0, inPlace: true });
  }

  // --- both ways --------------------------------------------------------------------------------------------

  private get shown(): number {
    return this.performance.shown;
  }

  /** One message of the engine's: all changes of what plays become one change of the document. */
  private takeAll(events: readonly EngineEvent[]): void {
    this.performance.takeAll(events);
    const launches = new Map<number, { channel: number; slot: number | null }>();
    const gates = new Map<number, { channel: number; mute: boolean; solo: boolean }>();
    for (const event of events) {
      if (event.kind === 'loop') {
        const { track: channel, slot } = event;
        this.plays.set(channel, slot);
        launches.set(channel, { channel, slot: slot === SILENT ? null : slot });
      } else if (event.kind === 'waiting') {
        const gate = { channel: event.track, mute: event.muted === 1, solo: event.soloed === 1 };
        this.gates.set(event.track, gateWord(gate.mute, gate.solo));
        gates.set(event.track, gate);
      } else this.take(event);
    }
    if (launches.size > 0) this.store.dispatch(launchesReported([...launches.values()]));
    if (gates.size > 0) this.store.dispatch(gatesReported([...gates.values()]));
  }

  private take(event: EngineEvent): void {
    switch (event.kind) {
      case 'anchor': {
        const { playing, recording, tick } = event;
        const { session } = this.store.getState();
        const awayFromTop = !playing && tick > 0;
        if (session.playing !== playing || session.recording !== recording || session.awayFromTop !== awayFromTop) {
          this.store.dispatch(transportReported({ playing, recording, awayFromTop }));
        }
        return;
      }
      case 'recorded': {
        this.seen = event.serial;
        const { track: channel, slot, id, pad, struck, velocity, snapGrid, length } = event;
        if (this.isFull(channel, slot)) return;
        const snap = snapGrid > 0 ? { grid: snapGrid, strength: 1 } : null;
        const group = `${event.session} ${channel} ${slot} ${event.pass}`;
        const take = this.takeNumber(channel, slot, group);
        const hit: Hit = { id, pad, tick: struck, length, velocity, snap, take };
        if (event.asPlayed) hit.feel = snap ?? AS_PLAYED;
        const pitch = this.handPitch(channel);
        if (pitch !== 0) hit.pitch = pitch;
        this.store.dispatch(hitRecorded({ channel, slot, hit, take: group }));
        return;
      }
      case 'sounded':
        if (event.live) this.remember(event);
        return;
      case 'checked': {
        const heardFrame = event.frame + LIMITER_LATENCY;
        const now = window.performance.now();
        const ago = (this.host.engineFrameHeard(now) - heardFrame) / this.host.sampleRate;
        this.checkClicks.push(now - ago * 1000);
        return;
      }
      case 'released':
        this.justPlayed.release(event.id, (event.frames / this.host.sampleRate) * 1000);
        this.store.dispatch(
          hitReleased({ channel: event.track, slot: event.slot, id: event.id, length: event.length }),
        );
        return;
    }
  }

  private remember({ id, track, pad, velocity, heard }: Extract<EngineEvent, { kind: 'sounded' }>): void {
    const bar = ticksPerBar(selectSet(this.store.getState()).meter);
    const songTick = this.performance.songTickAt(heard);
    // A count-in is for finding the beat, not for keeping.
    if (songTick !== null && songTick < this.performance.fromTick - bar / 32) return;
    const ms = (heard / this.host.sampleRate) * 1000;
    this.justPlayed.add({ id, track, pad, velocity, pitch: this.handPitch(track), ms, songTick, heldMs: 0 }, bar);
  }

  /** A pass is a take of the pattern it is recorded into; one that changes within it gets a take of its own. */
  private takeNumber(channel: number, slot: number, pass: string): number {
    const pattern = this.pattern(channel, slot);
    // Passes of another window are counted anew.
    const { start, length } = pattern ? windowOf(pattern) : { start: 0, length: 0 };
    const key = `${pass} ${start} ${length}`;
    const number = this.takes.get(key) ?? (pattern ? nextTake(pattern) : 1);
    this.takes.set(key, number);
    return number;
  }

  private corrected(timeStamp: number, device: InputDevice): number {
    return timeStamp - (this.store.getState().settings.latencyMs[device] ?? 0);
  }

  private get stepping(): boolean {
    const { step, playing, repeat } = this.store.getState().session;
    return step !== null && !playing && !repeat.on;
  }

  private enterStep(pad: number, velocity: number): void {
    const state = this.store.getState();
    if (this.isFull()) return;
    const { grid } = stepSize(state);
    const hit: Hit = {
      id: this.nextId(),
      pad,
      tick: state.session.step!.cursor,
      length: grid / 2,
      velocity,
      snap: selectInputSnap(state),
      ...(this.handPitch(this.shown) !== 0 && { pitch: this.handPitch(this.shown) }),
    };
    this.store.dispatch(stepEntered({ hit }));
    this.store.dispatch(stepPressed(pad));
  }

  private repeatRate(state: RootState, pad: number): number {
    const { sound } = lanesOf(selectTrack(state))[pad]!;
    return repeatTicks(sound, state.settings.repeatRate, this.slides[pad]!);
  }

  /** Semitones by which hands play a track's notes higher than they lie on its pads. */
  private handPitch(channel: number): number {
    const { tracks } = selectSet(this.store.getState());
    return 12 * (tracks.find((track) => track.channel === channel)?.tones?.octave ?? 0);
  }

  private pattern(channel: number, slot: number): Pattern | null {
    const track = selectSet(this.store.getState()).tracks.find((t) => t.channel === channel);
    return track?.patterns[slot] ?? null;
  }

  /** Tells the engine how note repeat is set. */
  private followRepeat(state: RootState): void {
    const { on, latch } = state.session.repeat;
    const told = `${on} ${latch} ${state.settings.repeatRate} ${selectTrack(state).kit} ${selectTrack(state).tones?.voice} ${selectSet(state).shown}`;
    if (told === this.repeatTold) return;
    this.repeatTold = told;
    for (let pad = 0; pad < PADS; pad++) {
      this.host.send({ type: 'repeatRate', track: this.shown, pad, ticks: this.repeatRate(state, pad) });
    }
    this.host.send({ type: 'noteRepeat', on, latch });
  }

  /** Whether the pattern holds all it can; says so once a recording. */
  isFull(channel = this.shown, slot = selectTrack(this.store.getState()).current): boolean {
    const pattern = this.pattern(channel, slot);
    if ((pattern?.hits.length ?? 0) < MAX_HITS) return false;
    if (this.saidFull !== this.session) {
      this.store.dispatch(noticed(`This pattern is full: it holds ${MAX_HITS} hits. New ones sound and are not kept.`));
    }
    this.saidFull = this.session;
    return true;
  }

  /** Tells the engine what is new in the document since it was last told. */
  private follow(): void {
    const state = this.store.getState();
    const { shown } = selectSet(state);
    if (shown !== this.performance.shown) {
      // What is held stays with the track that it was struck on: it is let go.
      this.releaseAll();
      this.performance.shown = shown;
    }
    this.followRepeat(state);
    const set = selectHeardSet(state);
    const before = this.told;
    if (set === before) return;
    this.told = set;
    for (const instruction of changes(before, set, this.seen, windowTicks(state))) this.host.send(instruction);
    this.followLaunches(set);
    // Undo may bring back hits with numbers that were given out before.
    const highest = nextHitId(selectSet(state)) - 1;
    this.lastHitId = Math.max(this.lastHitId, highest);
    if (highest > this.idsTold) this.host.send({ type: 'reserveIds', above: (this.idsTold = highest) });
  }

  /** The document may ask for what plays too: a slot that is opened, an undo. And the page's own launcher learns the set. */
  private followLaunches(set: BeatSet): void {
    const { launcher } = this.performance;
    launcher.sections = sectionPlans(set.sections);
    for (const track of set.tracks) {
      const { channel, mute, solo = false } = track;
      launcher.chains[channel] = chainPlan(track);
      const slot = track.stopped ? SILENT : track.current;
      if (this.plays.get(channel) !== slot) {
        this.plays.set(channel, slot);
        this.host.send({ type: 'launch', track: channel, slot, on: 0, inPlace: true });
      }
      const gate = gateWord(mute, solo);
      if ((this.gates.get(channel) ?? gateWord(false, false)) !== gate) {
        this.gates.set(channel, gate);
        this.host.send({ type: 'muteSolo', track: channel, mute: mute ? 1 : 0, solo: solo ? 1 : 0, on: 0 });
      }
    }
    for (const channel of this.plays.keys()) {
      if (set.tracks.some((track) => track.channel === channel)) continue;
      this.plays.delete(channel);
      this.gates.delete(channel);
    }
    this.performance.tellLaunch();
  }

  /** Puts another set in the place of this one, letting go of what is held. */
  open(set: BeatSet): void {
    this.releaseAll();
    this.host.send({ type: 'leaveSection' });
    this.store.dispatch(setOpened(set));
  }
}

/**
 * The instructions that bring an engine from one state of the document to another.
 * @param windowOn step of song ticks at whose next line a loop window that was moved takes over, 0 for at once
 */
export function changes(before: BeatSet | null, set: BeatSet, seen: number, windowOn = 0): Instruction[] {
  const out: Instruction[] = [];
  if (before?.tempo !== set.tempo) out.push({ type: 'tempo', bpm: set.tempo });
  if (before?.meter !== set.meter) out.push({ type: 'meter', beats: set.meter.beats, unit: set.meter.unit });
  if (before?.metronome !== set.metronome) out.push(metronomeInstruction(set.metronome));
  if (before?.inputQuantize !== set.inputQuantize) {
    out.push({ type: 'inputQuantize', grid: gridTicks(set.inputQuantize.grid), on: set.inputQuantize.on });
  }
  if (before?.sections !== set.sections) out.push({ type: 'sections', sections: sectionPlans(set.sections) });
  for (const { channel } of before?.tracks ?? []) {
    if (!set.tracks.some((track) => track.channel === channel))
      out.push({ type: 'removeTrack', track: channel }, { type: 'muteSolo', track: channel, mute: 0, solo: 0, on: 0 });
  }
  for (const track of set.tracks) {
    const { channel } = track;
    const old = before?.tracks.find((t) => t.channel === channel);
    if (track === old) continue;
    if (track.chain !== old?.chain) out.push({ type: 'chain', track: channel, chain: chainPlan(track) });
    if (!old) {
      out.push(...trackInstructions(channel, track));
      track.patterns.forEach((p, slot) => p && out.push(...slotInstructions({ track: channel, slot }, p, seen)));
      continue;
    }
    if (track.kit !== old.kit) out.push({ type: 'kit', track: channel, kit: track.kit });
    if (track.tones !== old.tones) out.push(notesInstruction(channel, track.tones));
    if (track.level !== old.level) out.push({ type: 'trackLevel', track: channel, level: track.level });
    if (track.mutedPads !== old.mutedPads || track.soloPads !== old.soloPads) {
      out.push(heardPadsInstruction(channel, track));
    }
    for (let slot = 0; slot < Math.max(track.patterns.length, old.patterns.length); slot++) {
      out.push(...slotChanges(channel, slot, old.patterns[slot] ?? null, track.patterns[slot] ?? null, seen, windowOn));
    }
  }
  return out;
}

function slotChanges(
  channel: number,
  slot: number,
  old: Pattern | null,
  pattern: Pattern | null,
  seen: number,
  windowOn: number,
): Instruction[] {
  if (pattern === old) return [];
  const out: Instruction[] = [];
  if (pattern?.hits !== old?.hits || !sameTreatment(pattern, old)) {
    out.push(patternInstruction({ track: channel, slot }, pattern, seen));
  }
  if (pattern?.window !== old?.window) {
    // Other hits bring their own window along; only one that was moved over the same tape waits.
    const sameTape = pattern?.hits === old?.hits && pattern?.length === old?.length;
    out.push(windowInstruction({ track: channel, slot }, pattern, sameTape ? windowOn : 0));
  }
  if (pattern?.moves !== old?.moves) out.push(movesInstruction({ track: channel, slot }, pattern));
  return out;
}

function gateWord(mute: boolean, solo: boolean): string {
  return `${mute} ${solo}`;
}

/** Whether what a pattern's hits become is the same as before. */
function sameTreatment(a: Pattern | null, b: Pattern | null): boolean {
  return a?.length === b?.length && a?.feel === b?.feel && a?.loudness === b?.loudness && a?.lanes === b?.lanes;
}

/** At which song ticks a loop window that was moved takes over: every so many, 0 for at once. */
function windowTicks(state: RootState): number {
  const { meter } = selectSet(state);
  const { windowOn } = state.settings;
  return windowOn === 'bar' ? ticksPerBar(meter) : windowOn === 'beat' ? ticksPerBeat(meter) : 0;
}

/** What step input moves by, and where its loop ends, in ticks. */
export function stepSize(state: RootState): { grid: number; length: number } {
  return { grid: gridTicks(selectSet(state).inputQuantize.grid), length: selectPattern(state)?.length ?? 1 };
}
