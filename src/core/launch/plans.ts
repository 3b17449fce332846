import { patternAt, tracksOf, type BeatSet } from '../document/set';
import { windowOf } from '../sequence/loopWindow';
import { ticksPerBar, ticksPerBeat, type Meter } from '../time/ticks';
import { CHAIN, LEAVE, NO_SECTION, SILENT, THEN_STOP } from './launchState';
import { MAX_TRACKS } from '../document/limits';
import type { Track } from '../document/track';
import type { Section } from '../document/section';
import type { Drop } from '../document/launching';
import { Launcher } from './launcher';
import { LOOP_END, type ChainPlan, type SectionPlan, type Tapes } from './launchRules';

/** What *Drop on* is in the launcher's terms: LOOP_END, or a step of song ticks, 0 for now. */
export function dropTicks(drop: Drop, meter: Meter): number {
  const bar = ticksPerBar(meter);
  const ticks: Record<Drop, number> = { now: 0, beat: ticksPerBeat(meter), bar, loop: LOOP_END, bars2: 2 * bar, bars4: 4 * bar }; // prettier-ignore
  return ticks[drop];
}

/** A set's sections as the launcher takes them. */
export function sectionPlans(sections: readonly Section[]): SectionPlan[] {
  return sections.map((section) => {
    const parts = new Array<number>(MAX_TRACKS).fill(LEAVE);
    for (const { track, plays } of section.parts) {
      parts[track] = plays === null ? SILENT : plays === 'chain' ? CHAIN : plays;
    }
    return { id: section.id, parts, rounds: section.rounds, then: thenOf(section, sections) };
  });
}

function thenOf({ then }: Section, sections: readonly Section[]): number {
  if (then === undefined) return NO_SECTION;
  if (then === 'stop') return THEN_STOP;
  return sections.some((section) => section.id === then) ? then : NO_SECTION;
}

/** A track's chain as the launcher takes it. */
export function chainPlan(track: Track): ChainPlan {
  return track.chain ?? { links: [], again: false };
}

/** What a launcher outside the engine must know of a set's patterns. */
export function tapesOf(set: () => BeatSet): Tapes {
  const window = (track: number, slot: number) => {
    const pattern = patternAt(set(), { track, slot });
    return pattern ? windowOf(pattern) : { start: 0, length: 0 };
  };
  return {
    bar: () => ticksPerBar(set().meter),
    span: (track, slot) => window(track, slot).length,
    start: (track, slot) => window(track, slot).start,
  };
}

/** Ticks of one round of a section of a set: its longest loop, made up to whole bars. */
export function roundTicks(set: BeatSet, section: Section): number {
  const launcher = new Launcher(tapesOf(() => set));
  for (const track of tracksOf(set)) launcher.chains[track.id] = chainPlan(track);
  const [plan] = sectionPlans([section]) as [SectionPlan];
  return launcher.roundOf(plan);
}
