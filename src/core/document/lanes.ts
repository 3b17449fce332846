import type { Kit } from './kit';
import type { SoundKind } from './soundKinds';
import { PADS } from './limits';
import type { SoundSettings } from './sound';
import { noteName, padNote, type Tones } from './tones';
import type { Track } from './track';

/** What lies on one pad of a track, and in its lane. */
export interface Lane {
  /** Of the drum, or of the note. */
  name: string;
  /** MIDI note. */
  note: number;
  /** Of a kit's pads alone: what it is, and the rates of note repeat that the player has chosen for it. */
  kind?: SoundKind;
  repeat?: SoundSettings['repeat'] | undefined;
}

const ofTones = new WeakMap<Tones, readonly Lane[]>();
const ofKits = new WeakMap<Kit, readonly Lane[]>();

/** What the lanes of a track are: its kit's sounds, or the notes of its layout. */
export function lanesOf({ kit, tones }: Pick<Track, 'kit' | 'tones'>): readonly Lane[] {
  if (tones) return made(ofTones, tones, noteLanes);
  return made(ofKits, kit, kitLanes);
}

/** Made once for each document: whoever asks again gets the same list. */
function made<T extends object>(known: WeakMap<T, readonly Lane[]>, of: T, make: (of: T) => Lane[]): readonly Lane[] {
  let lanes = known.get(of);
  if (!lanes) known.set(of, (lanes = make(of)));
  return lanes;
}

function noteLanes(tones: Tones): Lane[] {
  return Array.from({ length: PADS }, (_, pad) => {
    const note = padNote(tones, pad);
    return { name: noteName(note), note };
  });
}

function kitLanes({ pads }: Kit): Lane[] {
  return pads.map(({ sound: { name, kind, settings }, note }) => ({ name, note, kind, repeat: settings.repeat }));
}
