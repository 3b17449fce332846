import { hitOn, type Hit } from '../document/hit';
import { PADS } from '../document/limits';
import type { Pattern } from '../document/pattern';
import { noteIn, padNote, padsOfNotes, type ChordKind, type Tones } from '../document/tones';
import { CHORDS, scaleStep } from '../harmony/chords';
import type { Ids } from './select';

/** By what notes are moved: steps of their scale, or semitones. */
export type NoteStep = 'step' | 'semitone';

/** Chosen notes higher or lower, on the pads that have them. */
export function notesMoved(pattern: Pattern, ids: Ids, tones: Tones, by: NoteStep, steps: number): Pattern {
  const find = padsOfNotes(tones);
  const noteOf = noteIn(tones);
  const hits = pattern.hits.map((hit) => {
    if (!ids.has(hit.id)) return hit;
    const note = noteOf(hit);
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
  const noteOf = noteIn(tones);
  const highest = padNote(tones, PADS - 1);
  const key = (tick: number, note: number) => `${tick} ${note}`;
  const there = new Set(pattern.hits.map((hit) => key(hit.tick, noteOf(hit))));
  return pattern.hits.flatMap((hit) => {
    if (!ids.has(hit.id)) return [];
    return CHORDS[kind].flatMap((degree) => {
      let note = scaleStep(tones, noteOf(hit), degree);
      while (note > highest) note -= 12;
      if (there.has(key(hit.tick, note))) return [];
      there.add(key(hit.tick, note));
      const { take: _, ...rest } = hit;
      return [hitOn({ ...rest, id: newId() }, find(note))];
    });
  });
}
