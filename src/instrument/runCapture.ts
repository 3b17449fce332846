import { nanoid } from '@reduxjs/toolkit';
import { SOUND, type CapturedRun, type Run } from '@/core/document/run';
import type { BeatSet } from '@/core/document/set';
import type { Stage } from '@/core/document/stage';
import type { Command, Instruction } from '@/core/protocol/commands';
import type { EngineEvent } from '@/core/protocol/events';
import type { PerformedLog, RunListener } from '@/core/protocol/performedLog';
import { framesPerTick, ticksPerBar } from '@/core/time/ticks';
import { selectHeardSet, selectSet, selectStage } from '@/store/selectors';
import type { Store } from '@/store/store';
import type { EngineHost } from './engineHost';

/** A run that was left alone ends so many bars after its last sound. */
const QUIET_BARS = 8;
/** While nothing sounds, edits go into the log; with so many of them it begins anew. */
const MOST_IDLE = 200;

/**
 * Captures every performance: a log of all that the engine is told begins whenever it rests, and a run with the first sound. A run
 * ends when the song is stopped, or eight bars after its last sound.
 */
export class RunCapture {
  private readonly listeners = new Set<RunListener>();
  /** What was known when the engine was asked to note its state last, by the number of the asking; and when that was. */
  private asked: { id: number; set: BeatSet; stage: Stage } | null = null;
  private asking = 0;
  private askedFrame = -Infinity;
  /** The contents of patterns that were sent, by revision: the engine's log only names them. */
  private readonly contents = new Map<number, Instruction>();
  private log: PerformedLog | null = null;
  /** Whether a run has begun in the log. */
  private isUsed = false;
  private run: CapturedRun | null = null;
  private lastSound = 0;
  private bpm = 120;
  private isPlaying = false;
  private named = { time: '', count: 0 };

  /**
   * @param host what it sends is overheard
   * @param isTold whether the engine knows all of the document
   */
  constructor(
    private readonly store: Store,
    private readonly host: EngineHost,
    private readonly isTold: () => boolean,
  ) {
    const sendAll = host.sendAll.bind(host);
    host.sendAll = (instructions) => {
      this.keepContents(instructions);
      sendAll(instructions);
    };
  }

  /** Asks to be told of runs. Returns what ends it. */
  onRun(listener: RunListener): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** Another engine begins: what the last one played is over. */
  meetEngine(): void {
    if (this.run) this.end(this.lastSound);
    this.asked = this.log = null;
    this.askedFrame = -Infinity;
    this.contents.clear();
  }

  /** One message of the engine's. */
  take(events: readonly EngineEvent[], commands: readonly Command[]): void {
    for (const command of commands) this.applied(command);
    for (const event of events) this.heard(event);
    if (this.run) this.tell(false);
  }

  private applied(command: Command): void {
    if (command.type === 'snapshot') return this.begin(command);
    const contents = this.takeContents(command);
    if (!this.log) return;
    this.log.commands.push(contents ? ({ ...contents, frame: command.frame } as Command) : command);
    if (this.run && (command.type === 'launch' || command.type === 'launchSection')) this.run.launches++;
  }

  /** The engine has noted its state: the log begins. */
  private begin(snapshot: Command<'snapshot'>): void {
    if (this.asked?.id !== snapshot.id) return;
    const { set, stage } = this.asked;
    this.log = { set, stage, id: nanoid(), commands: [snapshot] };
    this.asked = null;
    this.isUsed = false;
  }

  private takeContents(command: Command): Instruction | undefined {
    if (!('revision' in command)) return undefined;
    const contents = this.contents.get(command.revision);
    this.contents.delete(command.revision);
    return contents;
  }

  private heard(event: EngineEvent): void {
    if (event.kind === 'sounded') this.sounded(event.frame);
    else if (event.kind === 'anchor') {
      this.bpm = framesPerTick(1, this.host.sampleRate) / event.framesPerTick;
      if (this.run) this.noteTempo(this.run.tempo);
      if (this.run && this.isPlaying && !event.playing) this.end(event.frame);
      this.isPlaying = event.playing;
    } else if (event.kind === 'state') {
      if (this.run && event.frame > this.lastSound + this.quietFrames) this.end(this.lastSound + this.quietFrames);
      if (event.resting && !this.run && this.wantsLog(event.frame)) this.ask(event.frame);
    }
  }

  private sounded(frame: number): void {
    const { log } = this;
    if (!log) return;
    if (!this.run) {
      const at = new Date();
      const { sampleRate } = this.host;
      const name = this.nameAt(at);
      const tempo = { least: this.bpm, most: this.bpm };
      this.run = { schema: 1, id: nanoid(), name, at: at.toISOString(), log: log.id, from: frame, to: frame, sampleRate, sound: SOUND, hits: 0, launches: 0, tempo }; // prettier-ignore
      this.isUsed = true;
    }
    this.run.hits++;
    this.run.to = this.lastSound = frame;
  }

  /** By day and time; several of one minute are counted. */
  private nameAt(at: Date): string {
    const time = at.toLocaleString([], { weekday: 'long', hour: '2-digit', minute: '2-digit' });
    this.named = { time, count: this.named.time === time ? this.named.count + 1 : 1 };
    return this.named.count === 1 ? time : `${time}, ${this.named.count}`;
  }

  private noteTempo(tempo: Run['tempo']): void {
    tempo.least = Math.min(tempo.least, this.bpm);
    tempo.most = Math.max(tempo.most, this.bpm);
  }

  private end(frame: number): void {
    this.run!.to = Math.max(this.lastSound, frame);
    this.tell(true);
    this.run = null;
  }

  private tell(ended: boolean): void {
    for (const listener of this.listeners) listener(this.run!, this.log!, ended);
  }

  /** Whether what lies in the log, or that there is none, asks for another one. */
  private wantsLog(frame: number): boolean {
    // An engine that was struck just then has noted nothing, and is asked again.
    if (frame < this.askedFrame + this.host.sampleRate || !this.isTold()) return false;
    return !this.log || this.isUsed || this.log.commands.length > MOST_IDLE;
  }

  /** Asks the engine to note its state. What is heard is not always the document: a proposal, one take alone. */
  private ask(frame: number): void {
    const state = this.store.getState();
    const set = selectSet(state);
    if (selectHeardSet(state) !== set) return;
    this.askedFrame = frame;
    this.asked = { id: ++this.asking, set, stage: selectStage(state) };
    this.host.sendAll([{ type: 'snapshot', id: this.asking, state: null }]);
  }

  /** The arrays go to the engine, so they are copied. */
  private keepContents(instructions: readonly Instruction[]): void {
    if (!this.asked && !this.log) return;
    for (const instruction of instructions) {
      if ('revision' in instruction) this.contents.set(instruction.revision, structuredClone(instruction));
    }
  }

  private get quietFrames(): number {
    const { meter } = selectSet(this.store.getState());
    return QUIET_BARS * ticksPerBar(meter) * framesPerTick(this.bpm, this.host.sampleRate);
  }
}
