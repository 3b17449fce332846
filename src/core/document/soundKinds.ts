/**
 * What a sound is: by it sounds are looked for, Generate finds the lanes of a beat, and note repeat keeps to sensible rates.
 *
 * `note` is the key of the General MIDI Level 1 percussion map (MIDI Association, GM 1 Sound Set), which has no finger snap and no
 * shaker: the snap goes out as 75 Claves and the shaker as 70 Maracas, the nearest in character. Null: the map has nothing like it.
 */
const KINDS = {
  kick: { name: 'Kick', note: 36 },
  rim: { name: 'Rim', note: 37 },
  snare: { name: 'Snare', note: 38 },
  clap: { name: 'Clap', note: 39 },
  closedHat: { name: 'Closed hat', note: 42 },
  pedalHat: { name: 'Pedal hat', note: 44 },
  openHat: { name: 'Open hat', note: 46 },
  lowTom: { name: 'Low tom', note: 45 },
  midTom: { name: 'Mid tom', note: 47 },
  highTom: { name: 'High tom', note: 50 },
  crash: { name: 'Crash', note: 49 },
  ride: { name: 'Ride', note: 51 },
  shaker: { name: 'Shaker', note: 70 },
  cowbell: { name: 'Cowbell', note: 56 },
  tambourine: { name: 'Tambourine', note: 54 },
  snap: { name: 'Snap', note: 75 },
  other: { name: 'Other', note: null },
} as const satisfies Record<string, { name: string; note: number | null }>;

export type SoundKind = keyof typeof KINDS;
/** What lies on each of the sixteen pads of a kit that ships: so a beat is the same beat in all of them. */
export const PAD_KINDS = ['kick', 'rim', 'snare', 'clap', 'closedHat', 'pedalHat', 'openHat', 'lowTom', 'midTom', 'highTom', 'crash', 'ride', 'shaker', 'cowbell', 'tambourine', 'snap'] as const satisfies readonly SoundKind[]; // prettier-ignore
export type PadKind = (typeof PAD_KINDS)[number];
export const SOUND_KINDS = Object.keys(KINDS) as SoundKind[];

/** What a kind is called. */
export function kindName(kind: SoundKind): string {
  return KINDS[kind].name;
}

/** Words of file names that say of which kind a sound is, besides its name; the first that is found holds. */
const WORDS: readonly (readonly [RegExp, SoundKind])[] = [
  [/open ?hat|\boh\b|\bhho\b/, 'openHat'],
  [/pedal/, 'pedalHat'],
  [/hat|\bhh\b|\bch\b/, 'closedHat'],
  [/kick|bass ?drum|\bbd\b/, 'kick'],
  [/rim/, 'rim'],
  [/snare|\bsd\b/, 'snare'],
  [/clap/, 'clap'],
  [/(low|floor) ?tom/, 'lowTom'],
  [/hi(gh)? ?tom/, 'highTom'],
  [/tom/, 'midTom'],
  [/crash/, 'crash'],
  [/ride/, 'ride'],
  [/shak|maraca|cabasa/, 'shaker'],
  [/bell/, 'cowbell'],
  [/tamb/, 'tambourine'],
  [/snap/, 'snap'],
];

/**
 * What a sound probably is, by its name.
 * @example kindOfName('OpenHat_02') // 'openHat'
 */
export function kindOfName(name: string): SoundKind {
  const words = name
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/[^A-Za-z]+/g, ' ')
    .toLowerCase();
  return WORDS.find(([pattern]) => pattern.test(words))?.[1] ?? 'other';
}

/** The General MIDI percussion key of a kind, 35..81, or null. */
export function kindNote(kind: SoundKind): number | null {
  return KINDS[kind].note;
}
