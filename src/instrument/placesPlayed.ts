import type { PatternPlace } from '@/core/document/pattern';
import type { BeatSet } from '@/core/document/set';
import { CHAIN } from '@/core/launch/launchState';
import type { Instruction } from '@/core/protocol/commands';

/** Where the patterns lie that an instruction will play. */
export function placesPlayed(set: BeatSet, instruction: Instruction): PatternPlace[] {
  const chained = (track: number) => set.tracks[track]?.chain?.links.map(({ slot }) => ({ track, slot })) ?? [];
  if (instruction.type === 'launch') {
    const { track, slot } = instruction;
    return slot === CHAIN ? chained(track) : [{ track, slot }];
  }
  if (instruction.type !== 'launchSection') return [];
  const parts = set.sections.find(({ id }) => id === instruction.section)?.parts ?? [];
  return parts.flatMap(({ track, plays }) => (typeof plays === 'number' ? [{ track, slot: plays }] : chained(track)));
}
