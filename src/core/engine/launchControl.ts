import { LaunchState, SILENT } from '../launch/launchState';
import { LIFT, type Launcher } from '../launch/launcher';
import type { Handlers } from '../protocol/commands';
import { SAME_TICKS } from '../time/ticks';
import type { Part, TickPart } from './part';
import type { Striker } from './striker';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';
import type { EventQueue } from '../protocol/events';

type LaunchCommand =
  | 'phase'
  | 'launch'
  | 'cancelLaunch'
  | 'moveLaunch'
  | 'muteSolo'
  | 'cancelMuteSolo'
  | 'sections'
  | 'chain'
  | 'launchSection'
  | 'leaveSection'
  | 'cancelSection'
  | 'moveSection'
  | 'stopAll'
  | 'fade'
  | 'lift';

/** Lets the launcher decide, brings the tracks to where it is, and tells the page. */
export class LaunchControl implements TickPart {
  /** The launcher's state as the page was told it. */
  private readonly told = new LaunchState();
  private readonly toldBeneath = new LaunchState();
  private readonly toldLift = { lift: 0, liftTick: Infinity, fadeFrom: Infinity, fadeTo: Infinity };

  /** @param parts told when another slot takes over */
  constructor(
    readonly launcher: Launcher,
    private readonly transport: Transport,
    private readonly rack: TrackRack,
    private readonly striker: Striker,
    private readonly events: EventQueue,
    private readonly parts: readonly Part[],
  ) {}

  readonly commands: Handlers<LaunchCommand> = this.followed({
    phase: ({ track, tick }) => this.launcher.setPhase(track, tick),
    launch: (command) => this.launcher.launch({ ...command, on: this.wait(command.on) }, this.now),
    cancelLaunch: ({ track }) => this.launcher.cancel(track),
    moveLaunch: ({ track, tick }) => this.launcher.move(track, tick, this.now),
    muteSolo: (command) => this.launcher.muteSolo({ ...command, on: this.wait(command.on) }, this.now),
    cancelMuteSolo: ({ track }) => this.launcher.cancelMuteSolo(track),
    sections: ({ sections }) => {
      this.launcher.sections = sections;
    },
    chain: ({ track, chain }) => {
      this.launcher.chains[track] = chain;
    },
    launchSection: ({ section, on, inPlace }) => this.launcher.launchSection(section, this.wait(on), inPlace, this.now),
    leaveSection: () => this.launcher.leaveSection(),
    cancelSection: () => this.launcher.cancelSection(),
    moveSection: ({ tick }) => this.launcher.moveSection(tick, this.now),
    stopAll: ({ on }) => {
      this.launcher.stopAll(this.wait(on), this.now);
      if (on === 0) this.striker.voices.silence(-1);
    },
    fade: ({ ticks, on }) => this.launcher.fade(ticks, this.wait(on), this.now),
    lift: ({ held, on }) => (held ? this.launcher.liftDown() : this.launcher.liftUp(this.wait(on), this.now)),
  });

  nextTick(): number {
    return this.launcher.due;
  }

  playTick(tick: number): void {
    this.transport.playThrough(tick);
    const fades = this.launcher.fadeTo <= tick + SAME_TICKS;
    this.launcher.runTo(tick);
    // What faded out is over.
    if (fades) this.striker.voices.endAll();
    this.follow();
  }

  songStarts(_startTick: number, fromTick: number): void {
    this.launcher.start(fromTick);
    this.follow();
  }

  songStops(tick: number): void {
    this.launcher.halt(tick);
    this.follow();
  }

  trackRemoved(track: number): void {
    this.launcher.launch({ track, slot: SILENT, on: 0, inPlace: false }, this.now);
    this.follow();
  }

  private get now(): number {
    return this.transport.launchTick;
  }

  /** In a count-in nothing plays yet: what is launched is there when it ends. */
  private wait(on: number): number {
    return this.transport.inCountIn ? 0 : on;
  }

  /** The handlers, each of which is followed through the tracks. */
  private followed(handlers: Handlers<LaunchCommand>): Handlers<LaunchCommand> {
    const entries = Object.entries(handlers).map(([type, handle]) => [
      type,
      (command: never) => {
        (handle as (command: never) => void)(command);
        this.follow();
      },
    ]);
    return Object.fromEntries(entries) as Handlers<LaunchCommand>;
  }

  /** Brings the tracks and the page to where the launcher is. */
  private follow(): void {
    const { live } = this.launcher;
    for (let t = 0; t < this.rack.tracks.length; t++) {
      const track = this.rack.tracks[t]!;
      const slot = live.slot[t]!;
      const same = slot === track.slot && (slot === SILENT || live.launchTick[t] === track.player.launchTick);
      if (same) continue;
      for (const part of this.parts) part.trackChanges?.(t);
      this.rack.takeOver(t, slot, live.launchTick[t]!, live.since[t]!);
    }
    this.report();
  }

  /** Tells the page what has changed in the launcher. */
  private report(): void {
    const { launcher, told, toldBeneath } = this;
    const { live, beneath } = launcher;
    const wasLifted = this.toldLift.lift !== LIFT.NONE;
    this.reportTracks(live, told, false);
    if (!this.isLiftTold() || !live.isSameSection(told)) this.reportWhole(live, false);
    told.copyFrom(live);
    if (launcher.lift === LIFT.NONE) return;
    // When it is pressed, what goes on beneath is what was heard: the page copies it as the launcher did.
    if (wasLifted) {
      this.reportTracks(beneath, toldBeneath, true);
      if (!beneath.isSameSection(toldBeneath)) this.reportWhole(beneath, true);
    }
    toldBeneath.copyFrom(beneath);
  }

  private isLiftTold(): boolean {
    const { toldLift } = this;
    const { lift, liftTick, fadeFrom, fadeTo } = this.launcher;
    const same =
      lift === toldLift.lift &&
      liftTick === toldLift.liftTick &&
      fadeFrom === toldLift.fadeFrom &&
      fadeTo === toldLift.fadeTo;
    toldLift.lift = lift;
    toldLift.liftTick = liftTick;
    toldLift.fadeFrom = fadeFrom;
    toldLift.fadeTo = fadeTo;
    return same;
  }

  private reportTracks(state: LaunchState, told: LaunchState, beneath: boolean): void {
    for (let t = 0; t < this.rack.tracks.length; t++) {
      const same = state.isSameTrack(told, t) && (!beneath || state.isSamePlaying(told, t));
      if (!same) this.reportTrack(state, t, beneath);
    }
  }

  private reportTrack(state: LaunchState, t: number, beneath: boolean): void {
    const event = this.events.add('waiting', this.transport.frame);
    event.track = t;
    event.beneath = beneath;
    event.slot = state.slot[t]!;
    event.launchTick = state.launchTick[t]!;
    event.next = state.next[t]!;
    event.nextInPlace = state.nextInPlace[t]!;
    event.nextTick = state.nextTick[t]!;
    event.link = state.link[t]!;
    event.linkTick = state.linkTick[t]!;
    event.muted = state.muted[t]!;
    event.soloed = state.soloed[t]!;
    event.nextMute = state.nextMute[t]!;
    event.nextSolo = state.nextSolo[t]!;
    event.muteSoloTick = state.muteSoloTick[t]!;
  }

  private reportWhole(state: LaunchState, beneath: boolean): void {
    const { lift, liftTick, fadeFrom, fadeTo } = this.launcher;
    const event = this.events.add('launcher', this.transport.frame);
    event.beneath = beneath;
    event.section = state.section;
    event.nextSection = state.nextSection;
    event.sectionTick = state.sectionTick;
    event.sectionFollows = state.sectionFollows;
    event.sectionInPlace = state.sectionInPlace;
    event.lift = lift;
    event.liftTick = liftTick;
    event.fadeFrom = fadeFrom;
    event.fadeTo = fadeTo;
  }
}
