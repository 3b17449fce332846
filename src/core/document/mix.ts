import { MAX_TRACKS } from './limits';
import type { ControlRange } from './moves';
import type { PadWay } from './track';

/** What of one channel of the mix can be turned. */
export const MIX_CONTROLS = ['level', 'pan', 'low', 'bell', 'bellHz', 'bellQ', 'high', 'threshold', 'ratio', 'attack', 'release', 'makeUp', 'knee', 'drive', 'filter', 'room', 'echo', 'duck', 'duckTime'] as const; // prettier-ignore
export type MixControl = (typeof MIX_CONTROLS)[number];

export const MIX_CONTROL_NAMES: Record<MixControl, string> = {
  level: 'Level',
  pan: 'Pan',
  low: 'Low',
  bell: 'Bell',
  bellHz: 'Bell at',
  bellQ: 'Bell width',
  high: 'High',
  threshold: 'Threshold',
  ratio: 'Ratio',
  attack: 'Attack',
  release: 'Release',
  makeUp: 'Make-up',
  knee: 'Knee',
  drive: 'Drive',
  filter: 'Filter',
  room: 'Room',
  echo: 'Echo',
  duck: 'Ducks by',
  duckTime: 'Is back in',
};

/**
 * Level 0..1, 1 is as it comes; pan -1..1; low, bell, high, threshold, make-up and knee in dB, the bell's place in Hz, its width as Q, the ratio as so many
 * dB in for one out, attack and release in ms; drive 0..1; the filter -1..1: left of the middle it closes from above, right of it from below; room and echo
 * as the share that is sent there; ducking in dB under a full stroke of the pad that it follows, and in ms until it is back.
 */
export const MIX_RANGES: Record<MixControl, ControlRange> = {
  level: { min: 0, max: 1, neutral: 0.8 },
  pan: { min: -1, max: 1, neutral: 0 },
  low: { min: -18, max: 18, neutral: 0 },
  bell: { min: -18, max: 18, neutral: 0 },
  bellHz: { min: 40, max: 16000, neutral: 1000 },
  bellQ: { min: 0.3, max: 10, neutral: 1 },
  high: { min: -18, max: 18, neutral: 0 },
  threshold: { min: -48, max: 0, neutral: -18 },
  ratio: { min: 1, max: 20, neutral: 1 },
  attack: { min: 0.1, max: 100, neutral: 10 },
  release: { min: 10, max: 1000, neutral: 120 },
  makeUp: { min: 0, max: 24, neutral: 0 },
  knee: { min: 0, max: 24, neutral: 6 },
  drive: { min: 0, max: 1, neutral: 0 },
  filter: { min: -1, max: 1, neutral: 0 },
  room: { min: 0, max: 1, neutral: 0 },
  echo: { min: 0, max: 1, neutral: 0 },
  duck: { min: 0, max: 36, neutral: 0 },
  duckTime: { min: 40, max: 1000, neutral: 250 },
};

/** The pad whose strokes have a channel duck, or, with ANY_PAD, all of a track's. */
export interface DuckKey {
  /** Id of the track. */
  track: number;
  pad: number;
}
export const ANY_PAD = -1;
/** As the track of a key: none. */
export const NO_KEY = -1;

/** What a channel's controls are set to, those that are absent are neutral; and what has it duck. */
export type ChannelSettings = Partial<Record<Exclude<MixControl, 'level'>, number>> & { duckedBy?: DuckKey };

/** Tracks can go together through a channel of their own before they come to the whole mix. */
export interface Group {
  /** 0..3, of no other group of the set. */
  id: number;
  name: string;
  /** Index of a feather tone. */
  colour: number;
  /** 0..1 */
  level: number;
  settings?: ChannelSettings;
  /** The group that it goes to in its turn, which goes to none. Absent: to the whole mix. */
  to?: number;
}

export const MAX_GROUPS = 4;

/** The names of echo times, each with its ticks. */
export const ECHO_TIMES = {
  '1/16': 240,
  '1/8 triplet': 320,
  '1/16 dotted': 360,
  '1/8': 480,
  '1/4 triplet': 640,
  '1/8 dotted': 720,
  '1/4': 960,
  '1/4 dotted': 1440,
  '1/2': 1920,
} as const;
export type EchoTime = keyof typeof ECHO_TIMES;

/** The echo that all channels send to. */
export interface Echo {
  /** A note value, which follows the tempo, or ms. */
  time: EchoTime | number;
  /** 0..1: how much of it comes again, how bright it is, and whether it lies in the middle (0) or goes from side to side (1). */
  feedback: number;
  tone: number;
  width: number;
  /** When its time changes its pitch bends there, as a tape's does; absent: it fades into the new time, and no pitch moves. */
  tape?: true;
}

export const FIRST_ECHO: Echo = { time: '1/8 dotted', feedback: 0.35, tone: 0.5, width: 1 };

/** ms of an echo whose time is none of a note. */
export const ECHO_MS = { min: 1, max: 2000 };

/** The room that all channels and pads send to. */
export interface RoomSettings {
  /** Seconds until what rings in it has fallen by 60 dB: the larger the room, the longer. */
  size: number;
  /** 0..1: how much sooner its highs fall. */
  damping: number;
  /** 0..1: from the middle alone to both sides, which have nothing in common. */
  width: number;
  /** ms before it answers. */
  preDelay: number;
}

export const ROOM_RANGES: Record<keyof RoomSettings, { min: number; max: number }> = {
  size: { min: 0.2, max: 4 },
  damping: { min: 0, max: 1 },
  width: { min: 0, max: 1 },
  preDelay: { min: 0, max: 150 },
};

export const FIRST_ROOM: RoomSettings = { size: 0.42, damping: 0.5, width: 1, preDelay: 0 };

/** The mix of a set, besides its tracks' own channels. */
export interface Mix {
  echo?: Echo;
  room?: RoomSettings;
  groups?: Group[];
  /** What is done to all of it before the limiter. */
  whole?: ChannelSettings;
  /** 0..1 */
  level?: number;
}

/** The settings of all channels of a set that have any. */
export function channelSettings({ tracks, mix }: { tracks: Record<number, { channel?: ChannelSettings }>; mix?: Mix }) {
  const ofTracks = Object.values(tracks).map(({ channel }) => channel);
  const ofGroups = (mix?.groups ?? []).map(({ settings }) => settings);
  return [...ofTracks, ...ofGroups, mix?.whole].filter((settings) => settings !== undefined);
}

/** Where a track and pads of its kit go. */
interface Ways {
  goesTo?: number;
  padsTo?: readonly PadWay[];
}

/**
 * What is wrong with where tracks, their pads and groups go; null: nothing. A group leads to the whole mix at once, or through one
 * other.
 */
export function mixProblem(mix: Mix = {}, tracks: readonly (Ways & { name: string })[] = []): string | null {
  const { groups = [] } = mix;
  const of = (id: number) => groups.find((group) => group.id === id);
  if (new Set(groups.map(({ id }) => id)).size < groups.length) return 'Two of its groups have the same number.';
  for (const { name, to } of groups) {
    if (to !== undefined && (!of(to) || of(to)!.to !== undefined)) return `The group ${name} goes where no group is, or one that goes on itself.`; // prettier-ignore
  }
  for (const { name, goesTo, padsTo = [] } of tracks) {
    if (goesTo !== undefined && !of(goesTo)) return `The track ${name} goes to a group that is not there.`;
    if (padsTo.some(({ group }) => !of(group))) return `A pad of the track ${name} goes to a group that is not there.`;
    if (new Set(padsTo.map(({ pad }) => pad)).size < padsTo.length) return `A pad of the track ${name} goes two ways.`;
  }
  return null;
}

/** A track that comes into a set: it goes to the whole mix if its group is not there, and its pads go with it if theirs is not. */
export function groupedIn<Grouped extends Ways>({ groups = [] }: Mix = {}, track: Grouped): Grouped {
  const isThere = (group: number) => groups.some(({ id }) => id === group);
  const { goesTo, padsTo = [], ...rest } = track;
  const own = goesTo === undefined || isThere(goesTo) ? goesTo : undefined;
  const ways = padsTo.filter(({ group }) => isThere(group));
  if (own === goesTo && ways.length === padsTo.length) return track;
  return { ...rest, ...(own !== undefined && { goesTo: own }), ...(ways.length > 0 && { padsTo: ways }) } as Grouped;
}

/** Numbers of the engine's channels: tracks by their ids, then the groups by theirs, then the whole mix. */
export const FIRST_GROUP_CHANNEL = MAX_TRACKS;
export const WHOLE_CHANNEL = FIRST_GROUP_CHANNEL + MAX_GROUPS;
export const CHANNELS = WHOLE_CHANNEL + 1;
/** As the group that a channel goes to: none, but the whole mix. */
export const TO_WHOLE = -1;
/** As the group that a pad goes to: none, but with its track. */
export const WITH_TRACK = -1;
