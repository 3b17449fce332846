import { alike } from '../alike';
import { MAX_TRACKS } from '../document/limits';
import { groupedIn } from '../document/mix';
import { freeTrackId, tracksOf, type BeatSet } from '../document/set';
import type { Track } from '../document/track';

/**
 * A set as it was in another version of it; it stays the set that it is. No track loses slots: what is performed may be on them.
 * Patterns that are alike stay the very objects that they are.
 */
export function restored(set: BeatSet, version: BeatSet): BeatSet {
  const tracks = tracksOf(version).map((track) => [track.id, inPlaceOf(set.tracks[track.id], track)] as const);
  const { id, ...rest } = version;
  return { ...rest, ...((set.id ?? id) !== undefined && { id: set.id ?? id }), tracks: Object.fromEntries(tracks) };
}

/**
 * One track as it was in another version of a set: in the place of what it is now, or again below all others if it is gone.
 * Hits whose numbers other tracks have meanwhile get new ones.
 * @returns the set with it; null if there is no such track, or no room for one more
 */
export function withTrackOf(set: BeatSet, version: BeatSet, id: number): BeatSet | null {
  const track = version.tracks[id];
  const now = set.tracks[id];
  if (!track || (!now && set.order.length >= MAX_TRACKS)) return null;
  const others = tracksOf(set).filter((other) => other.id !== id);
  const tracks = { ...set.tracks, [id]: inPlaceOf(now, withFreeIds(groupedIn(set.mix, track), others)) };
  return { ...set, order: now ? set.order : [...set.order, id], tracks };
}

/**
 * A set with more tracks below its own, under ids and with hits that are free in it.
 * @returns the set, and how many tracks found no room
 */
export function withTracks(set: BeatSet, tracks: readonly Track[]): { set: BeatSet; leftOut: number } {
  let now = set;
  const taken = tracks.slice(0, MAX_TRACKS - set.order.length);
  for (const track of taken) {
    const id = freeTrackId(now);
    const added = withFreeIds({ ...groupedIn(set.mix, track), id }, tracksOf(now));
    now = { ...now, order: [...now.order, id], tracks: { ...now.tracks, [id]: added } };
  }
  return { set: now, leftOut: tracks.length - taken.length };
}

function inPlaceOf(now: Track | undefined, track: Track): Track {
  if (!now) return track;
  const missing = Math.max(0, now.patterns.length - track.patterns.length);
  const patterns = track.patterns.map((pattern, slot) => {
    const there = now.patterns[slot];
    return there && alike(pattern, there) ? there : pattern;
  });
  return { ...track, patterns: [...patterns, ...new Array<null>(missing).fill(null)] };
}

/** A track whose hits have no number that one of the others has. */
function withFreeIds(track: Track, others: readonly Track[]): Track {
  const taken = idsOf(others);
  let highest = 0;
  for (const ids of [taken, idsOf([track])]) for (const id of ids) if (id > highest) highest = id;
  const patterns = track.patterns.map((pattern) => {
    if (!pattern?.hits.some(({ id }) => taken.has(id))) return pattern;
    return { ...pattern, hits: pattern.hits.map((hit) => (taken.has(hit.id) ? { ...hit, id: ++highest } : hit)) };
  });
  return { ...track, patterns };
}

function idsOf(tracks: readonly Track[]): Set<number> {
  return new Set(
    tracks.flatMap(({ patterns }) => patterns.flatMap((pattern) => pattern?.hits.map(({ id }) => id) ?? [])),
  );
}
