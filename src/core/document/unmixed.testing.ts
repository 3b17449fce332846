import type { OpenSet } from './set';

/** A set as it would be if nothing had been done in its mix. */
export function unmixed({ set, stage }: OpenSet): OpenSet {
  const { mix: _, ...rest } = set;
  const tracks = Object.values(set.tracks).map(({ channel: __, goesTo: ___, ...track }) => [track.id, track] as const);
  return { set: { ...rest, tracks: Object.fromEntries(tracks) }, stage };
}
