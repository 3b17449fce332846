import type { GridName } from '../quantize/grid';
import type { Lfo } from './lfo';
import type { SampleSource } from './sample';
import { PAD_KINDS, type SoundKind } from './soundKinds';

/** The sounds that the engine makes itself, by the names of their recipes (see `core/sound/recipes`). */
export const MADE_SOUNDS = [
  ...PAD_KINDS,
  'longKick',
  'hardKick',
  'softKick',
  'boxKick',
  'bigKick',
  'wireSnare',
  'brushSnare',
  'steelSnare',
  'deepSnare',
  'boxSnare',
  'slap',
  'evenClap',
  'closedThin',
  'pedalThin',
  'openThin',
  'closedScrap',
  'pedalScrap',
  'openScrap',
  'lowFall',
  'midFall',
  'highFall',
  'lowHand',
  'midHand',
  'highHand',
  'lowKettle',
  'midKettle',
  'highKettle',
  'hissCrash',
  'sheet',
  'clave',
  'woodBlock',
  'lowBlock',
  'jar',
  'pipe',
  'lowPipe',
  'midPipe',
  'triangle',
  'smallBell',
  'coin',
  'glass',
  'maraca',
  'hiss',
  'chain',
  'scraper',
  'keyRing',
] as const;
export type MadeSound = (typeof MADE_SOUNDS)[number];

/** It is made by the engine, after this recipe. */
export interface MadeSource {
  made: MadeSound;
}

/** Where a sound comes from. */
export type SoundSource = MadeSource | SampleSource;

/** The audio of a sound; null: the engine makes it. */
export function sampleOf(source: SoundSource): string | null {
  return 'sample' in source ? source.sample : null;
}

export const FILTER_KINDS = ['low', 'band', 'high'] as const;
export type FilterKind = (typeof FILTER_KINDS)[number];

/** A sound plays to its end, only for as long as its pad is held, or (a sample) round and round until then. */
export const PLAY_WAYS = ['once', 'held', 'looped'] as const;
export type PlayWay = (typeof PLAY_WAYS)[number];

/** The settings of a sound that are numbers. */
export interface SoundNumbers {
  /** Semitones, cents as their fraction. */
  pitch: number;
  /** The stretch of a sample that is played, 0..1 of all of it. */
  start: number;
  end: number;
  /** Seconds to full level, and seconds before the decay begins. */
  attack: number;
  hold: number;
  /** Octaves by which the decay is longer than the source's own: -1 is half as long. */
  decay: number;
  /** Of the filter: Hz; quality factor, 0.707 is flat; octaves of cutoff an octave of pitch; octaves that the softest stroke is lower. */
  cutoff: number;
  resonance: number;
  filterKey: number;
  filterVelocity: number;
  /** dB into the saturation, 0 is none of it. */
  drive: number;
  /** dB, LEAST_LEVEL is silence. */
  level: number;
  /** -1 left .. 1 right */
  pan: number;
  /** Share sent to the room, 0..1. */
  room: number;
  /** How much velocity matters: 0 every stroke is as hard as the hardest, 1 as it is struck, 2 soft strokes all but vanish. */
  response: number;
  /** How much strokes differ from one another, 0..1; at 0 all of one velocity are the same samples. */
  variation: number;
  /** How many strokes of it may ring at once. */
  voices: number;
  /** Of a voice that plays notes. How clear it is, -1 dull .. 1; how far its slow movements reach and how wide it stands, 0..1. */
  bright: number;
  motion: number;
  width: number;
  /** Seconds to -60 dB after a note is let go, and that its pitch takes to a note begun before the last was let go. */
  release: number;
  glide: number;
}
export type NumberSetting = keyof SoundNumbers;

/** What a player has made of a source: only what differs from its own. */
export interface SoundSettings extends Partial<SoundNumbers> {
  filter?: FilterKind;
  plays?: PlayWay;
  /** A sample is played backwards. */
  reverse?: true;
  /** One note at a time, or several; absent: as the voice has it. */
  mono?: boolean;
  /** The rates of note repeat that suit it, slowest first; absent: those of its kind. */
  repeat?: { slowest: GridName; fastest: GridName };
  /** At most MOST_LFOS. */
  lfos?: Lfo[];
}

/** A pad's sound: a document of its own. */
export interface Sound {
  name: string;
  kind: SoundKind;
  source: SoundSource;
  settings: SoundSettings;
  /** The settings that it was taken with: what it goes back to. */
  own?: SoundSettings;
  /** Name of the kit or file that it was taken from. */
  from?: string;
  /** Where its sample is cut, frames in order; 0 and the end are none. */
  cuts?: number[];
  /** Quarter notes per minute of its sample, where the player has said it: see `tempoOf`. */
  tempo?: number;
}

/** A sound as it is when it is taken: what is made of it from now on can be taken back. */
export function asTaken(sound: Sound): Sound {
  return { ...sound, own: sound.settings };
}

export const LEAST_LEVEL = -48;
/** A low-pass at this cutoff is none: the signal passes as it is. */
export const OPEN_CUTOFF = 20000;

/** Bounds of each number, and what it is where neither player nor source say otherwise: then it changes nothing. */
export const SOUND_NUMBERS: Record<NumberSetting, { min: number; max: number; neutral: number }> = {
  pitch: { min: -24, max: 24, neutral: 0 },
  start: { min: 0, max: 1, neutral: 0 },
  end: { min: 0, max: 1, neutral: 1 },
  attack: { min: 0, max: 2, neutral: 0 },
  hold: { min: 0, max: 2, neutral: 0 },
  decay: { min: -4, max: 1, neutral: 0 },
  cutoff: { min: 20, max: OPEN_CUTOFF, neutral: OPEN_CUTOFF },
  resonance: { min: 0.5, max: 12, neutral: 0.707 },
  filterKey: { min: 0, max: 1, neutral: 0 },
  filterVelocity: { min: 0, max: 5, neutral: 0 },
  drive: { min: 0, max: 24, neutral: 0 },
  level: { min: LEAST_LEVEL, max: 12, neutral: 0 },
  pan: { min: -1, max: 1, neutral: 0 },
  room: { min: 0, max: 1, neutral: 0 },
  response: { min: 0, max: 2, neutral: 1 },
  variation: { min: 0, max: 1, neutral: 0 },
  voices: { min: 1, max: 8, neutral: 1 },
  bright: { min: -1, max: 1, neutral: 0 },
  motion: { min: 0, max: 1, neutral: 0 },
  width: { min: 0, max: 1, neutral: 0 },
  release: { min: 0.01, max: 8, neutral: 0.1 },
  glide: { min: 0, max: 1, neutral: 0 },
};
/** What the numbers are called. */
export const NUMBER_NAMES: Record<NumberSetting, string> = {
  pitch: 'Pitch',
  start: 'Start',
  end: 'End',
  attack: 'Attack',
  hold: 'Hold',
  decay: 'Decay',
  cutoff: 'Filter',
  resonance: 'Resonance',
  filterKey: 'Filter follows pitch',
  filterVelocity: 'Filter follows velocity',
  drive: 'Drive',
  level: 'Level',
  pan: 'Pan',
  room: 'Room',
  response: 'Velocity response',
  variation: 'Variation',
  voices: 'At once',
  bright: 'Bright',
  motion: 'Motion',
  width: 'Width',
  release: 'Release',
  glide: 'Glide',
};
export const NUMBER_SETTINGS = Object.keys(SOUND_NUMBERS) as NumberSetting[];
