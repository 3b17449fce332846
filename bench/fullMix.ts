import { MAX_TRACKS } from '@/core/document/limits';
import { FIRST_GROUP_CHANNEL, MAX_GROUPS, WHOLE_CHANNEL, type MixControl } from '@/core/document/mix';
import type { Instruction } from '@/core/protocol/commands';

/** Every track, four groups and the whole mix with everything on, the tracks through the groups, and all of them to the echo. */
export function fullMix(): Instruction[] {
  const settings = { low: 3, bell: -4, bellHz: 800, high: 2, ratio: 4, threshold: -24, drive: 0.5, filter: -0.2, pan: 0.3, room: 0.2, echo: 0.3 }; // prettier-ignore
  const channels = [...Array(MAX_TRACKS).keys(), ...Array.from({ length: MAX_GROUPS + 1 }, (_, i) => FIRST_GROUP_CHANNEL + i)]; // prettier-ignore
  return [
    ...channels.flatMap((channel) =>
      Object.entries(settings)
        .filter(([control]) => channel !== WHOLE_CHANNEL || !['pan', 'room', 'echo'].includes(control))
        .map(([control, value]): Instruction => ({ type: 'channel', channel, control: control as MixControl, value })),
    ),
    ...Array.from({ length: MAX_TRACKS }, (_, channel): Instruction => ({ type: 'goesTo', channel, group: channel % MAX_GROUPS })), // prettier-ignore
  ];
}
