/**
 * The voices that play notes: what they are called, the lowest pad of each in C as a MIDI note (middle C = 60), and their presets by
 * name, that of a new track first (see `core/sound/tones`).
 */
const VOICES = {
  bass: { name: 'Bass', lowest: 24, presets: ['kerb', 'towpath', 'rope', 'cable', 'rasp', 'links'] },
  deepBass: { name: 'Deep bass', lowest: 24, presets: ['canal', 'barge', 'lock', 'bollard', 'hum', 'weir'] },
  keys: { name: 'Electric piano', lowest: 48, presets: ['lamp', 'bulb', 'filament', 'halo', 'wick', 'lantern'] },
  organ: { name: 'Organ', lowest: 48, presets: ['rink', 'chapel', 'fairground', 'pump', 'bellows', 'hymn'] },
  pad: { name: 'Pad', lowest: 48, presets: ['mist', 'dusk', 'frost', 'drift', 'smoke', 'glassRoof'] },
  pluck: { name: 'Pluck', lowest: 48, presets: ['spoke', 'thread', 'wire', 'comb', 'raindrop', 'ticket'] },
  mallet: { name: 'Mallet', lowest: 60, presets: ['birch', 'steel', 'bottle', 'thumb', 'ice', 'chime'] },
  lead: { name: 'Lead', lowest: 60, presets: ['whistle', 'beam', 'flare', 'kite', 'signal', 'spark'] },
} as const satisfies Record<string, { name: string; lowest: number; presets: readonly string[] }>;

export type ToneVoice = keyof typeof VOICES;
export type TonePreset = (typeof VOICES)[ToneVoice]['presets'][number];
export const TONE_VOICES = Object.keys(VOICES) as ToneVoice[];

/** What plays a track's notes. */
export interface ToneSource {
  voice: ToneVoice;
  /** One of the voice's; absent: its first. */
  preset?: TonePreset;
}

/** What a voice is called. */
export function voiceName(voice: ToneVoice): string {
  return VOICES[voice].name;
}

/** MIDI note of a voice's lowest pad in C. */
export function lowestNote(voice: ToneVoice): number {
  return VOICES[voice].lowest;
}

/** The presets of a voice, that of a new track first. */
export function presetsOf(voice: ToneVoice): readonly TonePreset[] {
  return VOICES[voice].presets;
}

/** The preset that plays. */
export function presetOf({ voice, preset }: ToneSource): TonePreset {
  return preset ?? presetsOf(voice)[0]!;
}

/**
 * What a preset is called.
 * @example presetName('glassRoof') // 'Glass roof'
 */
export function presetName(preset: TonePreset): string {
  const words = preset.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
  return words[0]!.toUpperCase() + words.slice(1);
}
