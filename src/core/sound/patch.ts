import { lfoTicks, type Lfo, type LfoShape, type LfoTarget } from '../document/lfo';
import { LEAST_LEVEL, OPEN_CUTOFF, SOUND_NUMBERS, type FilterKind, type NumberSetting, type Sound, type SoundSettings, type SoundSource } from '../document/sound'; // prettier-ignore
import type { ToneSource } from '../document/toneVoices';
import { doubles } from '../doubles';
import { decibels } from '../math';
import { partsOf, type Parts } from './parts';
import type { Recipe } from './recipe';
import { RECIPES } from './recipes';
import type { Tone, ToneTurns } from './tone';
import { toneRecipe } from './toneRecipes';

/** A slow wave as a voice reads it: every number is there. */
export interface LfoPatch {
  moves: LfoTarget;
  shape: LfoShape;
  /** Ticks of a cycle; 0 if `hz` says how fast it is. */
  ticks: number;
  hz: number;
  low: number;
  high: number;
  /** The song's time is its time; else it begins with the stroke. */
  ofSong: boolean;
}

/** Which stretch of a sample is played, and how. */
export interface SamplePatch {
  /** Names its audio. */
  id: string;
  /** 0..1 of all of it. */
  start: number;
  end: number;
  /** From its end to its start. */
  reverse: boolean;
  /** It goes round for as long as its pad is held. */
  looped: boolean;
}

/** All that a voice must know of a sound: its parts, and every setting as the number that it reckons with. */
export interface Patch extends Parts {
  /** What the player has made of what plays notes; null for drums and samples. */
  turns: ToneTurns | null;
  /** What is played in the place of all parts; null: those. */
  sample: SamplePatch | null;
  /** Semitones. */
  pitch: number;
  /** Seconds. */
  attack: number;
  hold: number;
  /** Octaves. */
  decay: number;
  filter: FilterKind;
  /** Hz; OPEN_CUTOFF of a low-pass: none. */
  cutoff: number;
  resonance: number;
  filterKey: number;
  filterVelocity: number;
  /** Gain into the saturation; 0 for none. */
  drive: number;
  /** Linear, the recipe's in it. */
  level: number;
  pan: number;
  room: number;
  response: number;
  variation: number;
  /** How many strokes of a pad may ring at once. */
  rings: number;
  /** One note plays at a time. */
  isMono: boolean;
  /** It sounds only while its pad is held. */
  isHeld: boolean;
  lfos: readonly LfoPatch[];
  /** The signal goes through the filter. */
  isFiltered: boolean;
}

/** What a source or a voice of notes is made of. */
export function recipeOf(source: SoundSource | ToneSource): Recipe {
  if ('voice' in source) return toneRecipe(source);
  return 'sample' in source ? SAMPLE_RECIPE : RECIPES[source.made];
}

/** The patch of a pad's sound. */
export function patchOf({ source, settings }: Pick<Sound, 'source' | 'settings'>): Patch {
  return patch(recipeOf(source), settings, 'sample' in source ? samplePatch(source.sample, settings) : null);
}

/** A sample as it is, in the middle; a stroke and the next one ring together. */
const SAMPLE_RECIPE: Recipe = { level: 1, pan: 0, room: 0, drive: 0, rings: 2, layers: [] };

function samplePatch(id: string, { start = 0, end = 1, reverse, plays }: SoundSettings): SamplePatch {
  return { id, start, end, reverse: reverse === true, looped: plays === 'looped' };
}

/** The patch of a voice that plays notes. */
export function tonePatch(source: ToneSource, settings: SoundSettings = {}): Patch {
  return patch(recipeOf(source), settings);
}

function toneTurns({ attack, release, motion, width, glide }: Tone, settings: SoundSettings): ToneTurns {
  const own = doubles({ bright: 0, motion, width, attack, release, glide });
  for (const turn of Object.keys(own) as (keyof ToneTurns)[]) own[turn] = settings[turn] ?? own[turn];
  return own;
}

function patch(recipe: Recipe, settings: SoundSettings, sample: SamplePatch | null = null): Patch {
  const of = (setting: NumberSetting) => settings[setting] ?? SOUND_NUMBERS[setting].neutral;
  const { tone, body, highestHz, layers, firstClean, closes } = partsOf(recipe);
  const level = of('level') > LEAST_LEVEL ? decibels(of('level')) : 0;
  return {
    tone,
    body,
    highestHz,
    layers,
    firstClean,
    closes,
    turns: tone && toneTurns(tone, settings),
    sample,
    pitch: of('pitch'),
    attack: of('attack'),
    hold: of('hold'),
    decay: of('decay'),
    filter: settings.filter ?? 'low',
    cutoff: of('cutoff'),
    resonance: of('resonance'),
    filterKey: of('filterKey'),
    filterVelocity: of('filterVelocity'),
    drive: driveGain(recipe, settings.drive),
    level: recipe.level * level,
    pan: settings.pan ?? recipe.pan,
    room: settings.room ?? recipe.room,
    response: of('response'),
    variation: of('variation'),
    rings: settings.voices ?? recipe.rings,
    isMono: settings.mono ?? recipe.isMono === true,
    isHeld: settings.plays === 'held' || settings.plays === 'looped',
    lfos: (settings.lfos ?? []).map(lfoPatch),
    isFiltered: isFiltered(settings),
  };
}

/** Of a sound that is none yet. By its example the numbers of all patches are held as doubles. */
export const NO_PATCH: Patch = doubles(patch(SAMPLE_RECIPE, {}));

/** The recipe's own as it was written: from dB and back it would be another number in its last digits. */
function driveGain(recipe: Recipe, drive: number | undefined): number {
  if (drive === undefined) return recipe.drive > 0 ? 1 + recipe.drive : 0;
  return drive > 0 ? decibels(drive) : 0;
}

function lfoPatch({ moves, shape, note, hz = 1, low, high, start }: Lfo): LfoPatch {
  return { moves, shape, ticks: note ? lfoTicks(note) : 0, hz: note ? 0 : hz, low, high, ofSong: start === 'song' };
}

/** Whether anything closes a filter, or moves it. */
function isFiltered({
  filter = 'low',
  cutoff = OPEN_CUTOFF,
  filterKey = 0,
  filterVelocity = 0,
  lfos = [],
}: SoundSettings): boolean {
  // prettier-ignore
  const isMoved = filterKey > 0 || filterVelocity > 0 || lfos.some(({ moves }) => moves === 'filter');
  return filter !== 'low' || cutoff < OPEN_CUTOFF || isMoved;
}
