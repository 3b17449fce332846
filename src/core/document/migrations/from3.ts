import { isPlain, type Plain } from '../../plain';

/** 4: tracks have channels, of which one is shown and by which they are named; sections, and how they are launched. */
export function from3(set: Plain): Plain {
  const tracks = Array.isArray(set.tracks)
    ? set.tracks.map((track: unknown, channel) => (isPlain(track) ? { channel, ...track } : track))
    : set.tracks;
  const launching = { dropOn: 'bar', override: 'now', inPlace: false };
  return { shown: 0, launching, sections: [], ...set, tracks, schema: 4 };
}
