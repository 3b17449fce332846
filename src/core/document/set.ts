import { originOf } from '../difference';
import type { GridName } from '../quantize/grid';
import type { Meter } from '../time/ticks';
import type { Stage } from './stage';
import type { Hit } from './hit';
import type { Mix } from './mix';
import type { Pattern, PatternPlace } from './pattern';
import type { Track } from './track';
import type { Section } from './section';
import type { Launching } from './launching';
import type { Metronome } from './metronome';

/** The version of the document's shape. Raise it with a migration whenever the shape changes. */
export const SCHEMA_VERSION = 7;

export type CountIn = 0 | 1 | 2;

/** The meters that a set can have. */
export const METERS: readonly Meter[] = [
  { beats: 2, unit: 4 },
  { beats: 3, unit: 4 },
  { beats: 4, unit: 4 },
  { beats: 5, unit: 4 },
  { beats: 6, unit: 8 },
  { beats: 7, unit: 8 },
  { beats: 12, unit: 8 },
];

/** Everything of one set that was made: the one document that is stored, undone and exported. */
export interface BeatSet {
  schema: typeof SCHEMA_VERSION;
  /** Names the set among the sets of this device; absent until it was opened or changed here. */
  id?: string;
  name: string;
  /** What the player wrote about it. */
  note?: string;
  /** The set that it was duplicated from, by its id and its name at that time. */
  from?: { id: string; name: string };
  /** Quarter notes per minute. */
  tempo: number;
  meter: Meter;
  metronome: Metronome;
  /** Bars counted before recording. */
  countIn: CountIn;
  inputQuantize: { on: boolean; grid: GridName };
  /** By id, so that moving a track changes no other. */
  tracks: Record<number, Track>;
  /** Ids of all tracks, from top to bottom. */
  order: number[];
  launching: Launching;
  sections: Section[];
  mix?: Mix;
  /** The pattern that is shown beneath the one being edited. */
  trace?: PatternPlace;
}

/** A set with how it is being performed: what is opened and stored as one. */
export interface OpenSet {
  set: BeatSet;
  stage: Stage;
}

/** The tracks of a set, from top to bottom. */
export function tracksOf({ tracks, order }: Pick<BeatSet, 'tracks' | 'order'>): Track[] {
  return order.map((id) => tracks[id]!);
}

/** The pattern at a place, or null when there is none. */
export function patternAt({ tracks }: Pick<BeatSet, 'tracks'>, { track, slot }: PatternPlace): Pattern | null {
  return tracks[track]?.patterns[slot] ?? null;
}

/** An id that no track of the set has. */
export function freeTrackId({ tracks }: Pick<BeatSet, 'tracks'>): number {
  let id = 0;
  while (tracks[id]) id++;
  return id;
}

/** An id that no hit of the set has. */
export function nextHitId(set: BeatSet): number {
  let highest = 0;
  for (const track of tracksOf(set))
    for (const pattern of track.patterns) highest = Math.max(highest, highestId(pattern));
  return highest + 1;
}

const highest = new WeakMap<readonly Hit[], number>();

/**
 * The highest id in a pattern: looked for once for each list of hits, since it is asked for after every change. A list that was
 * made from another is looked at where it differs.
 */
function highestId(pattern: Pattern | null): number {
  if (!pattern) return 0;
  const { hits } = pattern;
  let found = highest.get(hits);
  if (found === undefined) {
    found = highestAfterChange(hits) ?? highestOf(hits);
    highest.set(hits, found);
  }
  return found;
}

/** Null if all must be looked at. */
function highestAfterChange(hits: Hit[]): number | null {
  const origin = originOf(hits);
  const before = origin && highest.get(origin.from);
  if (before === undefined) return null;
  const { start, oldEnd, end } = origin!.difference;
  const come = highestOf(hits.slice(start, end));
  if (come >= before) return come;
  return highestOf(origin!.from.slice(start, oldEnd)) < before ? before : null;
}

function highestOf(hits: readonly Hit[]): number {
  let found = 0;
  for (const { id } of hits) if (id > found) found = id;
  return found;
}
