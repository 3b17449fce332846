import { hits, pattern, type Rig } from '../engine/rig.testing';
import { LEAVE, NO_SECTION, SILENT } from './launchState';
import type { SectionPlan } from './launchRules';

/** A section that does so with the first tracks, and leaves the others. */
export const section = (id: number, parts: number[], rounds = 1, then = NO_SECTION): SectionPlan => {
  const all = Array.from({ length: 16 }, (_, t) => parts[t] ?? LEAVE);
  return { id, parts: all, rounds, then };
};

/** Tracks with patterns of these lengths (ticks) in their slots, each with one hit at its top. */
export function band(rig: Rig, lengths: readonly (readonly number[])[]): Rig {
  lengths.forEach((slots, track) =>
    slots.forEach((length, slot) =>
      rig.tell(pattern({ track, slot, length, hits: hits([0, 0, 1 + 2 * (slot + 100 * track)]) })),
    ),
  );
  return rig.tell({ type: 'launch', track: 0, slot: SILENT, on: 0, inPlace: false }, { type: 'tempo', bpm: 120 });
}
