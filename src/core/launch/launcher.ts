import { MAX_TRACKS } from '../document/limits';
import { SAME_TICKS } from '../time/ticks';
import { LaunchRules, type Launch, type MuteSolo } from './launchRules';
import { AS_IT_IS, LEAVE, LaunchState, NO_SECTION, SILENT, THEN_STOP, type LaunchStateData } from './launchState';

/** Whether a Lift is on: held, or let go and waiting for the line on which everything returns. */
export const LIFT = { NONE: 0, HELD: 1, RETURNING: 2 } as const;

/** What a launcher knows while the song stands still, as plain data. */
export interface LauncherData {
  live: LaunchStateData;
  beneath: LaunchStateData;
  lift: 0 | 1 | 2;
  liftTick: number;
}

/**
 * Decides what plays on each track and when it changes. Every change has its line (a song tick) from the moment it is
 * queued, so that all that wait for one line change on one sample.
 *
 * **Lift** is a parenthesis: while it is held, what hands launch, stop, mute and solo happens on a copy; a second copy goes
 * on as it would without them, with all that waited when Lift was pressed and with sections and chains that go on by
 * themselves. Let go, the second copy takes over on the line that *Drop on* gives. What hands do between letting go and
 * that line is done to both, so it stays.
 */
export class Launcher extends LaunchRules {
  /** What is heard. */
  readonly live = new LaunchState();
  /** What would be heard without what hands did while they lifted. */
  readonly beneath = new LaunchState();
  lift: 0 | 1 | 2 = LIFT.NONE;
  /** When everything returns. */
  liftTick = Infinity;
  /** Song ticks between which everything fades out; Infinity for none. */
  fadeFrom = Infinity;
  fadeTo = Infinity;

  /** The song tick of the next change. */
  get due(): number {
    if (!this.playing) return Infinity;
    const beneath = this.lift === LIFT.NONE ? Infinity : this.beneath.due;
    return Math.min(this.live.due, beneath, this.liftTick, this.fadeTo);
  }

  // --- what hands do; `now` is the song tick, never before the song's start ----------------------------------

  launch({ track, slot, on, inPlace }: Launch, now: number): void {
    this.byHand((state) => {
      const tick = this.trackLine(state, track, on, now);
      this.queue(state, { track, slot, tick, inPlace }, now);
    });
  }

  /** What hands have queued on a track is taken back. */
  cancel(track: number): void {
    this.byHand((state) => {
      state.nextTick[track] = Infinity;
    });
  }

  /** What hands have queued on a track waits for another tick. */
  move(track: number, tick: number, now: number): void {
    this.byHand((state) => {
      if (state.nextTick[track] === Infinity) return;
      state.nextTick[track] = Math.max(now, tick);
      state.withSection[track] = 0;
    });
    this.runTo(now);
  }

  muteSolo({ track, mute, solo, on }: MuteSolo, now: number): void {
    this.byHand((state) => {
      const tick = this.playing ? this.trackLine(state, track, on, now) : now;
      if (mute !== AS_IT_IS) state.nextMute[track] = mute;
      if (solo !== AS_IT_IS) state.nextSolo[track] = solo;
      state.muteSoloTick[track] = tick;
      if (tick <= now) this.applyMuteSolo(state, track);
    });
  }

  /** Mutes and solos of a track that wait are taken back. */
  cancelMuteSolo(track: number): void {
    this.byHand((state) => {
      state.nextMute[track] = AS_IT_IS;
      state.nextSolo[track] = AS_IT_IS;
      state.muteSoloTick[track] = Infinity;
    });
  }

  /** All of a section takes over on one line. */
  launchSection(id: number, on: number, inPlace: boolean, now: number): void {
    const section = this.section(id);
    if (!section) return;
    this.byHand((state) => {
      const tick = this.groupLine(state, on, now);
      this.forgetSection(state);
      state.nextSection = id;
      state.sectionTick = tick;
      state.sectionFollows = false;
      state.sectionInPlace = inPlace;
      for (let t = 0; t < MAX_TRACKS; t++) {
        const part = section.parts[t]!;
        if (part === LEAVE) continue;
        this.queue(state, { track: t, slot: part, tick, inPlace }, now);
        state.withSection[t] = 1;
      }
      if (!this.playing || tick <= now) this.applySection(state);
    });
  }

  /** Another set is open: what was launched as a section of the old one is none any more. */
  leaveSection(): void {
    this.byHand((state) => {
      this.forgetSection(state);
      state.section = NO_SECTION;
    });
  }

  /** The section that waits is taken back, with what waits because of it. One that would have followed does not. */
  cancelSection(): void {
    this.byHand((state) => this.forgetSection(state));
  }

  /** The section that waits comes at another tick, with all of its parts that wait with it. */
  moveSection(tick: number, now: number): void {
    this.byHand((state) => {
      if (state.nextSection === NO_SECTION) return;
      const to = Math.max(now, tick);
      for (let t = 0; t < MAX_TRACKS; t++) if (this.waitsWithSection(state, t)) state.nextTick[t] = to;
      state.sectionTick = to;
    });
    this.runTo(now);
  }

  /** Every track stops on one line; nothing else waits or follows any more. */
  stopAll(on: number, now: number): void {
    this.fadeFrom = this.fadeTo = Infinity;
    this.byHand((state) => {
      const tick = this.groupLine(state, on, now);
      this.forgetSection(state);
      for (let t = 0; t < MAX_TRACKS; t++) {
        state.nextTick[t] = Infinity;
        if (state.slot[t] === SILENT) continue;
        this.queue(state, { track: t, slot: SILENT, tick, inPlace: false }, now);
        state.withSection[t] = 1;
      }
      state.nextSection = THEN_STOP;
      state.sectionTick = tick;
      state.sectionFollows = false;
      if (!this.playing || tick <= now) this.applySection(state);
    });
  }

  /** Everything fades out over so many ticks from a line on, and stops; 0 ticks take the fade back. */
  fade(ticks: number, on: number, now: number): void {
    this.fadeFrom = this.fadeTo = Infinity;
    if (ticks <= 0 || !this.playing) return;
    this.fadeFrom = this.groupLine(this.live, on, now);
    this.fadeTo = this.fadeFrom + ticks;
  }

  liftDown(): void {
    if (this.lift === LIFT.NONE) this.beneath.copyFrom(this.live);
    this.lift = LIFT.HELD;
    this.liftTick = Infinity;
  }

  liftUp(on: number, now: number): void {
    if (this.lift !== LIFT.HELD) return;
    this.lift = LIFT.RETURNING;
    this.liftTick = this.playing ? this.groupLine(this.beneath, on, now) : now;
    if (this.liftTick <= now) this.giveBack(now);
  }

  /** Tick 0 of the pattern that plays on a track lies at another song tick. */
  setPhase(track: number, tick: number): void {
    this.live.launchTick[track] = tick;
    this.beneath.launchTick[track] = tick;
  }

  // --- time -------------------------------------------------------------------------------------------------

  /** While the song stands still: all that it knows, but for the sections and chains. */
  get data(): LauncherData {
    const { live, beneath, lift, liftTick } = this;
    return { live: live.toData(), beneath: beneath.toData(), lift, liftTick };
  }

  /** Takes over what another launcher knew. */
  takeData({ live, beneath, lift, liftTick }: LauncherData): void {
    this.live.takeData(live);
    this.beneath.takeData(beneath);
    this.lift = lift;
    this.liftTick = liftTick;
  }

  /** For a launcher that is only told what plays: whether the song goes on. */
  setPlaying(playing: boolean): void {
    this.playing = playing;
  }

  /** The song begins or goes on: every loop is launched at the song's tick 0, sections and chains count from here. */
  start(tick: number): void {
    this.playing = true;
    this.startState(this.live, tick);
    this.startState(this.beneath, tick); // Lift may have been pressed while the song stood still
  }

  /** The song stops: what plays stays, what waited is dropped, a Lift returns. */
  halt(tick: number): void {
    if (this.lift !== LIFT.NONE) this.giveBack(tick);
    this.playing = false;
    this.fadeFrom = this.fadeTo = Infinity;
    const { live } = this;
    live.nextTick.fill(Infinity);
    live.linkTick.fill(Infinity);
    for (let t = 0; t < MAX_TRACKS; t++) {
      live.nextMute[t] = AS_IT_IS;
      live.nextSolo[t] = AS_IT_IS;
    }
    live.muteSoloTick.fill(Infinity);
    live.nextSection = NO_SECTION;
    live.sectionTick = Infinity;
    live.settle();
  }

  /** Everything that is due by a song tick happens, each at its own tick. */
  runTo(tick: number): void {
    for (let due = this.due; due <= tick + SAME_TICKS; due = this.due) {
      this.runState(this.live, due);
      if (this.lift !== LIFT.NONE) this.runState(this.beneath, due);
      if (this.liftTick <= due + SAME_TICKS) this.giveBack(due);
      if (this.fadeTo <= due + SAME_TICKS) this.endFade();
    }
  }

  /** What is heard at a song tick if nobody touches anything more, a Lift's return included. */
  lookAhead(into: LaunchState, tick: number): void {
    const returns = this.lift === LIFT.RETURNING && this.liftTick <= tick + SAME_TICKS;
    into.copyFrom(returns ? this.beneath : this.live);
    this.runState(into, tick);
  }

  /**
   * The song tick at which something else is heard on a track: a change of its own, or a Lift's return that changes it.
   * @param scratch to look ahead in
   */
  takeOverTick(track: number, scratch: LaunchState): number {
    const own = this.changeTick(this.live, track);
    if (this.lift !== LIFT.RETURNING || this.liftTick > own) return own;
    this.lookAhead(scratch, this.liftTick);
    return scratch.isSamePlaying(this.live, track) ? own : this.liftTick;
  }

  private byHand(act: (state: LaunchState) => void): void {
    act(this.live);
    this.live.settle();
    if (this.lift !== LIFT.RETURNING) return;
    act(this.beneath);
    this.beneath.settle();
  }

  private giveBack(tick: number): void {
    const { live, beneath } = this;
    for (let t = 0; t < MAX_TRACKS; t++) {
      const same = live.slot[t] === beneath.slot[t] && live.launchTick[t] === beneath.launchTick[t];
      beneath.since[t] = same ? live.since[t]! : tick;
    }
    live.copyFrom(beneath);
    this.lift = LIFT.NONE;
    this.liftTick = Infinity;
  }

  private endFade(): void {
    const tick = this.fadeTo;
    this.stopAll(0, tick);
    if (this.lift === LIFT.NONE) return;
    this.lift = LIFT.NONE;
    this.liftTick = Infinity;
  }
}
