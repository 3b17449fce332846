import { MAX_NAME, MAX_SLOTS } from '../document/limits';
import type { Pattern } from '../document/pattern';
import type { Track } from '../document/track';

/** Slots are added by a row. */
export const SLOTS_ADDED = 4;

/** This slot if its pattern is empty, else the next one that is; a new one when all are taken. */
export function freeSlot(track: Track, from: number): number {
  const isFree = (slot: number) => (track.patterns[slot]?.hits.length ?? 0) === 0;
  if (isFree(from)) return from;
  const slots = track.patterns.length;
  for (let i = 1; i < slots; i++) if (isFree((from + i) % slots)) return (from + i) % slots;
  return slots;
}

/** Whether a track can hold one more pattern than it has slots for. */
export function hasRoom(track: Track): boolean {
  return freeSlot(track, 0) < MAX_SLOTS;
}

/** A name with the next number: "Fast Laps", "Fast Laps 2", "Fast Laps 3", whichever is not taken; never longer than MAX_NAME. */
export function nextName(name: string, taken: readonly ({ name: string } | null)[]): string {
  const names = new Set(taken.map((other) => other?.name));
  const [, stem = name, number] = /^(.*?)(?: (\d+))?$/.exec(name) ?? [];
  let n = Number(number ?? 1);
  let next: string;
  do {
    const end = ` ${++n}`;
    next = stem.slice(0, MAX_NAME - end.length) + end;
  } while (names.has(next));
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
