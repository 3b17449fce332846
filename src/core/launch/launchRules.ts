import { MAX_TRACKS } from '../document/limits';
import { nextLine } from '../quantize/grid';
import { SAME_TICKS } from '../time/ticks';
import { AS_IT_IS, CHAIN, LEAVE, NO_SECTION, SILENT, THEN_STOP, type LaunchState } from './launchState';

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

/** A slot, SILENT or CHAIN is to take over on a track. */
export interface Launch {
  track: number;
  slot: number;
  /** What it waits for: LOOP_END, or a step of song ticks, 0 for now. */
  on: number;
  /** It goes on in the phase of what it replaces, not from its top. */
  inPlace: boolean;
}

/** A track is to be muted or soloed (1), or not (0); AS_IT_IS leaves what is and what waits. */
export interface MuteSolo {
  track: number;
  mute: number;
  solo: number;
  /** As of a launch. */
  on: number;
}

/** A launch that has its line: a song tick. */
interface Queued {
  track: number;
  slot: number;
  tick: number;
  inPlace: boolean;
}

/** A change of what plays on a track that is to come. */
export interface Change {
  /** The slot that takes over, or SILENT. */
  slot: number;
  tick: number;
  by: 'hand' | 'chain' | 'section';
}

const NO_CHAIN: ChainPlan = { links: [], again: false };

/**
 * What happens in one state of launching: when its changes come, and what they do to it. It knows the sections and chains,
 * and nothing of hands.
 *
 * At one line the order is: a section that follows by itself, chains, what hands have queued, mutes and solos. So hands
 * have the last word.
 */
export class LaunchRules {
  sections: readonly SectionPlan[] = [];
  readonly chains: ChainPlan[] = new Array<ChainPlan>(MAX_TRACKS).fill(NO_CHAIN);
  /** Whether the song goes on. */
  protected playing = false;

  constructor(private readonly tapes: Tapes) {}

  protected startState(state: LaunchState, tick: number): void {
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

  /** What comes next on a track, when, and whether hands, a chain or a section asked for it; null when nothing does. */
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

  protected waitsWithSection(state: LaunchState, track: number): boolean {
    return state.withSection[track] === 1 && state.nextTick[track]! < Infinity;
  }

  // --- lines ------------------------------------------------------------------------------------------------

  protected trackLine(state: LaunchState, track: number, on: number, now: number): number {
    if (on === 0) return now;
    if (on > 0) return nextLine(now + SAME_TICKS, on);
    return state.slot[track] === SILENT
      ? nextLine(now + SAME_TICKS, this.tapes.bar())
      : this.loopEnd(state, track, now);
  }

  /** What several tracks wait for together: at the loop's end, the end of the longest loop that plays. */
  protected groupLine(state: LaunchState, on: number, now: number): number {
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
  protected loopEnd(state: LaunchState, track: number, now: number): number {
    const slot = state.slot[track]!;
    const span = this.tapes.span(track, slot);
    if (span <= 0) return nextLine(now + SAME_TICKS, this.tapes.bar());
    const origin = state.launchTick[track]! + this.tapes.start(track, slot);
    return origin + (Math.floor((now + SAME_TICKS - origin) / span) + 1) * span;
  }

  // --- changes ----------------------------------------------------------------------------------------------

  protected queue(state: LaunchState, { track, slot, tick, inPlace }: Queued, now: number): void {
    state.next[track] = slot;
    state.nextInPlace[track] = inPlace ? 1 : 0;
    state.nextTick[track] = tick;
    state.withSection[track] = 0;
    if (!this.playing || tick <= now) this.applyNext(state, track);
  }

  protected applyNext(state: LaunchState, track: number): void {
    const [slot, tick] = [state.next[track]!, state.nextTick[track]!];
    state.nextTick[track] = Infinity;
    state.link[track] = -1;
    state.linkTick[track] = Infinity;
    if (slot === CHAIN) this.playLink(state, track, 0, tick);
    else this.begin(state, track, slot, tick, state.nextInPlace[track] === 1);
  }

  protected begin(state: LaunchState, track: number, slot: number, tick: number, inPlace: boolean): void {
    const old = state.slot[track]!;
    state.slot[track] = slot;
    state.since[track] = tick;
    if (slot === SILENT) return;
    if (!this.playing) state.launchTick[track] = 0;
    else if (!inPlace) state.launchTick[track] = tick - this.tapes.start(track, slot);
    else if (old === SILENT) state.launchTick[track] = 0;
  }

  protected applyLink(state: LaunchState, track: number): void {
    const { links, again } = this.chains[track]!;
    const tick = state.linkTick[track]!;
    const next = state.link[track]! + 1;
    state.linkTick[track] = Infinity;
    if (links.length === 0) return void (state.link[track] = -1); // it was taken apart while it played
    if (next < links.length || again) this.playLink(state, track, next % links.length, tick);
    else state.link[track] = -1;
  }

  /** Plays a link of a track's chain, or the next one that is not empty. */
  protected playLink(state: LaunchState, track: number, from: number, tick: number): void {
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

  protected applyMuteSolo(state: LaunchState, track: number): void {
    if (state.nextMute[track] !== AS_IT_IS) state.muted[track] = state.nextMute[track]!;
    if (state.nextSolo[track] !== AS_IT_IS) state.soloed[track] = state.nextSolo[track]!;
    state.nextMute[track] = AS_IT_IS;
    state.nextSolo[track] = AS_IT_IS;
    state.muteSoloTick[track] = Infinity;
  }

  /** The section that waits takes over. Launched by hand, its parts wait on their tracks and take over with it. */
  protected applySection(state: LaunchState): void {
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
  protected follow(state: LaunchState, tick: number): void {
    const section = this.section(state.section);
    if (!section || section.then === NO_SECTION || !this.playing) return;
    state.nextSection = section.then;
    state.sectionTick = tick + section.rounds * this.roundOf(section);
    state.sectionFollows = true;
  }

  /** Ticks of one round of a section: its longest loop, made up to whole bars. */
  roundOf({ parts }: SectionPlan): number {
    let longest = 0;
    for (let t = 0; t < MAX_TRACKS; t++) {
      const slot = parts[t]!;
      if (slot >= 0) longest = Math.max(longest, this.tapes.span(t, slot));
      else if (slot === CHAIN) longest = Math.max(longest, this.chainTicks(t));
    }
    return Math.max(1, Math.ceil(longest / this.tapes.bar() - SAME_TICKS)) * this.tapes.bar();
  }

  protected chainTicks(track: number): number {
    let ticks = 0;
    for (const { slot, times } of this.chains[track]!.links) ticks += times * this.tapes.span(track, slot);
    return ticks;
  }

  protected section(id: number): SectionPlan | undefined {
    return this.sections.find((section) => section.id === id);
  }

  protected forgetSection(state: LaunchState): void {
    if (state.nextSection === NO_SECTION) return;
    for (let t = 0; t < MAX_TRACKS; t++) if (this.waitsWithSection(state, t)) state.nextTick[t] = Infinity;
    state.nextSection = NO_SECTION;
    state.sectionTick = Infinity;
  }
}
