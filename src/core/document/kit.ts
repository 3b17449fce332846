import type { GridName } from '../quantize/grid';
import { asTaken, type Sound } from './sound';
import { kindNote } from './soundKinds';

/** Another pad that sounds with a pad. */
export interface AlsoPlays {
  pad: number;
  /** How loud: share of the stroke's velocity, 0..1. */
  share: number;
  /** How much later: ms, or a note value. Absent: at once. */
  ms?: number;
  note?: GridName;
}

/** Most other pads that a pad plays itself, and most that sound by one stroke in all, through those that they play in turn. */
export const MOST_ALSO = 3;
export const MOST_AT_ONCE = 15;
export const MOST_DELAY_MS = 1000;

/** What lies on one pad of a kit. */
export interface KitPad {
  sound: Sound;
  /** MIDI note by which the pad is played and written. */
  note: number;
  alsoPlays?: AlsoPlays[];
}

/** The sounds of a track, and how they belong together. */
export interface Kit {
  name: string;
  /** Pad 0 is bottom left; 16 of them. */
  pads: KitPad[];
  /** Pads that cut each other off: no pad is in two of the groups. */
  cutGroups: number[][];
}

/** A kit as it is when it is taken from the shelf: what is made of its sounds from now on can be taken back. */
export function kitAsTaken(kit: Kit): Kit {
  return { ...kit, pads: kit.pads.map((pad) => ({ ...pad, sound: asTaken(pad.sound) })) };
}

/** The pads that a pad cuts off and that cut it off, without itself. */
export function cutsOf({ cutGroups }: Pick<Kit, 'cutGroups'>, pad: number): number[] {
  return (cutGroups.find((group) => group.includes(pad)) ?? []).filter((other) => other !== pad);
}

/**
 * The groups in which a pad cuts off exactly these others: they leave the groups that they were in.
 * @example withCuts([[4, 5, 6]], 4, [6]) // [[4, 6]]
 */
export function withCuts(
  cutGroups: readonly (readonly number[])[],
  pad: number,
  others: readonly number[],
): number[][] {
  const group = [...new Set([pad, ...others])].sort((a, b) => a - b);
  const rest = cutGroups.map((old) => old.filter((one) => !group.includes(one)));
  return [...rest, group].filter((one) => one.length > 1);
}

/** A pad that sounds by a stroke of another one: how loud in all, and how much later. */
export interface Reached {
  pad: number;
  share: number;
  ms: number;
  /** Note values of its delays, in the order of the way to it. */
  notes: GridName[];
}

type Network = readonly Pick<KitPad, 'alsoPlays'>[];

/**
 * All that sounds by a stroke of a pad, through every way from pad to pad, without the pad itself.
 * @returns null if the pads play each other in a circle, or more than MOST_AT_ONCE would sound
 */
export function reachedBy(pads: Network, pad: number): Reached[] | null {
  const reached: Reached[] = [];
  const follow = (from: number, way: readonly number[], { share, ms, notes }: Omit<Reached, 'pad'>): boolean =>
    (pads[from]?.alsoPlays ?? []).every((also) => {
      const next = { pad: also.pad, share: share * also.share, ms: ms + (also.ms ?? 0), notes: also.note ? [...notes, also.note] : notes }; // prettier-ignore
      if (way.includes(also.pad) || reached.length >= MOST_AT_ONCE) return false;
      reached.push(next);
      return follow(also.pad, [...way, also.pad], next);
    });
  return follow(pad, [pad], { share: 1, ms: 0, notes: [] }) ? reached : null;
}

/** The first pad from which too much would sound, or a circle begins; -1 if there is none. */
export function overreaching(pads: Network): number {
  return pads.findIndex((_, pad) => reachedBy(pads, pad) === null);
}

/**
 * A pad with another sound: its place in the kit stays as it is. Its note becomes that of the sound's kind, unless another pad has
 * that one.
 */
export function withSound(pads: readonly KitPad[], pad: number, sound: Sound): KitPad {
  const own = pads[pad]!;
  const note = kindNote(sound.kind);
  const isFree = note !== null && !pads.some((other, i) => i !== pad && other.note === note);
  return { ...own, sound, note: isFree ? note : own.note };
}
