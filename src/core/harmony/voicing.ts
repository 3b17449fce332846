import { PADS } from '../document/limits';
import { padNote, type Tones } from '../document/tones';

/**
 * Notes as the pads of a track have them, from the lowest up: those beyond them come an octave nearer, and an octave of another one, which then
 * lies on it, comes once. An octave is always on the pads, so that each note has a pad of its own.
 * @param notes MIDI notes
 */
export function ontoPads(tones: Tones, notes: readonly number[]): number[] {
  const [lowest, highest] = [padNote(tones, 0), padNote(tones, PADS - 1)];
  const within = notes.map((note) => {
    let on = note;
    while (on > highest) on -= 12;
    while (on < lowest) on += 12;
    return on;
  });
  return [...new Set(within)].sort((a, b) => a - b);
}

/**
 * The inversion of a chord that lies nearest to the last one: each of its notes a short way from one of those. At most all but one of its notes
 * go an octave up or down, so that it stays about where it was struck.
 * @param chord MIDI notes, the root lowest
 * @param last the notes of the chord before; null: there was none, and the root stays lowest
 * @example nearestVoicing([65, 69, 72], [60, 64, 67]) // [60, 65, 69]: from C major to F major, whose C stays
 */
export function nearestVoicing(chord: readonly number[], last: readonly number[] | null): number[] {
  if (!last || last.length === 0) return [...chord];
  let nearest = [...chord];
  let shortest = wayBetween(nearest, last);
  for (const voicing of [...inversions(chord, 1), ...inversions(chord, -1)]) {
    const way = wayBetween(voicing, last);
    if (way >= shortest) continue;
    nearest = voicing;
    shortest = way;
  }
  return nearest;
}

/** The chord turned over and over: its lowest note an octave up each time, or its highest one down. */
function inversions(chord: readonly number[], direction: 1 | -1): number[][] {
  const out: number[][] = [];
  let notes = [...chord];
  while (out.length < chord.length - 1) {
    const turned = direction > 0 ? [...notes.slice(1), notes[0]! + 12] : [notes.at(-1)! - 12, ...notes.slice(0, -1)];
    // A chord that is wider than an octave is out of order now.
    notes = turned.sort((a, b) => a - b);
    out.push(notes);
  }
  return out;
}

/** Semitones from each note of either chord to the nearest of the other, together. */
function wayBetween(a: readonly number[], b: readonly number[]): number {
  const from = (notes: readonly number[], to: readonly number[]) =>
    notes.reduce((sum, note) => sum + Math.min(...to.map((other) => Math.abs(other - note))), 0);
  return from(a, b) + from(b, a);
}
