import fc from 'fast-check';
import { isInScale, isRoot, noteHz, noteName, padNote, relaid, SCALES, scaleSteps, type Tones } from './tones';

const tones = (more: Partial<Tones> = {}): Tones => ({ voice: 'bass', root: 9, scale: 'minor', chromatic: false, octave: 0, ...more }); // prettier-ignore

test('the scales have the steps that every handbook of harmony gives them', () => {
  // Semitones above the root; common practice (e.g. Piston, Harmony, for major, minor and the modes), written from memory.
  expect(scaleSteps('major')).toEqual([0, 2, 4, 5, 7, 9, 11]);
  expect(scaleSteps('minor')).toEqual([0, 2, 3, 5, 7, 8, 10]);
  expect(scaleSteps('dorian')).toEqual([0, 2, 3, 5, 7, 9, 10]);
  expect(scaleSteps('mixolydian')).toEqual([0, 2, 4, 5, 7, 9, 10]);
  expect(scaleSteps('phrygian')).toEqual([0, 1, 3, 5, 7, 8, 10]);
  expect(scaleSteps('harmonic minor')).toEqual([0, 2, 3, 5, 7, 8, 11]);
  expect(scaleSteps('major pentatonic')).toEqual([0, 2, 4, 7, 9]);
  expect(scaleSteps('minor pentatonic')).toEqual([0, 3, 5, 7, 10]);
  expect(scaleSteps('blues')).toEqual([0, 3, 5, 6, 7, 10]);
});

test('notes have the names and frequencies of the standard pitch (ISO 16: A4 = 440 Hz)', () => {
  expect([21, 60, 61, 69, 108].map(noteName)).toEqual(['A0', 'C4', 'C♯4', 'A4', 'C8']);
  // Equal temperament, two decimals, as in any table of note frequencies.
  expect([21, 40, 60, 69, 108].map((note) => Math.round(noteHz(note) * 100) / 100)).toEqual([27.5, 82.41, 261.63, 440, 4186.01]); // prettier-ignore
});

test('a layout in a scale has its notes alone, from the root up; all twelve lie side by side and are marked', () => {
  const inScale = Array.from({ length: 16 }, (_, pad) => padNote(tones(), pad));
  expect(inScale.map(noteName).slice(0, 8)).toEqual(['A1', 'B1', 'C2', 'D2', 'E2', 'F2', 'G2', 'A2']);
  expect(inScale.every((note) => isInScale(tones(), note))).toBe(true);
  const all = Array.from({ length: 16 }, (_, pad) => padNote(tones({ chromatic: true }), pad));
  expect(all.map((note) => note - all[0]!)).toEqual(Array.from({ length: 16 }, (_, i) => i));
  expect(all.slice(0, 12).filter((note) => isInScale(tones(), note))).toHaveLength(7);
  expect(all.filter((note) => isRoot(tones(), note)).map(noteName)).toEqual(['A1', 'A2']);
});

test('notes found again in any other layout sound as they did', () => {
  const layout = fc.record({
    root: fc.integer({ min: 0, max: 11 }),
    scale: fc.constantFrom(...SCALES),
    chromatic: fc.boolean(),
  });
  fc.assert(
    fc.property(
      layout,
      layout,
      fc.integer({ min: 0, max: 15 }),
      fc.integer({ min: -24, max: 24 }),
      (a, b, pad, pitch) => {
        const found = relaid(tones(a), tones(b))(pad, pitch);
        return padNote(tones(b), found.pad) + found.pitch === padNote(tones(a), pad) + pitch && found.pad >= 0 && found.pad < 16; // prettier-ignore
      },
    ),
  );
});
