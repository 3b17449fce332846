import { NO_SECTION, SILENT, THEN_STOP } from '@/core/launch/launchState';
import { LIFT } from '@/core/launch/launcher';
import { tracksOf, type BeatSet } from '@/core/document/set';
import type { Performance } from '@/instrument/performance';

/** All that is to change, in order of time: what changes on one line is one entry. */
export function coming({ launcher }: Performance, set: BeatSet): { tick: number; words: string }[] {
  const { live } = launcher;
  const lines = new Map<number, string[]>();
  const add = (tick: number, words: string) => {
    if (tick < Infinity) lines.set(tick, [...(lines.get(tick) ?? []), words]);
  };
  if (launcher.lift === LIFT.RETURNING) add(launcher.liftTick, 'Lift returns');
  if (live.nextSection === THEN_STOP) add(live.sectionTick, 'All stops');
  else if (live.nextSection !== NO_SECTION)
    add(live.sectionTick, set.sections.find((section) => section.id === live.nextSection)?.name ?? 'Section');
  add(launcher.fadeTo, 'Faded out');
  for (const { id, name, patterns } of tracksOf(set)) {
    const change = launcher.nextChange(live, id);
    // What comes with a section is told by the section's name.
    if (!change || change.tick === live.sectionTick) continue;
    add(change.tick, `${name}: ${change.slot === SILENT ? 'stop' : (patterns[change.slot]?.name ?? 'stop')}`);
  }
  for (const { id, name } of tracksOf(set)) add(live.muteSoloTick[id]!, `${name}: mute, solo`);
  const few = (all: string[]) => (all.length > 1 ? `${all.length} changes` : all[0]!);
  return [...lines].sort(([a], [b]) => a - b).map(([tick, all]) => ({ tick, words: few(all) }));
}
