import * as Note from '@tonaljs/note';
import * as Scale from '@tonaljs/scale';
import fc from 'fast-check';
import { SCALES } from '../document/tones';
import { chordOn, scaleStep } from './chords';

const tones = fc.record({ voice: fc.constantFrom('bass' as const, 'keys' as const), root: fc.nat(11), scale: fc.constantFrom(...SCALES), chromatic: fc.boolean(), octave: fc.constant(0) }); // prettier-ignore

test('steps of every scale in every key are those of tonal', () => {
  for (const scale of SCALES) {
    for (let root = 0; root < 12; root++) {
      const names = Scale.get(`${Note.fromMidiSharps(48 + root)} ${scale}`).notes.map((name) => Note.midi(name)!);
      const degrees = [...names].sort((a, b) => a - b);
      for (let step = 0; step < 3 * degrees.length; step++) {
        const octaves = Math.floor(step / degrees.length);
        const expected = degrees[step % degrees.length]! + 12 * octaves;
        expect([scale, root, step, scaleStep({ root, scale }, 48 + root, step)]).toEqual([scale, root, step, expected]);
        expect(scaleStep({ root, scale }, expected, -step)).toBe(48 + root);
      }
    }
  }
});

test('so many steps up and as many down lead back, also for notes between those of the scale', () => {
  fc.assert(
    fc.property(tones, fc.integer({ min: 24, max: 96 }), fc.integer({ min: -20, max: 20 }), (of, note, steps) => {
      const there = scaleStep(of, note, steps);
      // Where the next step is a semitone, what lay between two lies on it, and is of that step from then on.
      const back = scaleStep(of, there, -steps);
      expect(Math.abs(back - note)).toBeLessThanOrEqual(3);
      if (Number.isInteger(steps / 7) && Scale.get(`C ${of.scale}`).notes.length === 7) expect(back).toBe(note);
    }),
  );
});

test('chords in thirds of a scale are those of the textbook: in C major C, Dm, Em, F, G, Am, Bdim, and G7 with its seventh', () => {
  const names = (note: number, kind: 'triad' | 'seventh') =>
    chordOn({ root: 0, scale: 'major' }, note, kind).map((tone) => Note.pitchClass(Note.fromMidiSharps(tone)));
  expect(Scale.get('C major').notes.map((_, degree) => names(scaleStep({ root: 0, scale: 'major' }, 60, degree), 'triad').join(' '))).toEqual(
    ['C E G', 'D F A', 'E G B', 'F A C', 'G B D', 'A C E', 'B D F'],
  );
  expect(names(67, 'seventh')).toEqual(['G', 'B', 'D', 'F']);
}); // prettier-ignore
