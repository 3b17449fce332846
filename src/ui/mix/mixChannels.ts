import { createSelector } from '@reduxjs/toolkit';
import { FIRST_GROUP_CHANNEL, WHOLE_CHANNEL, type ChannelSettings } from '@/core/document/mix';
import { tracksOf, type BeatSet } from '@/core/document/set';
import { selectSet } from '@/store/selectors';

/** One channel of the mix as the place shows it. */
export interface ShownChannel {
  /** The engine's number. */
  channel: number;
  kind: 'track' | 'group' | 'whole';
  name: string;
  /** Index of a feather tone. */
  colour: number;
  /** 0..1 */
  level: number;
  settings: ChannelSettings;
  /** Ids of the tracks that come through it; none of the whole mix, of which that says nothing. */
  tracks: number[];
  /** Pads of tracks that come to it past those tracks' channels. */
  pads: { track: number; pad: number }[];
  /** Id of the group that it goes to. */
  to?: number;
}

const NONE: ChannelSettings = {};

/** What goes through a group, at once or by way of another one: ids of tracks, and pads. */
function through(set: BeatSet, group: number): Pick<ShownChannel, 'tracks' | 'pads'> {
  const ways = new Set([group, ...(set.mix?.groups ?? []).flatMap(({ id, to }) => (to === group ? [id] : []))]);
  const tracks = tracksOf(set);
  return {
    tracks: tracks.flatMap(({ id, goesTo }) => (goesTo !== undefined && ways.has(goesTo) ? [id] : [])),
    pads: tracks.flatMap(({ id, tones, padsTo = [] }) =>
      tones ? [] : padsTo.flatMap((way) => (ways.has(way.group) ? [{ track: id, pad: way.pad }] : [])),
    ),
  };
}

/** All channels: tracks from top to bottom, groups, the whole mix. */
export const selectChannels = createSelector([selectSet], (set): ShownChannel[] => {
  const tracks = tracksOf(set).map(({ id, name, colour, level, channel = NONE, goesTo }): ShownChannel => ({
    channel: id,
    kind: 'track',
    name,
    colour,
    level,
    settings: channel,
    tracks: [id],
    pads: [],
    ...(goesTo !== undefined && { to: goesTo }),
  }));
  const groups = (set.mix?.groups ?? []).map(({ id, name, colour, level, settings = NONE, to }): ShownChannel => ({
    channel: FIRST_GROUP_CHANNEL + id,
    kind: 'group',
    name,
    colour,
    level,
    settings,
    ...through(set, id),
    ...(to !== undefined && { to }),
  }));
  const { whole = NONE, level = 1 } = set.mix ?? {};
  return [...tracks, ...groups, { channel: WHOLE_CHANNEL, kind: 'whole', name: 'Whole mix', colour: 0, level, settings: whole, tracks: [], pads: [] }];
}); // prettier-ignore
