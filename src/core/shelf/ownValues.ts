import { SOUND_NUMBERS, type NumberSetting, type SoundSource } from '../document/sound';
import type { ToneVoice } from '../document/tones';
import { RECIPES, type Recipe } from '../sound/recipes';
import { TONE_RECIPES } from '../sound/toneRecipes';

/** What sounds: the source of a pad's sound, or a voice that plays notes. */
export type Sounding = SoundSource | ToneVoice;

function recipeOf(source: Sounding): Recipe {
  return typeof source === 'string' ? TONE_RECIPES[source] : RECIPES[source.made];
}

/**
 * What a setting of a sound is where the player has not changed it.
 * @example ownValue({ made: 'openHat' }, 'pan') // 0.24, to the right
 */
export function ownValue(source: Sounding, setting: NumberSetting): number {
  const { pan, room, drive, rings } = recipeOf(source);
  // A recipe's drive is what is added to a gain of 1.
  const own: Partial<Record<NumberSetting, number>> = { pan, room, voices: rings, drive: 20 * Math.log10(1 + drive) };
  return own[setting] ?? SOUND_NUMBERS[setting].neutral;
}

/** The seconds to -60 dB of the longest part of a sound, as its source has it. */
export function ownDecay(source: Sounding): number {
  const { body, layers, tone } = recipeOf(source);
  const parts = [...(body?.modes ?? []), ...layers, ...(tone ? [tone] : [])];
  return Math.max(...parts.map(({ decay }) => decay));
}
