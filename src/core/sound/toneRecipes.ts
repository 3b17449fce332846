import { presetOf, type TonePreset, type ToneSource } from '../document/toneVoices';
import type { Recipe } from './recipe';
import { BASS } from './tones/bass';
import { DEEP_BASS } from './tones/deepBass';
import { KEYS } from './tones/keys';
import { LEAD } from './tones/lead';
import { TONE_LEVELS } from './tones/levels';
import { MALLET } from './tones/mallet';
import { ORGAN } from './tones/organ';
import { PAD } from './tones/pad';
import { PLUCK } from './tones/pluck';
import { toneOf, type ToneDesign } from './tones/toneDesign';
import { waveTables } from './waves';

const DESIGNS: Record<TonePreset, ToneDesign> = { ...BASS, ...DEEP_BASS, ...KEYS, ...ORGAN, ...PAD, ...PLUCK, ...MALLET, ...LEAD }; // prettier-ignore

const recipes: Partial<Record<TonePreset, Recipe>> = {};

/** How a preset sounds. */
export function toneRecipe(source: ToneSource): Recipe {
  const preset = presetOf(source);
  return (recipes[preset] ??= recipeOf(preset));
}

function recipeOf(preset: TonePreset): Recipe {
  const { tone, layers = [], ...design } = DESIGNS[preset];
  // The tables are made here, and not by the first stroke.
  for (const { wave } of tone.oscillators) if (wave !== 'sine') waveTables(wave);
  return { ...design, level: 1, pan: 0, rings: 1, layers, tone: toneOf(tone, TONE_LEVELS[preset]) };
}
