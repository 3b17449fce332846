import fc from 'fast-check';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import { noteIn, noteName, SCALES, type Tones } from '../document/tones';
import { dragged, type Drag } from './drag';

const MINOR: Tones = { voice: 'keys', root: 9, scale: 'minor', chromatic: false, octave: 0 };
const hit = (id: number, pad: number, tick = 0, more: Partial<Hit> = {}): Hit => ({ id, pad, tick, length: 480, velocity: 0.6, snap: null, ...more }); // prettier-ignore
const pattern = (...hits: Hit[]): Pattern => ({ name: 'Glow', length: 3840, hits });
const names = (hits: readonly Hit[]) => hits.map((one) => noteName(noteIn(MINOR)(one)));

/** A minor, A3 C4 E4, with G♯4 above it. */
const CHORD = pattern(hit(1, 0), hit(3, 2), hit(5, 4), hit(7, 6, 0, { pitch: 1 }), hit(9, 8, 1920));
const IDS = [1, 3, 5, 7];
const [A3, C4, F4] = [57, 60, 65];

test('notes are taken in time and along their scale at once; a note between two of the scale stays as far above the lower one', () => {
  expect(names(CHORD.hits)).toEqual(['A3', 'C4', 'E4', 'G♯4', 'B4']);
  const there = dragged(CHORD, IDS, { kind: 'move', ticks: 500, from: A3, to: C4 }, { grid: 240, tones: MINOR });
  // G♯4 is a semitone above G4, and so is C5 above B4, two steps higher.
  expect(names(there)).toEqual(['C4', 'E4', 'G4', 'C5']);
  expect(there.map(({ tick }) => tick)).toEqual([480, 480, 480, 480]);
});

test('with a lane for each semitone they keep their distances', () => {
  const way = { grid: 240, tones: MINOR, by: 'semitone' } as const;
  const there = dragged(CHORD, IDS, { kind: 'move', ticks: -30, from: A3, to: F4 }, way);
  expect(names(there)).toEqual(['F4', 'G♯4', 'C5', 'E5']);
});

test('hits of a kit go from pad to pad, all as far as the outermost can', () => {
  const there = dragged(CHORD, [1, 9], { kind: 'move', ticks: 9999, from: 0, to: 12 }, { grid: 240 });
  expect(there.map(({ pad }) => pad)).toEqual([7, 15]);
  expect(there.at(-1)!.tick).toBe(3839);
});

test('the end that a finger has comes to lie on the grid, the others go along, and none becomes shorter than half a step', () => {
  const ends = (ticks: number, grid = 240) =>
    dragged(CHORD, [1, 9], { kind: 'stretch', ticks, from: 480 }, { grid }).map(({ length }) => length);
  expect([ends(300), ends(-130), ends(-9999), ends(99999)]).toEqual([[720, 720], [240, 240], [120, 120], [3840, 3840]]); // prettier-ignore
  expect(ends(7, 1)).toEqual([487, 487]);
  // What is shorter already stays.
  const short = pattern(hit(1, 0, 0, { length: 20 }));
  expect(dragged(short, [1], { kind: 'stretch', ticks: -99, from: 20 }, { grid: 240 })[0]!.length).toBe(20);
});

test('wherever a finger has been, back where it began all is as it was, and only what is chosen has moved', () => {
  const tones = fc.record({ voice: fc.constant('keys' as const), root: fc.nat(11), scale: fc.constantFrom(...SCALES), chromatic: fc.boolean(), octave: fc.constant(0) }); // prettier-ignore
  const hits = fc.uniqueArray(fc.record({ id: fc.nat(30), pad: fc.nat(15), tick: fc.integer({ min: 0, max: 3839 }), pitch: fc.integer({ min: 0, max: 3 }) }), { selector: ({ id }) => id, minLength: 1 }); // prettier-ignore
  const by = fc.constantFrom('step' as const, 'semitone' as const);
  fc.assert(
    fc.property(hits, fc.option(tones), by, fc.integer({ min: 30, max: 90 }), (some, of, step, from) => {
      const before = pattern(...some.map(({ id, pad, tick, pitch }) => hit(id, pad, tick, { pitch })));
      const ids = before.hits.filter((_, i) => i % 2 === 0).map(({ id }) => id);
      const way = { grid: 240, ...(of && { tones: of, by: step }) };
      const back: Drag = { kind: 'move', ticks: 30, from, to: from };
      const there = dragged(before, ids, back, way);
      const keyOf = of ? noteIn(of) : ({ pad }: Hit) => pad;
      const plain = (list: readonly Hit[]) => list.map((one) => [one.id, one.tick, keyOf(one)]);
      expect(plain(there)).toEqual(plain(before.hits.filter(({ id }) => ids.includes(id))));
    }),
  );
});
