import type { Hit } from '../document/hit';
import { FARTHEST_PITCH } from '../document/limits';
import type { Pattern } from '../document/pattern';
import { padNote, type Tones } from '../document/tones';
import { chordNotes, notesMoved } from './notes';

const MINOR: Tones = { voice: 'keys', root: 9, scale: 'minor', chromatic: false, octave: 0 };
const hit = (id: number, pad: number, tick = 0, pitch?: number): Hit => ({ id, pad, tick, length: 480, velocity: 0.6, snap: null, ...(pitch !== undefined && { pitch }) }); // prettier-ignore
const pattern = (...hits: Hit[]): Pattern => ({ name: 'Glow', length: 3840, hits });
const notes = (tones: Tones, hits: readonly Hit[]) => hits.map(({ pad, pitch = 0 }) => padNote(tones, pad) + pitch);
const ids = (...chosen: number[]) => new Set(chosen);
const fromId = (first: number) => () => (first += 2);

test('the triads and seventh chords of A minor (textbook): Am, Bdim, C, Dm, Em, F, G; Am7, Bm7b5, Cmaj7, Dm7, Em7, Fmaj7, G7', () => {
  const chord = (pad: number, kind: 'triad' | 'seventh') => {
    const root = hit(1, pad);
    const added = chordNotes(pattern(root), ids(1), MINOR, kind, fromId(1));
    const [first, ...others] = notes(MINOR, [root, ...added]);
    return others.map((note) => note - first!).join();
  };
  expect(Array.from({ length: 7 }, (_, pad) => chord(pad, 'triad'))).toEqual(['3,7', '3,6', '4,7', '3,7', '3,7', '4,7', '4,7']); // prettier-ignore
  expect(Array.from({ length: 7 }, (_, pad) => chord(pad, 'seventh'))).toEqual(['3,7,10', '3,6,10', '4,7,11', '3,7,10', '3,7,10', '4,7,11', '4,7,10']); // prettier-ignore
});

test('a chord has its notes once, each on a pad of its own: those above the highest come an octave lower', () => {
  const top = pattern(hit(1, 15), hit(3, 15, 960));
  const added = chordNotes(top, ids(1, 3), MINOR, 'seventh', fromId(5));
  expect(added).toHaveLength(6);
  expect(new Set(added.map(({ id }) => id)).size).toBe(6);
  const at = (tick: number) => [15, ...added.filter((one) => one.tick === tick).map(({ pad }) => pad)];
  for (const tick of [0, 960]) expect(new Set(at(tick)).size).toBe(4);
  expect(added.every(({ pitch }) => pitch === undefined)).toBe(true);
  // Built again, nothing is added.
  const built = { ...top, hits: [...top.hits, ...added] };
  expect(chordNotes(built, ids(1, 3), MINOR, 'seventh', fromId(99))).toEqual([]);
});

test('chosen notes are moved by steps of the scale, semitones and octaves, on the pads that have them', () => {
  const before = pattern(hit(1, 0), hit(3, 2, 480), hit(5, 4, 960));
  const moved = (by: 'step' | 'semitone', steps: number) => notesMoved(before, ids(1, 3), MINOR, by, steps);
  expect(moved('step', 1).hits.map(({ pad }) => pad)).toEqual([1, 3, 4]);
  expect(moved('semitone', 12).hits.map(({ pad, pitch }) => [pad, pitch])).toEqual([[7, undefined], [9, undefined], [4, undefined]]); // prettier-ignore
  expect(notes(MINOR, moved('semitone', -1).hits)).toEqual(notes(MINOR, before.hits).map((note, i) => note - (i < 2 ? 1 : 0))); // prettier-ignore
  expect(notesMoved(moved('semitone', 12), ids(1, 3), MINOR, 'semitone', -12)).toEqual(before);
});

test('however often notes are moved, their pitch stays what a stored set may hold', () => {
  const far = (steps: number) => {
    let moved = pattern(hit(1, 15), hit(3, 0));
    for (let i = 0; i < 30; i++) moved = notesMoved(moved, ids(1, 3), MINOR, 'semitone', steps);
    return Math.max(...moved.hits.map(({ pitch = 0 }) => Math.abs(pitch)));
  };
  expect([far(12), far(-12)]).toEqual([FARTHEST_PITCH, FARTHEST_PITCH]);
});
