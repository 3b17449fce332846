import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { demoSet } from '@/core/document/demo';
import { MAX_NAME, MAX_TRACKS } from '@/core/document/limits';
import { FIRST_ECHO, FIRST_GROUP_CHANNEL, FIRST_ROOM, MAX_GROUPS, MIX_RANGES, WHOLE_CHANNEL, groupedIn, type ChannelSettings, type DuckKey, type Echo, type Group, type MixControl, type RoomSettings } from '@/core/document/mix'; // prettier-ignore
import { tracksOf, type BeatSet } from '@/core/document/set';
import { undoStep } from './undoable';

/** A channel of the mix by the engine's number: a track's id, a group, or the whole mix. */
interface OfChannel {
  channel: number;
}

type Turned = OfChannel & {
  control: Exclude<MixControl, 'level'>;
  /** Null: as it is by itself. */
  value: number | null;
  /** All changes of one gesture are one step of undo. */
  gesture: string;
};
type Keyed = OfChannel & { key: DuckKey | null };
type Levelled = OfChannel & { level: number };
type Sent = OfChannel & {
  /** Id of a group; null: the whole mix. */
  to: number | null;
};
type PadsSent = {
  track: number;
  pads: number[];
  /** Id of a group; null: with the track. */
  to: number | null;
};
type Named = { id: number; name: string };
type EchoChange = { change: Partial<Echo>; gesture: string };
type RoomChange = { change: Partial<RoomSettings>; gesture: string };

/** dB by which what begins to duck does. */
const FIRST_DUCK = 10;

/** The group of a channel, if it is one. */
const groupOf = ({ mix }: BeatSet, channel: number): Group | undefined =>
  mix?.groups?.find(({ id }) => id === channel - FIRST_GROUP_CHANNEL);

/** A channel's settings; they are made where there are none yet. Null where there is no such channel. */
function settingsOf(set: BeatSet, channel: number): ChannelSettings | null {
  if (channel === WHOLE_CHANNEL) return ((set.mix ??= {}).whole ??= {});
  if (channel >= MAX_TRACKS) {
    const group = groupOf(set, channel);
    return group ? (group.settings ??= {}) : null;
  }
  const track = set.tracks[channel];
  return track ? (track.channel ??= {}) : null;
}

/** The mix: what the channels do, where they go, the echo and the room. Levels are performed, and no step of undo. */
const slice = createSlice({
  name: 'mix',
  initialState: demoSet().set,
  reducers: {
    channelTurned: {
      reducer(set, { payload: { channel, control, value } }: PayloadAction<Turned>) {
        const settings = settingsOf(set, channel);
        if (!settings) return;
        const { min, max, neutral } = MIX_RANGES[control];
        if (value === null || value === neutral) delete settings[control];
        else settings[control] = Math.min(max, Math.max(min, value));
      },
      prepare: undoStep<Turned>('mix', ({ gesture }) => gesture),
    },
    /** What has a channel duck; null: nothing. One that begins to goes down by so much that it is heard. */
    duckedBySet: {
      reducer(set, { payload: { channel, key } }: PayloadAction<Keyed>) {
        const settings = settingsOf(set, channel);
        if (!settings) return;
        if (!key) delete settings.duckedBy;
        else {
          settings.duckedBy = key;
          settings.duck ??= FIRST_DUCK;
        }
      },
      prepare: undoStep<Keyed>('ducking'),
    },
    channelLevelSet(set, { payload: { channel, level } }: PayloadAction<Levelled>) {
      const within = Math.min(1, Math.max(0, level));
      if (channel === WHOLE_CHANNEL) (set.mix ??= {}).level = within;
      else if (channel < MAX_TRACKS) {
        const track = set.tracks[channel];
        if (track) track.level = within;
      } else {
        const group = groupOf(set, channel);
        if (group) group.level = within;
      }
    },
    /** A track or a group goes to a group, which must go to the whole mix itself if a group goes to it. */
    channelSent: {
      reducer(set, { payload: { channel, to } }: PayloadAction<Sent>) {
        const target = to === null ? undefined : groupOf(set, FIRST_GROUP_CHANNEL + to);
        if (to !== null && !target) return;
        if (channel < MAX_TRACKS) {
          const track = set.tracks[channel];
          if (!track) return;
          if (to === null) delete track.goesTo;
          else track.goesTo = to;
          return;
        }
        const group = groupOf(set, channel);
        if (!group || !mayGoTo(set, group, to)) return;
        if (to === null) delete group.to;
        else group.to = to;
      },
      prepare: undoStep<Sent>('where it goes'),
    },
    /** Pads of a track's kit go to a group of their own, or with the track again. */
    padsSent: {
      reducer(set, { payload: { track: id, pads, to } }: PayloadAction<PadsSent>) {
        const track = set.tracks[id];
        if (!track || (to !== null && !groupOf(set, FIRST_GROUP_CHANNEL + to))) return;
        const others = (track.padsTo ?? []).filter(({ pad }) => !pads.includes(pad));
        const sent = to === null ? [] : pads.map((pad) => ({ pad, group: to }));
        const padsTo = [...others, ...sent].sort((a, b) => a.pad - b.pad);
        if (padsTo.length > 0) track.padsTo = padsTo;
        else delete track.padsTo;
      },
      prepare: undoStep<PadsSent>('where pads go'),
    },
    groupAdded: {
      reducer(set, { payload }: PayloadAction<Group>) {
        const groups = ((set.mix ??= {}).groups ??= []);
        if (groups.length < MAX_GROUPS && !groups.some(({ id }) => id === payload.id)) groups.push(payload);
      },
      prepare: undoStep<Group>('new group'),
    },
    groupNamed: {
      reducer(set, { payload }: PayloadAction<Named>) {
        const group = groupOf(set, FIRST_GROUP_CHANNEL + payload.id);
        if (group && payload.name.trim() !== '') group.name = payload.name.trim().slice(0, MAX_NAME);
      },
      prepare: undoStep<Named>('name'),
    },
    groupColoured: {
      reducer(set, { payload }: PayloadAction<{ id: number; colour: number }>) {
        const group = groupOf(set, FIRST_GROUP_CHANNEL + payload.id);
        if (group) group.colour = payload.colour;
      },
      prepare: undoStep<{ id: number; colour: number }>('colour'),
    },
    /** What went to it goes to the whole mix. */
    groupRemoved: {
      reducer(set, { payload }: PayloadAction<number>) {
        if (!set.mix?.groups) return;
        set.mix.groups = set.mix.groups.filter(({ id }) => id !== payload);
        for (const group of set.mix.groups) if (group.to === payload) delete group.to;
        for (const track of tracksOf(set)) set.tracks[track.id] = groupedIn(set.mix, track);
      },
      prepare: undoStep<number>('removing a group'),
    },
    echoSet: {
      reducer(set, { payload }: PayloadAction<EchoChange>) {
        const mix = (set.mix ??= {});
        const { tape, ...echo } = { ...(mix.echo ?? FIRST_ECHO), ...payload.change };
        mix.echo = tape ? { ...echo, tape } : echo;
      },
      prepare: undoStep<EchoChange>('echo', ({ gesture }) => gesture),
    },
    roomSet: {
      reducer(set, { payload }: PayloadAction<RoomChange>) {
        const mix = (set.mix ??= {});
        mix.room = { ...(mix.room ?? FIRST_ROOM), ...payload.change };
      },
      prepare: undoStep<RoomChange>('room', ({ gesture }) => gesture),
    },
  },
});

/** Whether a group may go to another one: groups are nested once. */
export function mayGoTo({ mix }: Pick<BeatSet, 'mix'>, group: Group, to: number | null): boolean {
  if (to === null) return true;
  const groups = mix?.groups ?? [];
  const holdsGroups = groups.some((other) => other.to === group.id);
  return to !== group.id && !holdsGroups && groups.find(({ id }) => id === to)?.to === undefined;
}

export const {
  channelTurned,
  duckedBySet,
  channelLevelSet,
  channelSent,
  padsSent,
  groupAdded,
  groupNamed,
  groupColoured,
  groupRemoved,
  echoSet,
  roomSet,
} = slice.actions;
export const mixReducer = slice.reducer;
