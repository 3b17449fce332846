import fc from 'fast-check';
import { gridTicks, GRIDS, nearestLine } from './grid';
import { placedTick } from './place';

test('grids are the note values they are named after', () => {
  // A whole note is 4 x 960 ticks; a triplet fits three into the time of two; a dot adds half.
  for (const { name, ticks } of GRIDS) {
    const [, parts, kind] = /^1\/(\d+)([TD]?)$/.exec(name)!;
    expect([name, ticks]).toEqual([
      name,
      (3840 / Number(parts)) * { T: 2 / 3, D: 3 / 2, '': 1 }[kind as 'T' | 'D' | ''],
    ]);
  }
  expect(GRIDS.map((g) => g.ticks)).toEqual([...GRIDS.map((g) => g.ticks)].sort((a, b) => b - a));
  expect(gridTicks('1/16T')).toBe(160);
});

test('the nearest line, halfway to the later one, also before zero', () => {
  expect([119, 120, 121, -119, -121].map((tick) => nearestLine(tick, 240))).toEqual([0, 240, 240, 0, -240]);
});

test('every placed tick lies on the grid and within half a step of the stroke', () => {
  fc.assert(
    fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), fc.constantFrom(...GRIDS), (tick, { ticks: grid }) => {
      const placed = placedTick(tick, { grid, strength: 1 });
      return placed % grid === 0 && Math.abs(placed - tick) <= grid / 2;
    }),
  );
});

test('strength pulls part of the way; none leaves the stroke where it fell', () => {
  expect(placedTick(100, { grid: 240, strength: 0.5 })).toBe(50);
  expect(placedTick(100.4, { grid: 240, strength: 0 })).toBe(100.4);
  expect(placedTick(100.6, null)).toBe(100.6);
});
