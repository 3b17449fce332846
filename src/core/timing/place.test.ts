import fc from 'fast-check';
import { gridTicks, GRIDS, nearestLine } from './grid';
import { placedTick } from './place';

test('grids are the note values they are named after', () => {
  // A whole note is 4 x 960 ticks; a triplet fits three into the time of two.
  const expected = {
    '1/4': 3840 / 4,
    '1/8': 3840 / 8,
    '1/8T': 3840 / 12,
    '1/16': 3840 / 16,
    '1/16T': 3840 / 24,
    '1/32': 3840 / 32,
  };
  expect(Object.fromEntries(GRIDS.map((g) => [g.name, g.ticks]))).toEqual(expected);
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
  expect(placedTick(100.4, { grid: 240, strength: 0 })).toBe(100);
  expect(placedTick(100.6, null)).toBe(101);
});
