import { NO_SECTION, SILENT, THEN_STOP } from '@/core/launch/launchState';
import { LIFT } from '@/core/launch/launcher';
import type { BeatSet } from '@/core/document/set';
import type { Performance } from '@/store/performance';

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
    add(live.sectionTick, set.sections.find(({ id }) => id === live.nextSection)?.name ?? 'Section');
  add(launcher.fadeTo, 'Faded out');
  for (const { channel, name, patterns } of set.tracks) {
    const change = launcher.nextChange(live, channel);
    // What comes with a section is told by the section's name.
    if (!change || change.tick === live.sectionTick) continue;
    add(change.tick, `${name}: ${change.slot === SILENT ? 'stop' : (patterns[change.slot]?.name ?? 'stop')}`);
  }
  for (const { channel, name } of set.tracks) add(live.muteSoloTick[channel]!, `${name}: mute, solo`);
  const few = (all: string[]) => (all.length > 1 ? `${all.length} changes` : all[0]!);
  return [...lines].sort(([a], [b]) => a - b).map(([tick, all]) => ({ tick, words: few(all) }));
}
