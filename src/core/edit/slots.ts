import { emptyPattern } from '../document/create';
import { MAX_SLOTS, type Pattern, type Track } from '../document/set';
import type { Meter } from '../time/ticks';

/** Slots are added by a row. */
export const SLOTS_ADDED = 4;

/** The current slot if its pattern is empty, else the next one that is; a new one when all are taken. */
export function freeSlot(track: Track): number {
  const isFree = (slot: number) => (track.patterns[slot]?.hits.length ?? 0) === 0;
  if (isFree(track.current)) return track.current;
  const slots = track.patterns.length;
  for (let i = 1; i < slots; i++) if (isFree((track.current + i) % slots)) return (track.current + i) % slots;
  return slots;
}

/** Whether a track can hold one more pattern than it has slots for. */
export function hasRoom(track: Track): boolean {
  return freeSlot(track) < MAX_SLOTS;
}

/** A name with the next number: "Fast Laps", "Fast Laps 2", "Fast Laps 3", whichever is not taken. */
export function nextName(name: string, taken: readonly ({ name: string } | null)[]): string {
  const names = new Set(taken.map((other) => other?.name));
  const [, stem = name, number] = /^(.*?)(?: (\d+))?$/.exec(name) ?? [];
  let n = Number(number ?? 1);
  let next: string;
  do next = `${stem} ${++n}`;
  while (names.has(next));
  return next;
}

/**
 * A pattern again, under a name of its own.
 * @param newId called for the id of each hit
 */
export function copyOf(pattern: Pattern, taken: readonly (Pattern | null)[], newId: () => number): Pattern {
  return {
    ...pattern,
    name: nextName(pattern.name, taken),
    hits: pattern.hits.map((hit) => ({ ...hit, id: newId() })),
  };
}

/** A new, empty pattern for a slot. */
export function newPattern(slot: number, meter: Meter): Pattern {
  return emptyPattern(`Pattern ${slot + 1}`, meter);
}
