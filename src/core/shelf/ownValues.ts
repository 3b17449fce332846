import { SOUND_NUMBERS, type NumberSetting, type SoundSettings, type SoundSource } from '../document/sound';
import type { ToneSource } from '../document/toneVoices';
import { SAMPLE_RATE } from '../sample/levels';
import { recipeOf } from '../sound/patch';

/** What sounds: the source of a pad's sound, or a voice that plays notes. */
export type Sounding = SoundSource | ToneSource;

/**
 * What a setting of a sound is where the player has not changed it: as the sound was when it was taken, or as its source has it.
 * @param own the settings that it was taken with
 * @example ownValue({ made: 'openHat' }, 'pan') // 0.24, to the right
 */
export function ownValue(source: Sounding, setting: NumberSetting, own: SoundSettings = {}): number {
  const { pan, room, drive, rings, tone } = recipeOf(source);
  // A recipe's drive is what is added to a gain of 1.
  const ofRecipe: Partial<Record<NumberSetting, number>> = { pan, room, voices: rings, drive: 20 * Math.log10(1 + drive) }; // prettier-ignore
  if (tone) {
    const { attack, release, motion, width, glide } = tone;
    Object.assign(ofRecipe, { attack, release, motion, width, glide });
  }
  return own[setting] ?? ofRecipe[setting] ?? SOUND_NUMBERS[setting].neutral;
}

/** The seconds to -60 dB of the longest part of a sound, as its source has it; of a sample all that there is. */
export function ownDecay(source: Sounding): number {
  if ('sample' in source) return source.frames / SAMPLE_RATE;
  const { body, layers, tone } = recipeOf(source);
  const parts = [...(body?.modes ?? []), ...layers, ...(tone ? [tone] : [])];
  return Math.max(...parts.map(({ decay }) => decay));
}
