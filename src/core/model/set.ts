import type { GridName } from '../timing/grid';
import type { Snap } from '../timing/place';
import { ticksPerBar, type Meter } from '../time/ticks';
import type { KitId } from './kits';

/** The version of the document's shape. Raise it with a migration whenever the shape changes. */
export const SCHEMA_VERSION = 1;

export const PADS = 16;
export const PATTERN_SLOTS = 16;
export const MAX_TRACKS = 16;
/** Far above what hands can play into a pattern; a bound so that a broken file cannot freeze the app. */
export const MAX_HITS = 20000;
export const LOOP_BARS = [1, 2, 4, 8] as const;

/** One stroke, as it was played and how it is placed. Placing is computed on the way to the ear (see `placedTick`). */
export interface Hit {
  /** Unique within the set. */
  id: number;
  /** 0..15; pad 0 is bottom left. */
  pad: number;
  /**
   * Struck time in ticks from the loop's start, with its fraction. Slightly below 0 when the stroke came just before
   * the loop's first step, to which it belongs.
   */
  tick: number;
  /** How long the pad was held, in ticks. */
  length: number;
  /** 0..1 */
  velocity: number;
  /** The pull towards a grid, or null to sound as struck. */
  snap: Snap | null;
}

export interface Pattern {
  name: string;
  /** The loop's length in ticks: hits placed at or after it are kept and silent. */
  length: number;
  hits: Hit[];
}

export interface Track {
  name: string;
  /** Index of a feather tone of the theme, 0..7. */
  colour: number;
  kit: KitId;
  /** 0..1 */
  level: number;
  mute: boolean;
  /** Pattern slots; an unused slot is null. */
  patterns: (Pattern | null)[];
  /** The slot that plays and is edited. */
  current: number;
}

export type CountIn = 0 | 1 | 2;

/** Everything of one set: the one document that is stored, undone and exported. */
export interface BeatSet {
  schema: typeof SCHEMA_VERSION;
  name: string;
  /** Quarter notes per minute. */
  tempo: number;
  meter: Meter;
  metronome: { on: boolean; level: number };
  /** Bars counted before recording. */
  countIn: CountIn;
  inputQuantize: { on: boolean; grid: GridName };
  tracks: Track[];
}

/** The pattern that plays on a track, or null when its slot is empty. */
export function currentPattern(track: Track): Pattern | null {
  return track.patterns[track.current] ?? null;
}

/** Length of a pattern in bars of the meter. */
export function loopBars(pattern: Pattern, meter: Meter): number {
  return pattern.length / ticksPerBar(meter);
}

/** The snap that a new hit starts with. */
export function inputSnap(set: Pick<BeatSet, 'inputQuantize'>, ticksOf: (g: GridName) => number): Snap | null {
  return set.inputQuantize.on ? { grid: ticksOf(set.inputQuantize.grid), strength: 1 } : null;
}

/** An id that no hit of the set has. */
export function nextHitId(set: BeatSet): number {
  let highest = 0;
  for (const track of set.tracks) {
    for (const pattern of track.patterns) {
      for (const hit of pattern?.hits ?? []) highest = Math.max(highest, hit.id);
    }
  }
  return highest + 1;
}
