import { isPlain, type Plain } from '../../plain';
import { POLISHED_FLOOR } from '../kits';

/** 7: a track has its kit as a document of its own, in the place of the name of one; and notes have settings of their sound. */
export function from6(set: Plain): Plain {
  if (!isPlain(set.tracks)) return { ...set, schema: 7 };
  const tracks = Object.entries(set.tracks).map(([id, track]) => [id, withKit(track)]);
  return { ...set, schema: 7, tracks: Object.fromEntries(tracks) as Plain };
}

function withKit(track: unknown): unknown {
  return isPlain(track) && track.kit === 'polished-floor' ? { ...track, kit: POLISHED_FLOOR } : track;
}
