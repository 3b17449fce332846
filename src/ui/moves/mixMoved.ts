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
  /** What its controls are set to; those that are absent are neutral. */
  settings: Partial<Record<MixControl, number>>;
}

/** The channels that the shown track's patterns can move. */
export const selectMovableChannels = createSelector(
  [selectTrack, selectPattern, (state: Parameters<typeof selectSet>[0]) => selectSet(state).mix],
  ({ name, goesTo, level, channel }, pattern, mix): MovableChannel[] => {
    const group = mix?.groups?.find(({ id }) => id === goesTo);
    const channels: Omit<MovableChannel, 'moved'>[] = [
      { on: 'track', name, settings: { ...channel, level } },
      ...(group
        ? [{ on: 'group', name: group.name, settings: { ...group.settings, level: group.level } } as const]
        : []),
      { on: 'whole', name: 'Whole mix', settings: { ...mix?.whole, level: mix?.level ?? 1 } },
    ];
    return channels.map((channel) => {
      const { on } = channel;
      const present = (pattern?.moves ?? []).flatMap((move) => ('on' in move && move.on === on ? [move.control] : []));
      const controls = [...new Set([...RIDDEN[on], ...present])];
      return { ...channel, moved: controls.map((control): MovedMix => ({ on, control })) };
    });
  },
);
