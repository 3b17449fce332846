import * as Note from '@tonaljs/note';
import * as Scale from '@tonaljs/scale';
import { mod } from '../time/ticks';
import type { Hit, NotePlace } from './hit';
import { PADS } from './limits';
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

/** The chords on offer: in thirds of the scale, of three notes and of four. */
export const CHORD_KINDS = ['triad', 'seventh'] as const;
export type ChordKind = (typeof CHORD_KINDS)[number];
/** ms between two notes of a chord that is strummed: beyond it nobody hears one chord. */
export const MOST_STRUM = 60;

/** The orders in which held notes can follow each other. */
export const ARP_ORDERS = ['up', 'down', 'upDown', 'played'] as const;
export type ArpOrder = (typeof ARP_ORDERS)[number];
export const MOST_ARP_OCTAVES = 4;

/** With note repeat, held notes sound one after the other. */
export interface Arpeggio {
  order: ArpOrder;
  /** Over how many it goes, upwards from where the notes are held: 1 to MOST_ARP_OCTAVES. */
  octaves: number;
}

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
  /** What hands play with one pad: a chord of the scale. Absent: one note. */
  chord?: ChordKind;
  /** ms from one note of it to the next, from below. Absent: they are struck together. */
  strum?: number;
  /** What note repeat makes of held notes. Absent: all of them sound at each of its lines. */
  arpeggio?: Arpeggio;
  /** What the player has made of the voice's sound. */
  settings?: SoundSettings;
}

/** The same notes played by another voice or preset, as that is by itself. */
export function withVoice({ preset: _, settings: __, ...played }: Tones, { voice, preset }: ToneSource): Tones {
  return { ...played, voice, ...(preset && { preset }) };
}

/** The same notes, of which one pad plays a chord; null: one note. */
export function withChord({ chord: _, ...tones }: Tones, chord: ChordKind | null): Tones {
  return chord ? { ...tones, chord } : tones;
}

/** The same notes, of which note repeat makes an arpeggio; null: none. */
export function withArpeggio({ arpeggio: _, ...tones }: Tones, arpeggio: Arpeggio | null): Tones {
  return arpeggio ? { ...tones, arpeggio } : tones;
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

const padNotes = (tones: Tones) => Array.from({ length: PADS }, (_, pad) => padNote(tones, pad));

/** The MIDI notes of hits, with their cents. */
export function noteIn(tones: Tones): (hit: Pick<Hit, 'pad' | 'pitch'>) => number {
  const notes = padNotes(tones);
  return ({ pad, pitch = 0 }) => notes[pad]! + pitch;
}

/** Finds notes in a layout: the pad nearest below the note (or the lowest), and the semitones that are left over. */
export function padsOfNotes(tones: Tones): (note: number) => NotePlace {
  const notes = padNotes(tones);
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
