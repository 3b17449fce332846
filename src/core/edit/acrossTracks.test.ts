import fc from 'fast-check';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import { padNote, SCALES, type Tones } from '../document/tones';
import { TONE_VOICES } from '../document/toneVoices';
import { hitsAcross, patternAcross } from './acrossTracks';

const tones: fc.Arbitrary<Tones> = fc.record({
  voice: fc.constantFrom(...TONE_VOICES),
  root: fc.nat(11),
  scale: fc.constantFrom(...SCALES),
  chromatic: fc.boolean(),
  octave: fc.integer({ min: -2, max: 2 }),
});
const hit: fc.Arbitrary<Hit> = fc
  .record({ pad: fc.nat(15), pitch: fc.constantFrom(undefined, -12, -1, 3, 0.5) })
  .map(({ pad, pitch }) => ({ id: 1, pad, tick: 12.5, length: 100, velocity: 0.7, snap: { grid: 240, strength: 1 }, ...(pitch !== undefined && { pitch }) })); // prettier-ignore

test('between any two tracks of notes every note has the pitch that it had, and all else of its own', () => {
  fc.assert(
    fc.property(fc.array(hit), tones, tones, (hits, from, to) => {
      const across = hitsAcross(hits, from, to);
      across.forEach((now, i) => {
        const was = hits[i]!;
        expect(padNote(to, now.pad) + (now.pitch ?? 0)).toBeCloseTo(padNote(from, was.pad) + (was.pitch ?? 0), 9);
        expect({ ...now, pad: 0, pitch: 0 }).toEqual({ ...was, pad: 0, pitch: 0 });
      });
    }),
  );
});

test('between a kit and notes, and between kits, every hit stays on its pad', () => {
  fc.assert(
    fc.property(fc.array(hit), tones, (hits, notes) => {
      for (const [from, to] of [
        [undefined, notes],
        [notes, undefined],
        [undefined, undefined],
      ]) {
        // prettier-ignore
        expect(hitsAcross(hits, from, to)).toEqual(hits);
      }
    }),
  );
});

test('treatments and Moves go with the notes; those of the mix stay; its colour is the other track’s', () => {
  const minor: Tones = { voice: 'keys', root: 9, scale: 'minor', chromatic: false, octave: 0 };
  const chromatic: Tones = { ...minor, chromatic: true };
  const points = [{ tick: 0, value: 0.5 }];
  const pattern: Pattern = {
    name: 'Glow',
    colour: 3,
    length: 3840,
    hits: [],
    lanes: [{ pad: 2, feel: { grid: 240, strength: 1 } }],
    moves: [{ pad: 1, control: 'level', points }, { on: 'track', control: 'echo', points }], // prettier-ignore
  };
  // The second and third notes of A minor are two and three semitones above its first.
  expect(patternAcross(pattern, minor, chromatic)).toEqual({
    ...pattern,
    colour: undefined,
    lanes: [{ pad: 3, feel: { grid: 240, strength: 1 } }],
    moves: [{ pad: 2, control: 'level', points }, { on: 'track', control: 'echo', points }], // prettier-ignore
  });
  // Back again the second note's two neighbours lie on one pad.
  const close = { ...pattern, lanes: [{ pad: 2, feel: { grid: 240, strength: 1 } }, { pad: 1, feel: { grid: 480, strength: 1 } }] }; // prettier-ignore
  expect(patternAcross(close, chromatic, minor).lanes?.map(({ pad }) => pad)).toEqual([1, 0]);
});
