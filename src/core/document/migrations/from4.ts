import { isPlain, type Plain } from '../../plain';

/**
 * 5: tracks are a record by id (which was called their channel) and a list of ids; what is being performed (the slot that
 * plays, stopped, mute, solo, the shown track) lies apart from what was made.
 */
export function from4({ shown, ...set }: Plain): Plain {
  const list: unknown[] = Array.isArray(set.tracks) ? set.tracks : [];
  const tracks: Plain = {};
  const stages: Plain = {};
  const order = list.map((track, i) => {
    const {
      channel = i,
      current = 0,
      stopped = false,
      mute = false,
      solo = false,
      ...rest
    } = isPlain(track) ? track : {};
    const id = channel as number;
    tracks[id] = isPlain(track) ? { id, ...rest } : track;
    stages[id] = { slot: current, stopped, mute, solo };
    return id;
  });
  const sections = Array.isArray(set.sections) ? set.sections.map(withTracks) : set.sections;
  const { trace, ...rest } = set;
  return {
    ...rest,
    schema: 5,
    tracks: Array.isArray(set.tracks) ? tracks : set.tracks,
    order,
    sections,
    stage: { shown, tracks: stages },
    ...(trace !== undefined && { trace: placeOf(trace) }),
  };
}

function withTracks(section: unknown): unknown {
  if (!isPlain(section) || !Array.isArray(section.parts)) return section;
  return { ...section, parts: section.parts.map(placeOf) };
}

/** What named a track by its channel names it by its id. The first documents of version 4 said `track` where they traced. */
function placeOf(named: unknown): unknown {
  if (!isPlain(named)) return named;
  const { channel, track, ...rest } = named;
  return { track: channel ?? track, ...rest };
}
