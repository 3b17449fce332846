/**
 * The drum kits: which sound lies on which pad, and what each sound is called elsewhere.
 *
 * `note` is the key of the General MIDI Level 1 percussion map (MIDI Association, GM 1 Sound Set), which has no finger
 * snap and no shaker: the snap goes out as 75 Claves and the shaker as 70 Maracas, the nearest in character.
 */
export interface KitPad {
  name: string;
  /** Name of the recipe in `core/sound/recipes.ts`. */
  sound: SoundName;
  /** General MIDI percussion key, 35..81. */
  note: number;
}

export const SOUND_NAMES = [
  'kick',
  'rim',
  'snare',
  'clap',
  'closedHat',
  'pedalHat',
  'openHat',
  'lowTom',
  'midTom',
  'highTom',
  'crash',
  'ride',
  'shaker',
  'cowbell',
  'tambourine',
  'snap',
] as const;
export type SoundName = (typeof SOUND_NAMES)[number];

export const KIT_IDS = ['polished-floor'] as const;
export type KitId = (typeof KIT_IDS)[number];

export interface Kit {
  name: string;
  /** Pad 0 is bottom left; 16 of them. */
  pads: readonly KitPad[];
}

export const KITS: Record<KitId, Kit> = {
  'polished-floor': {
    name: 'Polished Floor',
    pads: [
      { name: 'Kick', sound: 'kick', note: 36 },
      { name: 'Rim', sound: 'rim', note: 37 },
      { name: 'Snare', sound: 'snare', note: 38 },
      { name: 'Clap', sound: 'clap', note: 39 },
      { name: 'Closed hat', sound: 'closedHat', note: 42 },
      { name: 'Pedal hat', sound: 'pedalHat', note: 44 },
      { name: 'Open hat', sound: 'openHat', note: 46 },
      { name: 'Low tom', sound: 'lowTom', note: 45 },
      { name: 'Mid tom', sound: 'midTom', note: 47 },
      { name: 'High tom', sound: 'highTom', note: 50 },
      { name: 'Crash', sound: 'crash', note: 49 },
      { name: 'Ride', sound: 'ride', note: 51 },
      { name: 'Shaker', sound: 'shaker', note: 70 },
      { name: 'Cowbell', sound: 'cowbell', note: 56 },
      { name: 'Tambourine', sound: 'tambourine', note: 54 },
      { name: 'Snap', sound: 'snap', note: 75 },
    ],
  },
};
