import * as Note from '@tonaljs/note';
import * as Scale from '@tonaljs/scale';
import { mod } from '../time/ticks';
import type { SoundSettings } from './sound';
import { lowestNote, type ToneSource } from './toneVoices';

/** The scales on offer, by the names that the trade and the library share. */
export const SCALES = [
  'major',
  'minor',
  'dorian',
  'mixolydian',
  'phrygian',
  'harmonic minor',
  'major pentatonic',
  'minor pentatonic',
  'blues',
] as const;
export type ScaleName = (typeof SCALES)[number];

/** How far the pads can be moved by octaves, each way. */
export const MOST_OCTAVES = 2;

/** A track's notes: what plays them, and which lie on its pads. */
export interface Tones extends ToneSource {
  /** Semitones above C, 0..11. */
  root: number;
  scale: ScaleName;
  /** All twelve notes lie on the pads, those of the scale marked; else only those of the scale. */
  chromatic: boolean;
  /** Octaves by which hands play higher or lower. What is recorded stays where it was played. */
  octave: number;
  /** What the player has made of the voice's sound. */
  settings?: SoundSettings;
}

/** The same notes played by another voice or preset, as that is by itself. */
export function withVoice({ root, scale, chromatic, octave }: Tones, { voice, preset }: ToneSource): Tones {
  return { voice, ...(preset && { preset }), root, scale, chromatic, octave };
}

/** Semitones of a scale above its root, from 0 up, within an octave. */
export function scaleSteps(scale: ScaleName): number[] {
  return Scale.get(`C ${scale}`).notes.map((note) => mod(Note.chroma(note)!, 12)).sort((a, b) => a - b); // prettier-ignore
}

/** The MIDI note on a pad, before any octave: pad 0 is the root. */
export function padNote({ voice, root, scale, chromatic }: Tones, pad: number): number {
  const lowest = lowestNote(voice) + root;
  if (chromatic) return lowest + pad;
  const steps = scaleSteps(scale);
  return lowest + 12 * Math.floor(pad / steps.length) + steps[pad % steps.length]!;
}

/** Whether a MIDI note belongs to the scale. */
export function isInScale({ root, scale }: Tones, note: number): boolean {
  return scaleSteps(scale).includes(mod(note - root, 12));
}

/** Whether it is the scale's root, in any octave. */
export function isRoot({ root }: Tones, note: number): boolean {
  return mod(note - root, 12) === 0;
}

/** A MIDI note's name as musicians read it: 60 is C4 (the octave count of scientific pitch notation). */
export function noteName(note: number): string {
  return Note.fromMidiSharps(note).replace('#', '♯');
}

/** Frequency of a MIDI note in Hz, A4 = 440 (ISO 16, equal temperament). */
export function noteHz(note: number): number {
  return 440 * 2 ** ((note - 69) / 12);
}

/** Finds notes in a layout: the pad nearest below the note (or the lowest), and the semitones that are left over. */
export function padsOfNotes(tones: Tones): (note: number) => { pad: number; pitch: number } {
  const notes = Array.from({ length: 16 }, (_, pad) => padNote(tones, pad));
  return (note) => {
    let best = 0;
    for (let i = 0; i < notes.length; i++) if (notes[i]! <= note + 1e-9) best = i;
    return { pad: best, pitch: note - notes[best]! };
  };
}

/** Finds notes again in another layout, so that what was recorded sounds as it did. */
export function relaid(from: Tones, to: Tones): (pad: number, pitch: number) => { pad: number; pitch: number } {
  const padOf = padsOfNotes(to);
  return (pad, pitch) => padOf(padNote(from, pad) + pitch);
}
