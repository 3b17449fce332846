import { POLISHED_FLOOR } from '../document/kits';
import type { SoundKind } from '../document/soundKinds';

/** The names of General MIDI Level 1's percussion keys from 35 up (MIDI Association, GM 1 Percussion Key Map). */
const NAMES = ['Acoustic bass drum', 'Bass drum 1', 'Side stick', 'Acoustic snare', 'Hand clap', 'Electric snare', 'Low floor tom', 'Closed hi-hat', 'High floor tom', 'Pedal hi-hat', 'Low tom', 'Open hi-hat', 'Low-mid tom', 'Hi-mid tom', 'Crash cymbal 1', 'High tom', 'Ride cymbal 1', 'Chinese cymbal', 'Ride bell', 'Tambourine', 'Splash cymbal', 'Cowbell', 'Crash cymbal 2', 'Vibraslap', 'Ride cymbal 2', 'Hi bongo', 'Low bongo', 'Mute hi conga', 'Open hi conga', 'Low conga', 'High timbale', 'Low timbale', 'High agogo', 'Low agogo', 'Cabasa', 'Maracas', 'Short whistle', 'Long whistle', 'Short guiro', 'Long guiro', 'Claves', 'Hi wood block', 'Low wood block', 'Mute cuica', 'Open cuica', 'Mute triangle', 'Open triangle']; // prettier-ignore
const FIRST = 35;

/** Keys that no pad of a kit is, with the sound that is nearest in character. Whistles and cuicas are like none. */
const NEAREST: Record<number, SoundKind> = {
  35: 'kick',
  40: 'snare',
  41: 'lowTom',
  43: 'lowTom',
  48: 'highTom',
  52: 'crash',
  53: 'ride',
  55: 'crash',
  57: 'crash',
  58: 'shaker',
  59: 'ride',
  60: 'highTom',
  61: 'midTom',
  62: 'highTom',
  63: 'highTom',
  64: 'lowTom',
  65: 'highTom',
  66: 'midTom',
  67: 'cowbell',
  68: 'cowbell',
  69: 'shaker',
  73: 'shaker',
  74: 'shaker',
  76: 'rim',
  77: 'rim',
  80: 'tambourine',
  81: 'tambourine',
};

/**
 * The pad that is a key of the General MIDI percussion map, or sounds most like it; null if none does.
 * @example nearestPad(38) // 2, the snare; nearestPad(40) // 2, too; nearestPad(71) // null, a whistle
 */
export function nearestPad(key: number): number | null {
  const { pads } = POLISHED_FLOOR;
  const exact = pads.findIndex(({ note }) => note === key);
  if (exact >= 0) return exact;
  const sound = NEAREST[key];
  return sound === undefined ? null : pads.findIndex((pad) => pad.sound.kind === sound);
}

/** What a key of the percussion map is called; its number, where the map has none. */
export function drumName(key: number): string {
  return NAMES[key - FIRST] ?? `Key ${key}`;
}
