import * as Note from '@tonaljs/note';
import * as Scale from '@tonaljs/scale';
import { SCALES } from '../document/tones';
import { findScales, type HeardNote } from './findScales';

/** A tune in words: a note's name, and how many beats it lasts if not one. */
const tune = (words: string): HeardNote[] =>
  words.split(' ').map((word) => {
    const [name, beats = '1'] = word.split(':');
    return { note: Note.midi(name!)!, weight: Number(beats) };
  });
const best = (notes: readonly HeardNote[]) => {
  const [found] = findScales(notes);
  return found && `${Note.pitchClass(Note.fromMidiSharps(60 + found.root))} ${found.scale}`;
};

test('a scale that is run up and down from its root to its root is found: all on offer, in every key', () => {
  for (const scale of SCALES) {
    for (let root = 0; root < 12; root++) {
      const name = Note.fromMidiSharps(48 + root);
      const up = [...Scale.get(`${name} ${scale}`).notes.map((note) => Note.midi(note)!), 60 + root];
      const notes = [...up, ...up.slice(0, -1).reverse()].map((note) => ({ note, weight: 1 }));
      expect([root, scale, best(notes)]).toEqual([root, scale, `${Note.pitchClass(name)} ${scale}`]);
    }
  }
});

test('known tunes are in the scales that they are printed in', () => {
  // L. van Beethoven, Symphony no. 9, finale, in D major: the theme.
  expect(best(tune('F#4 F#4 G4 A4 A4 G4 F#4 E4 D4 D4 E4 F#4 F#4:1.5 E4:0.5 E4:2 F#4 F#4 G4 A4 A4 G4 F#4 E4 D4 D4 E4 F#4 E4:1.5 D4:0.5 D4:2 E4 E4 F#4 D4 E4 F#4:0.5 G4:0.5 F#4 D4 E4 F#4:0.5 G4:0.5 F#4 E4 D4 E4 A3:2 F#4 F#4 G4 A4 A4 G4 F#4 E4 D4 D4 E4 F#4 E4:1.5 D4:0.5 D4:2'))).toBe('D major'); // prettier-ignore
  // Frère Jacques (traditional).
  expect(best(tune('C4 D4 E4 C4 C4 D4 E4 C4 E4 F4 G4:2 E4 F4 G4:2 G4:0.5 A4:0.5 G4:0.5 F4:0.5 E4 C4 G4:0.5 A4:0.5 G4:0.5 F4:0.5 E4 C4 C4 G3 C4:2 C4 G3 C4:2'))).toBe('C major'); // prettier-ignore
  // Scarborough Fair (traditional), the textbook's example of the Dorian mode.
  expect(best(tune('D4:2 D4 A4:2 A4 E4:1.5 F4:0.5 E4 D4:3 A4 C5 D5:2 C5 A4 B4 G4 A4:5 D5:2 D5 D5 C5:2 A4 A4 G4 F4 E4 C4:4 D4:2 A4 G4:2 F4 E4 D4 C4 D4:5'))).toBe('D dorian'); // prettier-ignore
  // Amazing Grace (New Britain), of five notes.
  expect(best(tune('D4 G4:2 B4:0.5 G4:0.5 B4:2 A4 G4:2 E4 D4:2 D4 G4:2 B4:0.5 G4:0.5 B4:2 A4 D5:5 B4 D5:1.5 B4:0.5 D5:0.5 B4:0.5 G4:2 D4 E4:1.5 G4:0.5 G4:0.5 E4:0.5 D4:2 D4 G4:2 B4:0.5 G4:0.5 B4:2 A4 G4:5'))).toBe('G major pentatonic'); // prettier-ignore
  // God Rest You Merry, Gentlemen (traditional), in E minor.
  expect(best(tune('E4 E4 B4 B4 A4 G4 F#4 E4 D4 E4 F#4 G4 A4 B4:3 E4 E4 B4 B4 A4 G4 F#4 E4 D4 E4 F#4 G4 A4 B4:3 B4 C5 A4 B4 C5 D5 E5 B4 A4 G4 E4 F#4 G4 A4:3 G4 A4 B4:2 C5 B4 B4 A4 G4 F#4 E4:2 G4 F#4 E4 A4:2 G4 A4 B4 C5 D5 E5 B4 A4 G4 F#4 E4:3'))).toBe('E minor'); // prettier-ignore
});

test('a passing note changes nothing, and how much lies in the scale is said', () => {
  const notes = tune('A3 C4 E4 A4 G4 E4 D4 C4 B3 F4 E4 D#4:0.25 E4 C4 A3:2');
  const [found] = findScales(notes);
  expect([found!.root, found!.scale]).toEqual([9, 'minor']);
  expect(found!.share).toBeCloseTo(1 - 0.25 / 15.25, 6);
  expect(findScales(notes)).toHaveLength(3);
});

test('one note or two say nothing', () => {
  expect([findScales([]), findScales(tune('C4 G4 C4 G4 C5'))]).toEqual([[], []]);
});
