import { LaunchState, SILENT } from '../launch/launchState';
import type { Launcher } from '../launch/launcher';
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
    launch: ({ track, slot, on, inPlace }) => this.launcher.launch(track, slot, this.wait(on), inPlace, this.now),
    cancelLaunch: ({ track }) => this.launcher.cancel(track),
    moveLaunch: ({ track, tick }) => this.launcher.move(track, tick, this.now),
    muteSolo: ({ track, mute, solo, on }) => this.launcher.muteSolo(track, mute, solo, this.wait(on), this.now),
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
    if (fades) this.striker.voices.end();
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
    this.launcher.launch(track, SILENT, 0, false, this.now);
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
    const { launcher, told, toldLift } = this;
    const { live } = launcher;
    for (let t = 0; t < this.rack.tracks.length; t++) if (!live.isSameTrack(told, t)) this.reportTrack(t);
    const sameLift =
      launcher.lift === toldLift.lift &&
      launcher.liftTick === toldLift.liftTick &&
      launcher.fadeFrom === toldLift.fadeFrom &&
      launcher.fadeTo === toldLift.fadeTo;
    if (!sameLift || !live.isSameSection(told)) this.reportWhole();
    told.copyFrom(live);
    toldLift.lift = launcher.lift;
    toldLift.liftTick = launcher.liftTick;
    toldLift.fadeFrom = launcher.fadeFrom;
    toldLift.fadeTo = launcher.fadeTo;
  }

  private reportTrack(t: number): void {
    const { live } = this.launcher;
    const event = this.events.add('waiting', this.transport.frame);
    event.track = t;
    event.next = live.next[t]!;
    event.nextInPlace = live.nextInPlace[t]!;
    event.nextTick = live.nextTick[t]!;
    event.link = live.link[t]!;
    event.linkTick = live.linkTick[t]!;
    event.muted = live.muted[t]!;
    event.soloed = live.soloed[t]!;
    event.nextMute = live.nextMute[t]!;
    event.nextSolo = live.nextSolo[t]!;
    event.muteSoloTick = live.muteSoloTick[t]!;
  }

  private reportWhole(): void {
    const { live, lift, liftTick, fadeFrom, fadeTo } = this.launcher;
    const event = this.events.add('launcher', this.transport.frame);
    event.section = live.section;
    event.nextSection = live.nextSection;
    event.sectionTick = live.sectionTick;
    event.sectionFollows = live.sectionFollows;
    event.sectionInPlace = live.sectionInPlace;
    event.lift = lift;
    event.liftTick = liftTick;
    event.fadeFrom = fadeFrom;
    event.fadeTo = fadeTo;
  }
}
