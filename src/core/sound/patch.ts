import { lfoTicks, type Lfo, type LfoShape, type LfoTarget } from '../document/lfo';
import { LEAST_LEVEL, OPEN_CUTOFF, SOUND_NUMBERS, type FilterKind, type NumberSetting, type Sound, type SoundSettings, type SoundSource } from '../document/sound'; // prettier-ignore
import type { ToneSource } from '../document/toneVoices';
import { doubles } from '../doubles';
import { decibels } from '../math';
import type { Body, Bursts, Layer, Recipe } from './recipe';
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

/** A layer as a voice reads it: every number is there. */
export interface LayerPatch extends Pick<Layer, 'source' | 'filter'> {
  /** In the recipe: each has noise of its own. */
  place: number;
  grains: number;
  level: number;
  cutoff: number;
  q: number;
  bright: number;
  hardness: number;
  attack: number;
  decay: number;
  bursts: Bursts | null;
  after: number;
  isSide: boolean;
  isClean: boolean;
}

/** All that a voice must know of a sound: its parts, and every setting as the number that it reckons with. */
export interface Patch {
  /** What plays notes, and what the player has made of it; null for drums and samples. */
  tone: Tone | null;
  turns: ToneTurns | null;
  /** What is played in the place of all other parts; null: those. */
  sample: SamplePatch | null;
  body: Body | null;
  /** The highest tone of its body, Hz; 0 without one. */
  highestHz: number;
  /** Those that do not go through the saturation last, and how many come before these. */
  layers: readonly LayerPatch[];
  firstClean: number;
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
  /** Seconds in which it is silent when another pad cuts it off. */
  closes: number;
  /** One note plays at a time. */
  isMono: boolean;
  /** It sounds only while its pad is held. */
  isHeld: boolean;
  lfos: readonly LfoPatch[];
  /** The signal goes through the filter. */
  isFiltered: boolean;
}

/** How soon a sound is cut off whose recipe does not say how it closes. */
const CUT_SECONDS = 0.006;

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
  const { body = null, tone = null } = recipe;
  const layers = recipe.layers.map(layerPatch);
  const driven = layers.filter(({ isClean }) => !isClean);
  const level = of('level') > LEAST_LEVEL ? decibels(of('level')) : 0;
  return doubles({
    tone,
    turns: tone && toneTurns(tone, settings),
    sample,
    body: body && bodyPatch(body),
    highestHz: body ? Math.max(...body.modes.map(({ ratio }) => body.pitch * ratio)) : 0,
    layers: [...driven, ...layers.filter(({ isClean }) => isClean)],
    firstClean: driven.length,
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
    closes: recipe.closes ?? CUT_SECONDS,
    isMono: settings.mono ?? recipe.isMono === true,
    isHeld: settings.plays === 'held' || settings.plays === 'looped',
    lfos: (settings.lfos ?? []).map(lfoPatch),
    isFiltered: isFiltered(settings),
  });
}

function bodyPatch({ pitch, sweep, sweepTime, modes }: Body): Body {
  return doubles({ pitch, sweep, sweepTime, modes: modes.map(({ ratio, level, decay }) => doubles({ ratio, level, decay })) }); // prettier-ignore
}

function layerPatch(layer: Layer, place: number): LayerPatch {
  const { source, grains = 0, level, filter, cutoff, q, bright = 0, hardness = 0, attack, decay, bursts = null, after = 0, isSide = false, isClean = false } = layer; // prettier-ignore
  return doubles({ source, filter, place, grains, level, cutoff, q, bright, hardness, attack, decay, bursts, after, isSide, isClean }); // prettier-ignore
}

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
