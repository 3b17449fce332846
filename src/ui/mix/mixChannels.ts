import { createSelector } from '@reduxjs/toolkit';
import { FIRST_GROUP_CHANNEL, WHOLE_CHANNEL, type ChannelSettings } from '@/core/document/mix';
import { tracksOf } from '@/core/document/set';
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
  /** Id of the group that it goes to. */
  to?: number;
}

const NONE: ChannelSettings = {};

/** All channels: tracks from top to bottom, groups, the whole mix. */
export const selectChannels = createSelector([selectSet], (set): ShownChannel[] => {
  const tracks = tracksOf(set).map(({ id, name, colour, level, channel = NONE, goesTo }): ShownChannel => ({
    channel: id,
    kind: 'track',
    name,
    colour,
    level,
    settings: channel,
    ...(goesTo !== undefined && { to: goesTo }),
  }));
  const groups = (set.mix?.groups ?? []).map(({ id, name, colour, level, settings = NONE, to }): ShownChannel => ({
    channel: FIRST_GROUP_CHANNEL + id,
    kind: 'group',
    name,
    colour,
    level,
    settings,
    ...(to !== undefined && { to }),
  }));
  const { whole = NONE, level = 1 } = set.mix ?? {};
  return [...tracks, ...groups, { channel: WHOLE_CHANNEL, kind: 'whole', name: 'Whole mix', colour: 0, level, settings: whole }];
}); // prettier-ignore
