import { random } from '../random';
import { cutsOf, MOST_AT_ONCE, overreaching, reachedBy, withCuts, withSound, type AlsoPlays } from './kit';
import { POLISHED_FLOOR } from './kits';
import { PADS } from './limits';

type Network = { alsoPlays?: AlsoPlays[] }[];
const network = (plays: Record<number, number[]>): Network =>
  Array.from({ length: PADS }, (_, pad) => (plays[pad] ? { alsoPlays: plays[pad].map((other) => ({ pad: other, share: 0.5 })) } : {})); // prettier-ignore

test('the hats cut each other off, and nothing else does (common practice)', () => {
  const name = (pad: number) => POLISHED_FLOOR.pads[pad]!.sound.name;
  expect(cutsOf(POLISHED_FLOOR, 6).map(name)).toEqual(['Closed hat', 'Pedal hat']);
  expect(cutsOf(POLISHED_FLOOR, 0)).toEqual([]);
});

test('a pad that is chosen to be cut off leaves the group that it was in; a group of one is none', () => {
  expect(withCuts([[4, 5, 6]], 4, [6])).toEqual([[4, 6]]);
  expect(withCuts([[4, 5, 6], [0, 1]], 0, [4])).toEqual([[5, 6], [0, 4]]); // prettier-ignore
  expect(withCuts([[4, 5, 6]], 4, [])).toEqual([[5, 6]]);
  expect(withCuts([], 3, [2])).toEqual([[2, 3]]);
});

test('what sounds by a stroke: through every way, shares multiplied and delays added', () => {
  const pads = network({});
  pads[0] = { alsoPlays: [{ pad: 1, share: 0.5, ms: 10 }, { pad: 2, share: 1, note: '1/16' }] }; // prettier-ignore
  pads[1] = { alsoPlays: [{ pad: 3, share: 0.5, note: '1/8' }] };
  expect(reachedBy(pads, 0)).toEqual([
    { pad: 1, share: 0.5, ms: 10, notes: [] },
    { pad: 3, share: 0.25, ms: 10, notes: ['1/8'] },
    { pad: 2, share: 1, ms: 0, notes: ['1/16'] },
  ]);
});

test('a circle is refused, however long it is, and so is more than can sound at once', () => {
  expect(overreaching(network({ 0: [0] }))).toBe(0);
  expect(overreaching(network({ 3: [4], 4: [3] }))).toBe(3);
  expect(overreaching(network({ 1: [2], 2: [7, 8], 8: [1] }))).toBe(1);
  expect(overreaching(network({ 0: [1, 2, 3], 1: [4, 5, 6], 2: [4, 5, 6], 3: [4, 5, 6], 4: [7, 8, 9] }))).toBe(0);
  expect(overreaching(network({ 0: [1, 2, 3], 1: [4, 5, 6] }))).toBe(-1);
});

// NETWORKS=5000 looks longer than every test run can.
test('of random networks, those are refused in which one can come back to a pad, and no others but for their size', () => {
  for (let seed = 1; seed <= Number(process.env.NETWORKS ?? 500); seed++) {
    const chance = random(seed);
    const plays: Record<number, number[]> = {};
    for (let pad = 0; pad < PADS; pad++) if (chance() < 0.3) plays[pad] = Array.from({ length: 1 + Math.floor(chance() * 3) }, () => Math.floor(chance() * PADS)); // prettier-ignore
    // By itself: whoever can be reached from where one is.
    const reaches = (from: number, seen = new Set<number>()): Set<number> => {
      for (const next of plays[from] ?? []) if (!seen.has(next)) reaches(next, seen.add(next));
      return seen;
    };
    const pads = network(plays);
    const hasCircle = pads.some((_, pad) => reaches(pad).has(pad));
    const refused = overreaching(pads) >= 0;
    if (hasCircle) expect([seed, refused]).toEqual([seed, true]);
    else if (refused) expect(Math.max(...pads.map((_, pad) => ways(plays, pad)))).toBeGreaterThan(MOST_AT_ONCE);
  }
});

function ways(plays: Record<number, number[]>, from: number): number {
  return (plays[from] ?? []).reduce((sum, next) => sum + 1 + ways(plays, next), 0);
}

test('another sound on a pad has its kind’s note, unless another pad has that; the place in the kit stays', () => {
  const pads = POLISHED_FLOOR.pads.map((pad, i) => (i === 0 ? { ...pad, alsoPlays: [{ pad: 1, share: 1 }] } : pad));
  const clap = pads[3]!.sound;
  expect(withSound(pads, 0, clap)).toEqual({ ...pads[0], sound: clap });
  const other = pads.map((pad, i) => (i === 3 ? { ...pad, note: 60 } : pad));
  expect(withSound(other, 0, clap).note).toBe(39);
});
