import { SAME_TICKS } from '../time/ticks';
import { nextLine } from '../quantize/grid';
import { AS_IT_IS, CHAIN, LaunchState, LEAVE, NO_SECTION, SILENT, THEN_STOP } from './launchState';
import { MAX_TRACKS } from '../document/limits';

/** Drop on the end of the loop that plays. Else `on` is a step of song ticks: a beat, a bar; 0 is now. */
export const LOOP_END = -1;

/** What the launcher must know of the patterns. */
export interface Tapes {
  /** Ticks of the stretch that goes round, 0 for an empty slot. */
  span(track: number, slot: number): number;
  /** Where in the pattern it begins. */
  start(track: number, slot: number): number;
  /** Ticks of a bar. */
  bar(): number;
}

/** What a section does, track by track. */
export interface SectionPlan {
  /** Its number in the set, 1 or more: it keeps it wherever it is put. */
  id: number;
  /** For each track a slot, SILENT, CHAIN or LEAVE. */
  parts: readonly number[];
  /** How often its longest loop goes round before `then`. */
  rounds: number;
  /** Id of the section that follows, THEN_STOP, or NO_SECTION: it goes on until something else is launched. */
  then: number;
}

/** Patterns of one track in a row. */
export interface ChainPlan {
  links: readonly { slot: number; times: number }[];
  /** After the last link the first comes again; else the last one goes on. */
  again: boolean;
}

/** A change of what plays on a track that is to come. */
export interface Change {
  /** The slot that takes over, or SILENT. */
  slot: number;
  tick: number;
  by: 'hand' | 'chain' | 'section';
}

/** Whether a Lift is on: held, or let go and waiting for the line on which everything returns. */
export const LIFT = { NONE: 0, HELD: 1, RETURNING: 2 } as const;

const NO_CHAIN: ChainPlan = { links: [], again: false };

/**
 * Decides what plays on each track and when it changes. Every change has its line (a song tick) from the moment it is
 * queued, so that all that wait for one line change on one sample.
 *
 * At one line the order is: a section that follows by itself, chains, what hands have queued, mutes and solos. So hands
 * have the last word.
 *
 * **Lift** is a parenthesis: while it is held, what hands launch, stop, mute and solo happens on a copy; a second copy goes
 * on as it would without them, with all that waited when Lift was pressed and with sections and chains that go on by
 * themselves. Let go, the second copy takes over on the line that *Drop on* gives. What hands do between letting go and
 * that line is done to both, so it stays.
 */
export class Launcher {
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
  sections: readonly SectionPlan[] = [];
  readonly chains: ChainPlan[] = new Array<ChainPlan>(MAX_TRACKS).fill(NO_CHAIN);
  private playing = false;

  constructor(private readonly tapes: Tapes) {}

  /** The song tick of the next change. */
  get due(): number {
    if (!this.playing) return Infinity;
    const beneath = this.lift === LIFT.NONE ? Infinity : this.beneath.due;
    return Math.min(this.live.due, beneath, this.liftTick, this.fadeTo);
  }

  // --- what hands do; `now` is the song tick, never before the song's start ----------------------------------

  /**
   * A slot, SILENT or CHAIN takes over on a track.
   * @param on what it waits for: LOOP_END, or a step of song ticks, 0 for now
   * @param inPlace it goes on in the phase of what it replaces, not from its top
   */
  launch(track: number, slot: number, on: number, inPlace: boolean, now: number): void {
    this.byHand((state) => this.queue(state, track, slot, this.trackLine(state, track, on, now), inPlace, now));
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

  /** A track is muted or soloed (1), or not (0); AS_IT_IS leaves what is and what waits. */
  muteSolo(track: number, mute: number, solo: number, on: number, now: number): void {
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
        this.queue(state, t, part, tick, inPlace, now);
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
        this.queue(state, t, SILENT, tick, false, now);
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

  private startState(state: LaunchState, tick: number): void {
    state.launchTick.fill(0);
    state.since.fill(tick);
    for (let t = 0; t < MAX_TRACKS; t++) {
      const link = this.chains[t]!.links[state.link[t]!];
      const span = link ? this.tapes.span(t, link.slot) : 0;
      if (span > 0) state.linkTick[t] = this.loopEnd(state, t, tick) + (link!.times - 1) * span;
    }
    if (state.section !== NO_SECTION) this.follow(state, nextLine(tick - SAME_TICKS, this.tapes.bar()));
    state.settle();
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

  /** What happens in a state by a song tick; a state of one's own can so be looked ahead in. */
  runState(state: LaunchState, tick: number): void {
    while (state.due <= tick + SAME_TICKS) {
      const due = state.due + SAME_TICKS;
      if (state.sectionTick <= due) this.applySection(state);
      for (let t = 0; t < MAX_TRACKS; t++) {
        if (state.linkTick[t]! <= due) this.applyLink(state, t);
        if (state.nextTick[t]! <= due) this.applyNext(state, t);
        if (state.muteSoloTick[t]! <= due) this.applyMuteSolo(state, t);
      }
      state.settle();
    }
  }

  /** The song tick at which a track's next change of pattern comes, whoever asked for it. */
  changeTick(state: LaunchState, track: number): number {
    const { nextSection } = state;
    const part = nextSection === THEN_STOP ? SILENT : (this.section(nextSection)?.parts[track] ?? LEAVE);
    const follows = state.sectionFollows && part !== LEAVE ? state.sectionTick : Infinity;
    return Math.min(state.nextTick[track]!, state.linkTick[track]!, follows);
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

  /** What comes next on a track, when, and whose doing it is; null when nothing does. */
  nextChange(state: LaunchState, track: number): Change | null {
    const tick = this.changeTick(state, track);
    if (tick === Infinity) return null;
    const { links, again } = this.chains[track]!;
    const first = (slot: number) => (slot === CHAIN ? (links[0]?.slot ?? SILENT) : slot);
    if (state.nextTick[track] === tick) return { slot: first(state.next[track]!), tick, by: 'hand' };
    if (state.linkTick[track] === tick) {
      const next = state.link[track]! + 1;
      // After its last link a chain is over, and nothing changes.
      if (next >= links.length && !again) return null;
      return { slot: links[next % links.length]?.slot ?? SILENT, tick, by: 'chain' };
    }
    const part = this.section(state.nextSection)?.parts[track] ?? SILENT;
    return { slot: first(part), tick, by: 'section' };
  }

  private waitsWithSection(state: LaunchState, track: number): boolean {
    return state.withSection[track] === 1 && state.nextTick[track]! < Infinity;
  }

  // --- lines ------------------------------------------------------------------------------------------------

  private trackLine(state: LaunchState, track: number, on: number, now: number): number {
    if (on === 0) return now;
    if (on > 0) return nextLine(now + SAME_TICKS, on);
    return state.slot[track] === SILENT
      ? nextLine(now + SAME_TICKS, this.tapes.bar())
      : this.loopEnd(state, track, now);
  }

  /** What several tracks wait for together: at the loop's end, the end of the longest loop that plays. */
  private groupLine(state: LaunchState, on: number, now: number): number {
    if (!this.playing) return now;
    let longest = -1;
    let longestSpan = 0;
    for (let t = 0; t < MAX_TRACKS; t++) {
      const span = state.slot[t] === SILENT ? 0 : this.tapes.span(t, state.slot[t]!);
      if (span > longestSpan) [longest, longestSpan] = [t, span];
    }
    if (on !== LOOP_END) return on === 0 ? now : nextLine(now + SAME_TICKS, on);
    return longest < 0 ? nextLine(now + SAME_TICKS, this.tapes.bar()) : this.loopEnd(state, longest, now);
  }

  /** The next end of the loop that plays on a track. */
  private loopEnd(state: LaunchState, track: number, now: number): number {
    const slot = state.slot[track]!;
    const span = this.tapes.span(track, slot);
    if (span <= 0) return nextLine(now + SAME_TICKS, this.tapes.bar());
    const origin = state.launchTick[track]! + this.tapes.start(track, slot);
    return origin + (Math.floor((now + SAME_TICKS - origin) / span) + 1) * span;
  }

  // --- changes ----------------------------------------------------------------------------------------------

  private byHand(act: (state: LaunchState) => void): void {
    act(this.live);
    this.live.settle();
    if (this.lift !== LIFT.RETURNING) return;
    act(this.beneath);
    this.beneath.settle();
  }

  private queue(state: LaunchState, track: number, slot: number, tick: number, inPlace: boolean, now: number): void {
    state.next[track] = slot;
    state.nextInPlace[track] = inPlace ? 1 : 0;
    state.nextTick[track] = tick;
    state.withSection[track] = 0;
    if (!this.playing || tick <= now) this.applyNext(state, track);
  }

  private applyNext(state: LaunchState, track: number): void {
    const [slot, tick] = [state.next[track]!, state.nextTick[track]!];
    state.nextTick[track] = Infinity;
    state.link[track] = -1;
    state.linkTick[track] = Infinity;
    if (slot === CHAIN) this.playLink(state, track, 0, tick);
    else this.begin(state, track, slot, tick, state.nextInPlace[track] === 1);
  }

  private begin(state: LaunchState, track: number, slot: number, tick: number, inPlace: boolean): void {
    const old = state.slot[track]!;
    state.slot[track] = slot;
    state.since[track] = tick;
    if (slot === SILENT) return;
    if (!this.playing) state.launchTick[track] = 0;
    else if (!inPlace) state.launchTick[track] = tick - this.tapes.start(track, slot);
    else if (old === SILENT) state.launchTick[track] = 0;
  }

  private applyLink(state: LaunchState, track: number): void {
    const { links, again } = this.chains[track]!;
    const tick = state.linkTick[track]!;
    const next = state.link[track]! + 1;
    state.linkTick[track] = Infinity;
    if (links.length === 0) return void (state.link[track] = -1); // it was taken apart while it played
    if (next < links.length || again) this.playLink(state, track, next % links.length, tick);
    else state.link[track] = -1;
  }

  /** Plays a link of a track's chain, or the next one that is not empty. */
  private playLink(state: LaunchState, track: number, from: number, tick: number): void {
    const { links } = this.chains[track]!;
    for (let i = 0; i < links.length; i++) {
      const link = (from + i) % links.length;
      const { slot, times } = links[link]!;
      const span = this.tapes.span(track, slot);
      if (span <= 0) continue;
      state.link[track] = link;
      state.linkTick[track] = this.playing ? tick + times * span : Infinity;
      return this.begin(state, track, slot, tick, false);
    }
    state.link[track] = -1;
    this.begin(state, track, SILENT, tick, false);
  }

  private applyMuteSolo(state: LaunchState, track: number): void {
    if (state.nextMute[track] !== AS_IT_IS) state.muted[track] = state.nextMute[track]!;
    if (state.nextSolo[track] !== AS_IT_IS) state.soloed[track] = state.nextSolo[track]!;
    state.nextMute[track] = AS_IT_IS;
    state.nextSolo[track] = AS_IT_IS;
    state.muteSoloTick[track] = Infinity;
  }

  /** The section that waits takes over. Launched by hand, its parts wait on their tracks and take over with it. */
  private applySection(state: LaunchState): void {
    const { nextSection, sectionTick, sectionFollows } = state;
    const parts = this.section(nextSection)?.parts;
    state.section = parts ? nextSection : NO_SECTION;
    state.nextSection = NO_SECTION;
    state.sectionTick = Infinity;
    for (let t = 0; sectionFollows && t < MAX_TRACKS; t++) {
      const part = nextSection === THEN_STOP ? SILENT : (parts?.[t] ?? LEAVE);
      if (part === LEAVE || state.nextTick[t]! <= sectionTick + SAME_TICKS) continue;
      state.link[t] = -1;
      state.linkTick[t] = Infinity;
      if (part === CHAIN) this.playLink(state, t, 0, sectionTick);
      else this.begin(state, t, part, sectionTick, state.sectionInPlace);
    }
    this.follow(state, sectionTick);
  }

  /** Notes what follows the section that plays, from the tick at which it began. */
  private follow(state: LaunchState, tick: number): void {
    const section = this.section(state.section);
    if (!section || section.then === NO_SECTION || !this.playing) return;
    state.nextSection = section.then;
    state.sectionTick = tick + section.rounds * this.roundOf(section);
    state.sectionFollows = true;
  }

  /** Ticks of one round of a section: its longest loop, made up to whole bars. */
  private roundOf({ parts }: SectionPlan): number {
    let longest = 0;
    for (let t = 0; t < MAX_TRACKS; t++) {
      const slot = parts[t]!;
      if (slot >= 0) longest = Math.max(longest, this.tapes.span(t, slot));
      else if (slot === CHAIN) longest = Math.max(longest, this.chainTicks(t));
    }
    return Math.max(1, Math.ceil(longest / this.tapes.bar() - SAME_TICKS)) * this.tapes.bar();
  }

  private chainTicks(track: number): number {
    let ticks = 0;
    for (const { slot, times } of this.chains[track]!.links) ticks += times * this.tapes.span(track, slot);
    return ticks;
  }

  private section(id: number): SectionPlan | undefined {
    return this.sections.find((section) => section.id === id);
  }

  private forgetSection(state: LaunchState): void {
    if (state.nextSection === NO_SECTION) return;
    for (let t = 0; t < MAX_TRACKS; t++) if (this.waitsWithSection(state, t)) state.nextTick[t] = Infinity;
    state.nextSection = NO_SECTION;
    state.sectionTick = Infinity;
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
