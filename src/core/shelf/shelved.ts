import type { Kit } from '../document/kit';
import type { Sound } from '../document/sound';
import { kindName } from '../document/soundKinds';
import type { ToneSource } from '../document/toneVoices';

/** A kit, a sound or a voice that plays notes, as it lies on the shelf, with what it is found by. */
export interface Shelved {
  id: string;
  name: string;
  /** Words for its kind and character: "dry", "long". */
  tags: string[];
  /** Quarter notes per minute at which it is at home. */
  tempo?: number;
  /** One of the three. */
  kit?: Kit;
  sound?: Sound;
  tones?: ToneSource;
}

export const MOST_TAGS = 12;
export const MOST_TAG_LETTERS = 24;

/**
 * The sounds of a kit as entries of their own.
 * @example soundsOf(kit)[0] // { id: 'polished-floor/1', name: 'Kick', tags: ['Kick', 'dry'], sound }
 */
export function soundsOf({ id, tags, kit }: Shelved): Shelved[] {
  return (kit?.pads ?? []).map(({ sound }, pad) => ({
    id: `${id}/${pad + 1}`,
    name: sound.name,
    tags: [...new Set([kindName(sound.kind).toLowerCase(), ...tags])],
    sound,
  }));
}

/** All tags of some entries, those that most of them have first. */
export function tagsOf(entries: readonly Shelved[]): string[] {
  const counts = new Map<string, number>();
  for (const { tags } of entries) for (const tag of tags) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0])).map(([tag]) => tag);
}
