import { KITS, type SoundName } from './kits';
import { noteName, padNote, type Tones } from './tones';
import type { Track } from './track';

/** What lies on one pad of a track, and in its lane. */
export interface PadSound {
  /** Of the drum, or of the note. */
  name: string;
  /** MIDI note. */
  note: number;
  /** Of a kit's pads alone. */
  sound?: SoundName;
}

const ofTones = new WeakMap<Tones, readonly PadSound[]>();

/** What the lanes of a track are: its kit's sounds, or the notes of its layout. */
export function lanesOf({ kit, tones }: Pick<Track, 'kit' | 'tones'>): readonly PadSound[] {
  if (!tones) return KITS[kit].pads;
  let lanes = ofTones.get(tones);
  if (!lanes) {
    lanes = Array.from({ length: 16 }, (_, pad) => {
      const note = padNote(tones, pad);
      return { name: noteName(note), note };
    });
    ofTones.set(tones, lanes);
  }
  return lanes;
}
