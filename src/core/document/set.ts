import type { Loudness } from './loudness';
import type { Move } from './moves';
import type { Feel } from '../quantize/feel';
import type { GridName } from '../quantize/grid';
import type { Snap } from '../quantize/place';
import { ticksPerBar, type Meter } from '../time/ticks';
import type { KitId } from './kits';
import type { Tones } from './tones';
import type { Roll } from './roll';

export * from './limits';

/** The version of the document's shape. Raise it with a migration whenever the shape changes. */
export const SCHEMA_VERSION = 4;

/** One stroke, as it was played and how it is placed. Placing is computed on the way to the ear (see `placedTick`). */
export interface Hit {
  /** Unique within the set. */
  id: number;
  /** 0..15; pad 0 is bottom left. */
  pad: number;
  /**
   * Struck time in ticks from the loop's start, with its fraction. Slightly below 0 when the stroke came just before
   * the loop's first step, to which it belongs.
   */
  tick: number;
  /** How long the pad was held, in ticks. */
  length: number;
  /** 0..1 */
  velocity: number;
  /** The pull towards a grid that input quantize gave it, or null to sound as struck. Tells which bar it belongs to. */
  snap: Snap | null;
  /** Number of the take within the pattern, from 1; absent for what was not played in a recording. */
  take?: number;
  /** Treatments of this hit alone. */
  feel?: Feel;
  loudness?: Loudness;
  /** Ticks from where it is placed to where it sounds: dragged late, or pushed early below 0. */
  nudge?: number;
  /** Semitones from the sound's own pitch, cents as the fraction. */
  pitch?: number;
  /** How likely it is to sound in a pass, 0..1; absent: always. */
  odds?: number;
  roll?: Roll;
}

/** Treatments of all hits of one pad. */
export interface Lane {
  pad: number;
  feel?: Feel;
  loudness?: Loudness;
}

/** The stretch of a pattern that goes round, in ticks of the pattern. */
export interface LoopWindow {
  start: number;
  length: number;
}

export interface Pattern {
  name: string;
  /** Index of a feather tone; absent: the track's. */
  colour?: number;
  /** The loop's length in ticks: hits placed at or after it are kept and silent. */
  length: number;
  hits: Hit[];
  /** Absent: the whole pattern goes round. Read it by `windowOf`. */
  window?: LoopWindow;
  moves?: Move[];
  /** Treatments of the whole pattern, and of lanes: the narrowest holds. */
  feel?: Feel;
  loudness?: Loudness;
  lanes?: Lane[];
}

/** Pads whose pattern hits are silent, and those that alone are heard when there are any. Hands are always heard. */
export interface PadGates {
  mutedPads?: number[];
  soloPads?: number[];
}

export interface Track extends PadGates {
  /** Names the track wherever it stands in the list: 0..15, of no other track of the set. */
  channel: number;
  name: string;
  /** Index of a feather tone of the theme, 0..7. */
  colour: number;
  kit: KitId;
  /** It plays notes in the place of its kit. */
  tones?: Tones;
  /** 0..1 */
  level: number;
  mute: boolean;
  solo?: boolean;
  /** Pattern slots; an unused slot is null. */
  patterns: (Pattern | null)[];
  /** The slot that plays, or would if the track were not stopped; and is edited. */
  current: number;
  /** No pattern of it plays until one is launched. */
  stopped?: boolean;
  chain?: Chain;
}

/** Patterns of a track in a row. */
export interface Chain {
  /** Slots, and how often each goes round. */
  links: { slot: number; times: number }[];
  /** After the last link the first comes again; else the last one goes on. */
  again: boolean;
}

/** What a section does with one track: a slot plays, its chain does, or it stops (null). */
export interface SectionPart {
  channel: number;
  plays: number | 'chain' | null;
}

/** A named set of patterns that are launched as one. */
export interface Section {
  /** Unique within the set. */
  id: number;
  name: string;
  colour: number;
  /** Tracks that are not named go on as they are. */
  parts: SectionPart[];
  /** How often its longest loop goes round before what comes then. */
  rounds: number;
  /** The section that follows, 'stop', or absent: it goes on. */
  then?: number | 'stop';
}

/** When what is launched takes over. */
export const DROPS = ['now', 'beat', 'bar', 'loop', 'bars2', 'bars4'] as const;
export type Drop = (typeof DROPS)[number];

/** How patterns are launched. */
export interface Launching {
  dropOn: Drop;
  /** What holds for as long as the override is held. */
  override: Drop;
  /** Patterns go on in the phase of what they replace, and do not begin at their top. */
  inPlace: boolean;
}

export type CountIn = 0 | 1 | 2;

/** The meters that a set can have. */
export const METERS: readonly Meter[] = [
  { beats: 2, unit: 4 },
  { beats: 3, unit: 4 },
  { beats: 4, unit: 4 },
  { beats: 5, unit: 4 },
  { beats: 6, unit: 8 },
  { beats: 7, unit: 8 },
  { beats: 12, unit: 8 },
];

export const CLICK_SOUNDS = ['wood', 'bell', 'tick'] as const;
export type ClickSound = (typeof CLICK_SOUNDS)[number];
/** When the metronome that is on clicks. A count-in always clicks. */
export const CLICK_TIMES = ['always', 'recording', 'countIn'] as const;
export type ClickTime = (typeof CLICK_TIMES)[number];

export interface Metronome {
  on: boolean;
  /** 0..1 */
  level: number;
  sound: ClickSound;
  when: ClickTime;
  /** Softer clicks between the beats, or null. */
  between: GridName | null;
}

/** Everything of one set: the one document that is stored, undone and exported. */
export interface BeatSet {
  schema: typeof SCHEMA_VERSION;
  name: string;
  /** Quarter notes per minute. */
  tempo: number;
  meter: Meter;
  metronome: Metronome;
  /** Bars counted before recording. */
  countIn: CountIn;
  inputQuantize: { on: boolean; grid: GridName };
  tracks: Track[];
  /** Channel of the track that pads play and Steps shows. */
  shown: number;
  launching: Launching;
  sections: Section[];
  /** The pattern that is shown beneath the one being edited. */
  trace?: PatternPlace;
}

/** Where a pattern lies in a set. */
export interface PatternPlace {
  channel: number;
  slot: number;
}

/** The pattern that plays on a track, or null when its slot is empty. */
export function currentPattern(track: Track): Pattern | null {
  return track.patterns[track.current] ?? null;
}

/** The track that pads play and Steps shows. */
export function shownTrack({ tracks, shown }: Pick<BeatSet, 'tracks' | 'shown'>): Track {
  return tracks.find((track) => track.channel === shown) ?? tracks[0]!;
}

/** A channel that no track of the set has. */
export function freeChannel(tracks: readonly Track[]): number {
  let channel = 0;
  while (tracks.some((track) => track.channel === channel)) channel++;
  return channel;
}

/** Whether a pad's pattern hits are heard. */
export function isPadHeard({ mutedPads = [], soloPads = [] }: PadGates, pad: number): boolean {
  return !mutedPads.includes(pad) && (soloPads.length === 0 || soloPads.includes(pad));
}

/** Length of a pattern in bars of the meter. */
export function loopBars(pattern: Pattern, meter: Meter): number {
  return pattern.length / ticksPerBar(meter);
}

/** Ids to give out: `first`, and every second number from there, since the engine gives out those between. */
export function idsFrom(first: number): () => number {
  let id = first - 2;
  return () => (id += 2);
}

/** An id that no hit of the set has. */
export function nextHitId(set: BeatSet): number {
  let highest = 0;
  for (const track of set.tracks) {
    for (const pattern of track.patterns) {
      for (const hit of pattern?.hits ?? []) highest = Math.max(highest, hit.id);
    }
  }
  return highest + 1;
}
