import { hitOn, type Hit } from '../document/hit';
import { PADS } from '../document/limits';
import type { Pattern } from '../document/pattern';
import { padNote, padsOfNotes, scaleSteps, type Tones } from '../document/tones';
import { mod } from '../time/ticks';
import type { Ids } from './select';

/** By what notes are moved: steps of their scale, or semitones. */
export type NoteStep = 'step' | 'semitone';
/** Steps of the scale above its root at which a chord has its other notes: a triad and a seventh chord, in thirds. */
export const CHORDS = { triad: [2, 4], seventh: [2, 4, 6] } as const;
export type ChordKind = keyof typeof CHORDS;

/**
 * The note so many steps of a scale higher, or lower. One between two notes of the scale stays as far above the lower of them.
 * @param note MIDI note
 * @example scaleStep({ root: 9, scale: 'minor' }, 57, 2) // 60: from A to C in A minor
 */
export function scaleStep({ root, scale }: Pick<Tones, 'root' | 'scale'>, note: number, steps: number): number {
  const semitones = scaleSteps(scale);
  const above = mod(note - root, 12);
  let degree = 0;
  while (degree + 1 < semitones.length && semitones[degree + 1]! <= above) degree++;
  const to = degree + steps;
  const octaves = Math.floor(to / semitones.length);
  return note - semitones[degree]! + semitones[mod(to, semitones.length)]! + 12 * octaves;
}

const noteOf = (tones: Tones, { pad, pitch = 0 }: Hit) => padNote(tones, pad) + pitch;

/** Chosen notes higher or lower, on the pads that have them. */
export function notesMoved(pattern: Pattern, ids: Ids, tones: Tones, by: NoteStep, steps: number): Pattern {
  const find = padsOfNotes(tones);
  const hits = pattern.hits.map((hit) => {
    if (!ids.has(hit.id)) return hit;
    const note = noteOf(tones, hit);
    return hitOn(hit, find(by === 'semitone' ? note + steps : scaleStep(tones, note, steps)));
  });
  return { ...pattern, hits };
}

/**
 * The notes that make chords of chosen ones, in thirds of their scale. One that lies above the highest pad comes an octave lower; one that is
 * there already at that moment does not come again.
 * @param newId called for the id of each
 */
export function chordNotes(pattern: Pattern, ids: Ids, tones: Tones, kind: ChordKind, newId: () => number): Hit[] {
  const find = padsOfNotes(tones);
  const highest = padNote(tones, PADS - 1);
  const key = (tick: number, note: number) => `${tick} ${note}`;
  const there = new Set(pattern.hits.map((hit) => key(hit.tick, noteOf(tones, hit))));
  return pattern.hits.flatMap((hit) => {
    if (!ids.has(hit.id)) return [];
    return CHORDS[kind].flatMap((degree) => {
      let note = scaleStep(tones, noteOf(tones, hit), degree);
      while (note > highest) note -= 12;
      if (there.has(key(hit.tick, note))) return [];
      there.add(key(hit.tick, note));
      const { take: _, ...rest } = hit;
      return [hitOn({ ...rest, id: newId() }, find(note))];
    });
  });
}
