import { createSelector } from '@reduxjs/toolkit';
import { FIRST_ECHO, FIRST_ROOM, type MixControl } from '@/core/document/mix';
import type { MovedChannel, MovedInMix, MovedMix } from '@/core/document/moves';
import { ECHO_TIME_NAMES, RETURN_CONTROLS, RETURN_NAMES, type MovedReturn, type Return } from '@/core/document/returns';
import { selectPattern, selectSet, selectTrack } from '@/store/selectors';

/** What is ridden most of each channel. All others can be ridden in the place Mix. */
const RIDDEN: Record<MovedChannel, readonly MixControl[]> = {
  track: ['level', 'pan', 'filter', 'room', 'echo'],
  group: ['level', 'pan', 'filter', 'room', 'echo'],
  whole: ['level', 'filter'],
};

/** A channel that the shown track's patterns can move, or the echo or the room. */
export interface MovableChannel {
  on: MovedChannel | Return;
  name: string;
  /** Of a channel those that are ridden most, and all that the shown pattern moves. */
  moved: MovedInMix[];
  /** What its controls are set to; those that are absent are neutral. */
  settings: Partial<Record<MixControl | MovedReturn['control'], number>>;
}

/** The channels that the shown track's patterns can move, and the echo and the room. */
export const selectMovableChannels = createSelector(
  [selectTrack, selectPattern, (state: Parameters<typeof selectSet>[0]) => selectSet(state).mix],
  ({ name, goesTo, level, channel }, pattern, mix): MovableChannel[] => {
    const group = mix?.groups?.find(({ id }) => id === goesTo);
    const channels: (Omit<MovableChannel, 'moved'> & { on: MovedChannel })[] = [
      { on: 'track', name, settings: { ...channel, level } },
      ...(group
        ? [{ on: 'group', name: group.name, settings: { ...group.settings, level: group.level } } as const]
        : []),
      { on: 'whole', name: 'Whole mix', settings: { ...mix?.whole, level: mix?.level ?? 1 } },
    ];
    const ofChannels = channels.map((channel) => {
      const { on } = channel;
      const present = (pattern?.moves ?? []).flatMap((move) =>
        'on' in move && move.on === on ? [move.control as MixControl] : [],
      );
      const controls = [...new Set([...RIDDEN[on], ...present])];
      return { ...channel, moved: controls.map((control): MovedMix => ({ on, control })) };
    });
    const { time, tape: _, ...shares } = mix?.echo ?? FIRST_ECHO;
    const settings: Record<Return, MovableChannel['settings']> = {
      echo: { ...shares, ...(typeof time === 'string' && { time: ECHO_TIME_NAMES.indexOf(time) }) },
      room: { ...(mix?.room ?? FIRST_ROOM) },
    };
    const returns = (['echo', 'room'] as const).map((on) => ({
      on,
      name: RETURN_NAMES[on],
      moved: RETURN_CONTROLS.filter((one) => one.on === on),
      settings: settings[on],
    }));
    return [...ofChannels, ...returns];
  },
);
