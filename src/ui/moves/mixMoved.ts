import { createSelector } from '@reduxjs/toolkit';
import type { MixControl } from '@/core/document/mix';
import type { MovedChannel, MovedMix } from '@/core/document/moves';
import { selectPattern, selectSet, selectTrack } from '@/store/selectors';

/** What is ridden most of each channel. All others can be ridden in the place Mix. */
const RIDDEN: Record<MovedChannel, readonly MixControl[]> = {
  track: ['level', 'pan', 'filter', 'room', 'echo'],
  group: ['level', 'pan', 'filter', 'room', 'echo'],
  whole: ['level', 'filter'],
};

/** A channel that the shown track's patterns can move. */
export interface MovableChannel {
  on: MovedChannel;
  name: string;
  /** Those that are ridden most, and all that the shown pattern moves. */
  moved: MovedMix[];
}

/** The channels that the shown track's patterns can move. */
export const selectMovableChannels = createSelector(
  [selectTrack, selectPattern, (state: Parameters<typeof selectSet>[0]) => selectSet(state).mix?.groups],
  ({ name, goesTo }, pattern, groups): MovableChannel[] => {
    const group = groups?.find(({ id }) => id === goesTo);
    const channels: { on: MovedChannel; name: string }[] = [
      { on: 'track', name },
      ...(group ? [{ on: 'group', name: group.name } as const] : []),
      { on: 'whole', name: 'Whole mix' },
    ];
    return channels.map((channel) => {
      const { on } = channel;
      const present = (pattern?.moves ?? []).flatMap((move) => ('on' in move && move.on === on ? [move.control] : []));
      const controls = [...new Set([...RIDDEN[on], ...present])];
      return { ...channel, moved: controls.map((control): MovedMix => ({ on, control })) };
    });
  },
);
