import { LIMITER_LATENCY } from '@/core/sound/limiter';
import { Launcher, LIFT } from '@/core/launch/launcher';
import { chainPlan, sectionPlans, tapesOf } from '@/core/launch/plans';
import { tracksOf, type BeatSet } from '@/core/document/set';
import type { LaunchState } from '@/core/launch/launchState';
import { loopPosition } from '@/core/sequence/loopWindow';
import { tickAt, Timeline, type Anchor } from '@/core/time/timeline';
import type { EngineEvent } from '@/core/protocol/events';
import { MAX_TRACKS } from '@/core/document/limits';
import type { LoopWindow } from '@/core/document/pattern';

/** A pad that sounded, as the Flyway and the pads show it. */
export interface Sounded {
  /** Engine output frame at which it is heard. */
  heardFrame: number;
  /** Id of its track. */
  track: number;
  pad: number;
  velocity: number;
  live: boolean;
  /** Song ticks; `placed` is NaN for a stroke that was not recorded. */
  struck: number;
  placed: number;
}

/** What goes round on a track from a song tick on. */
export interface Loop extends LoopWindow {
  /** The slot, or SILENT. */
  slot: number;
  /** Where tick 0 of its pattern lies. */
  launchTick: number;
  /** The song tick from which this holds. */
  tick: number;
}

/** A loop window and the song tick from which it goes round. */
export interface DroppedWindow extends LoopWindow {
  tick: number;
}

const SOUNDED_KEPT = 1024;
const LOOPS_KEPT = 8;
const STOPPED: Anchor = { frame: 0, tick: 0, framesPerTick: 1, playing: false, recording: false };
const NOTHING: LoopWindow = { start: 0, length: 0 };

/** The loops of one track that went round last, the newest last, and the window that waits. */
class TrackLoops {
  loops: Loop[] = [];
  coming: DroppedWindow | null = null;

  at(songTick: number): Loop | undefined {
    return this.loops.findLast(({ tick }) => tick <= songTick) ?? this.loops[0];
  }
}

/**
 * The performance as the engine reports it: where the song is, what plays and what waits, what sounded. It never passes
 * through Redux: views read it on every frame that they draw.
 */
export class Performance {
  /** What sounded last, oldest first. */
  readonly sounded: Sounded[] = [];
  /** What the engine's launcher told of itself, to be asked and looked ahead in. */
  launcher: Launcher;
  /** Id of the track that pads and Steps show: the one that is meant when none is named. */
  shown = 0;
  /** Song tick where the count-in ends. */
  fromTick = 0;
  voices = 0;
  /** Counts what the launcher has told: equal numbers, equal state. */
  launches = 0;
  private readonly tracks = Array.from({ length: MAX_TRACKS }, () => new TrackLoops());
  private timeline = new Timeline(STOPPED);
  private document: BeatSet | null = null;
  private readonly listeners = new Set<(sounded: Sounded) => void>();
  private readonly launchListeners = new Set<() => void>();

  /**
   * @param frameHeardAt engine output frame heard at a time stamp (ms)
   * @param set the document as it is now
   */
  constructor(
    readonly frameHeardAt: (timeStamp: number) => number,
    private readonly set: () => BeatSet,
  ) {
    this.launcher = new Launcher(tapesOf(set));
  }

  /** Stands still from now on, at a song tick: nothing tells of the engine any more. */
  halt(tick: number): void {
    this.timeline = new Timeline({ ...STOPPED, tick });
  }

  /** Forgets what an engine told that is gone; another one begins. */
  forget(): void {
    this.launcher = new Launcher(tapesOf(this.set));
    this.document = null;
    this.sounded.length = 0;
    for (const track of this.tracks) Object.assign(track, new TrackLoops());
    this.tellLaunch();
  }

  get anchor(): Anchor {
    return this.timeline.now;
  }

  /** Song tick that the player hears at `timeStamp` (ms). */
  tickHeard(timeStamp: number): number {
    return this.timeline.tickAt(this.frameHeardAt(timeStamp) - LIMITER_LATENCY);
  }

  /** Song tick that the player hears now, or where the stopped song stands. */
  get tickNow(): number {
    return this.anchor.playing ? this.tickHeard(globalThis.performance.now()) : this.anchor.tick;
  }

  /** What goes round on a track at a song tick; undefined before the engine told of anything. */
  loopAt(songTick: number, track = this.shown): Loop | undefined {
    return this.tracks[track]!.at(songTick);
  }

  /** The stretch of the pattern that goes round at a song tick. */
  windowAt(songTick: number, track = this.shown): LoopWindow {
    return this.loopAt(songTick, track) ?? NOTHING;
  }

  /** Where a track's loop is at a song tick, in ticks of its pattern. */
  positionAt(songTick: number, track = this.shown): number {
    const loop = this.loopAt(songTick, track);
    return loop && loop.length > 0 ? loopPosition(loop, Math.max(0, songTick) - loop.launchTick) : 0;
  }

  /** The loop window that waits on the shown track, or null. */
  get coming(): DroppedWindow | null {
    return this.tracks[this.shown]!.coming;
  }

  /** Song tick at an engine frame, or null when the song stood still then. */
  songTickAt(frame: number): number | null {
    const piece = this.timeline.at(frame);
    return piece.playing ? tickAt(piece, frame) : null;
  }

  /** Engine frame at which a song tick sounds, of the ticks that have gone by too; NaN while the song stands still. */
  frameOf(tick: number): number {
    return this.timeline.frameOf(tick);
  }

  /** Calls back with every pad that sounds, as soon as the engine reports it: a little before it is heard. */
  onSounded(listener: (sounded: Sounded) => void): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  /** Calls back when what plays or what waits has changed. */
  readonly onLaunch = (listener: () => void): (() => void) => {
    this.launchListeners.add(listener);
    return () => void this.launchListeners.delete(listener);
  };

  /** Takes what the engine told in one message. */
  takeAll(events: readonly EngineEvent[]): void {
    const before = this.launches;
    for (const event of events) this.take(event);
    if (this.launches !== before) this.tellLaunch();
  }

  /** The launcher learns the sections and chains of the set. */
  followDocument(set: BeatSet): void {
    if (set === this.document) return;
    if (set.sections !== this.document?.sections) this.launcher.sections = sectionPlans(set.sections);
    this.document = set;
    for (const track of tracksOf(set)) this.launcher.chains[track.id] = chainPlan(track);
    this.tellLaunch();
  }

  /** Calls those who show what plays and waits: also for what the document changed. */
  tellLaunch(): void {
    this.launches++;
    for (const listener of this.launchListeners) listener();
  }

  private take(event: EngineEvent): void {
    const { live } = this.launcher;
    switch (event.kind) {
      case 'anchor':
        this.fromTick = event.fromTick;
        if (event.playing && !this.anchor.playing) {
          // Song ticks come round again: what plays goes round from the start.
          for (const track of this.tracks) track.loops = track.loops.slice(-1).map((l) => ({ ...l, tick: -Infinity }));
        }
        if (event.playing !== this.anchor.playing) {
          this.launches++;
          this.launcher.setPlaying(event.playing);
        }
        if (!event.playing) for (const track of this.tracks) track.coming = null;
        this.timeline.push(event);
        // A new start: what sounded in the last one would lie at the same ticks.
        if (event.playing && event.tick <= event.fromTick && this.sounded.length > 0) this.sounded.length = 0;
        return;
      case 'sounded': {
        const { frame, track, pad, velocity, live: byHand, struck, placed } = event;
        const sounded = { heardFrame: frame + LIMITER_LATENCY, track, pad, velocity, live: byHand, struck, placed };
        this.sounded.push(sounded);
        if (this.sounded.length > SOUNDED_KEPT) this.sounded.shift();
        for (const listener of this.listeners) listener(sounded);
        return;
      }
      case 'loop': {
        const { track, slot, launchTick, start, span: length, tick } = event;
        const { loops } = this.tracks[track]!;
        this.tracks[track]!.loops = [...loops.slice(1 - LOOPS_KEPT), { slot, launchTick, start, length, tick }];
        live.slot[track] = slot;
        live.launchTick[track] = launchTick;
        live.since[track] = tick;
        this.launches++;
        return;
      }
      case 'window': {
        const { start, length, tick } = event;
        this.tracks[event.track]!.coming = tick < Infinity ? { start, length, tick } : null;
        return;
      }
      case 'waiting':
        this.takeWaiting(event.beneath ? this.launcher.beneath : live, event);
        return;
      case 'launcher':
        this.takeLauncher(event.beneath ? this.launcher.beneath : live, event);
        return;
      case 'state':
        this.voices = event.voices;
        return;
    }
  }

  private takeWaiting(state: LaunchState, event: Extract<EngineEvent, { kind: 'waiting' }>): void {
    const { track } = event;
    if (event.beneath) {
      state.slot[track] = event.slot;
      state.launchTick[track] = event.launchTick;
    }
    state.next[track] = event.next;
    state.nextInPlace[track] = event.nextInPlace;
    state.nextTick[track] = event.nextTick;
    state.link[track] = event.link;
    state.linkTick[track] = event.linkTick;
    state.muted[track] = event.muted;
    state.soloed[track] = event.soloed;
    state.nextMute[track] = event.nextMute;
    state.nextSolo[track] = event.nextSolo;
    state.muteSoloTick[track] = event.muteSoloTick;
    state.settle();
    this.launches++;
  }

  private takeLauncher(state: LaunchState, event: Extract<EngineEvent, { kind: 'launcher' }>): void {
    const { launcher } = this;
    state.section = event.section;
    state.nextSection = event.nextSection;
    state.sectionTick = event.sectionTick;
    state.sectionFollows = event.sectionFollows;
    state.sectionInPlace = event.sectionInPlace;
    if (event.lift === LIFT.HELD && launcher.lift === LIFT.NONE) launcher.beneath.copyFrom(launcher.live);
    launcher.lift = event.lift as 0 | 1 | 2;
    launcher.liftTick = event.liftTick;
    launcher.fadeFrom = event.fadeFrom;
    launcher.fadeTo = event.fadeTo;
    state.settle();
    this.launches++;
  }
}
