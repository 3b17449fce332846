import { ANY_PAD, ECHO_TIMES, FIRST_ECHO, FIRST_GROUP_CHANNEL, FIRST_ROOM, MIX_CONTROLS, MIX_RANGES, NO_KEY, TO_WHOLE, WHOLE_CHANNEL, WITH_TRACK, type ChannelSettings, type Echo, type Group, type Mix } from '../document/mix'; // prettier-ignore
import type { Track } from '../document/track';
import type { Instruction } from './commands';

/** What an engine must be told of a channel's settings, since it was told others. */
export function channelChanges(
  channel: number,
  old: ChannelSettings | undefined,
  settings: ChannelSettings | undefined,
): Instruction[] {
  if (old === settings) return [];
  const turned = MIX_CONTROLS.flatMap((control): Instruction[] => {
    if (control === 'level') return [];
    const value = settings?.[control];
    if (value === old?.[control]) return [];
    return [{ type: 'channel', channel, control, value: value ?? MIX_RANGES[control].neutral }];
  });
  const [key, before] = [settings?.duckedBy, old?.duckedBy];
  if (key?.track === before?.track && key?.pad === before?.pad) return turned;
  return [...turned, { type: 'duckedBy', channel, ...(key ?? { track: NO_KEY, pad: ANY_PAD }) }];
}

/** Where a track or a group goes. */
export function goesToChange(channel: number, old: number | undefined, group: number | undefined): Instruction[] {
  return old === group ? [] : [{ type: 'goesTo', channel, group: group ?? TO_WHOLE }];
}

type Going = Pick<Track, 'id' | 'goesTo' | 'padsTo' | 'tones'>;

/** Where a track and the pads of its kit go, since an engine was told otherwise of it. */
export function wayChanges(old: Going | undefined, track: Going): Instruction[] {
  const { id } = track;
  const [before, after] = [padWays(old), padWays(track)];
  const pads = [...new Set([...before.keys(), ...after.keys()])].filter((pad) => before.get(pad) !== after.get(pad));
  return [
    ...goesToChange(id, old?.goesTo, track.goesTo),
    ...pads.map((pad): Instruction => ({ type: 'padGoesTo', track: id, pad, group: after.get(pad) ?? WITH_TRACK })),
  ];
}

/** Groups by pad. Notes all go with their track. */
function padWays({ padsTo = [], tones }: Partial<Going> = {}): ReadonlyMap<number, number> {
  return new Map(tones ? [] : padsTo.map(({ pad, group }) => [pad, group]));
}

/** What an engine must be told of the mix beside its tracks' own channels. */
export function mixChanges(old: Mix | undefined, mix: Mix | undefined): Instruction[] {
  if (old === mix) return [];
  const out: Instruction[] = [];
  if (mix?.echo !== old?.echo) out.push(echoInstruction(mix?.echo ?? FIRST_ECHO));
  if (mix?.room !== old?.room) out.push({ type: 'room', ...(mix?.room ?? FIRST_ROOM) });
  for (let id = FIRST_GROUP_CHANNEL; id < WHOLE_CHANNEL; id++) {
    const of = (groups: readonly Group[] = []) => groups.find((group) => group.id === id - FIRST_GROUP_CHANNEL);
    out.push(...groupChanges(id, of(old?.groups), of(mix?.groups)));
  }
  out.push(...channelChanges(WHOLE_CHANNEL, old?.whole, mix?.whole));
  if (mix?.level !== old?.level) {
    out.push({ type: 'channel', channel: WHOLE_CHANNEL, control: 'level', value: mix?.level ?? 1 });
  }
  return out;
}

function groupChanges(channel: number, old: Group | undefined, group: Group | undefined): Instruction[] {
  const level: Instruction[] =
    group?.level === old?.level ? [] : [{ type: 'channel', channel, control: 'level', value: group?.level ?? 1 }];
  return [
    ...level,
    ...goesToChange(channel, old?.to, group?.to),
    ...channelChanges(channel, old?.settings, group?.settings),
  ];
}

/** @returns what the echo is told by the engine's command */
export function echoInstruction({ time, ...rest }: Echo): Instruction<'echo'> {
  return typeof time === 'number'
    ? { type: 'echo', ticks: 0, ms: time, ...rest }
    : { type: 'echo', ticks: ECHO_TIMES[time], ms: 0, ...rest };
}
