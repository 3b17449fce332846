import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import { noteIn, type Tones } from '../document/tones';
import { soundingHits } from '../sequence/soundingHits';
import { msToTicks } from '../time/ticks';
import { strummed, strumOf } from './strum';

const MINOR: Tones = { voice: 'keys', root: 9, scale: 'minor', chromatic: false, octave: 0 };
const noteOf = noteIn(MINOR);
const hit = (id: number, pad: number, tick: number, more: Partial<Hit> = {}): Hit => ({ id, pad, tick, length: 480, velocity: 0.6, snap: null, ...more }); // prettier-ignore
/** C4, A3 and E4 by hand on the one, a note alone on the two, and B3 and G4 on the three. */
const SONG: Pattern = {
  name: 'Glow',
  length: 3840,
  hits: [hit(1, 2, 12), hit(3, 0, 0), hit(5, 4, 30), hit(7, 4, 960), hit(9, 6, 1930, { snap: { grid: 480, strength: 1 } }), hit(11, 1, 1920)], // prettier-ignore
};
const ALL = new Set(SONG.hits.map(({ id }) => id));
const places = (pattern: Pattern) =>
  new Map(soundingHits(pattern).map(({ id, tick }) => [id, Math.round(tick * 10) / 10]));

test('the notes of a chord follow each other from the lowest up by 20 ms (at 112 BPM 35.84 ticks); the first stays, and a note alone', () => {
  const there = places(strummed(SONG, ALL, noteOf, msToTicks(20, 112)));
  expect([3, 1, 5, 7].map((id) => there.get(id))).toEqual([0, 12 + 35.8, 30 + 71.7, 960]);
  expect([11, 9].map((id) => there.get(id))).toEqual([1920, 1955.8]);
});

test('below 0 they follow from the highest down, at 0 all is as it was played', () => {
  const down = strummed(SONG, ALL, noteOf, -40);
  expect([5, 1, 3].map((id) => places(down).get(id))).toEqual([30, 52, 80]);
  expect(strummed(down, ALL, noteOf, 0)).toEqual(SONG);
});

test('how a chord is strummed is read from it; notes alone have no strum', () => {
  for (const ticks of [0, 25, -40]) expect(strumOf(strummed(SONG, ALL, noteOf, ticks), ALL, noteOf)).toBe(ticks);
  expect(strumOf(SONG, new Set([3, 7]), noteOf)).toBeNull();
  expect(strummed(SONG, new Set([3, 7]), noteOf, 30)).toBe(SONG);
});
