import fc from 'fast-check';
import { flatPoints, type MovePoint } from '../document/moves';
import { drawnOver, erasedPoints, movePoints, thinnedOut, withPoints } from './editMoves';
import { moveValue } from '../sequence/moveValue';
import type { Pattern } from '../document/pattern';

const pattern: Pattern = { name: 'p', length: 3840, hits: [] };
const points = (...pairs: [number, number][]): MovePoint[] => pairs.map(([tick, value]) => ({ tick, value }));

test('a Move goes straight from point to point, holds before and after, and steps when it is one of steps', () => {
  const flat = flatPoints(points([0, 0], [960, 10], [1920, -10]));
  expect([-5, 0, 480, 960, 1440, 1920, 9999].map((t) => moveValue(flat, t))).toEqual([0, 0, 5, 10, 0, -10, -10]);
  expect([0, 959, 960, 1919].map((t) => moveValue(flat, t, true))).toEqual([0, 0, 10, 10]);
  // Two points on one tick are a jump.
  expect([959, 960].map((t) => moveValue(flatPoints(points([0, 1], [960, 1], [960, 2])), t))).toEqual([1, 2]);
});

test('points are kept in order and in range; without any the Move is gone', () => {
  const p = withPoints(pattern, { pad: 4, control: 'level' }, points([960, 0.5], [0, 7]));
  expect(p.moves).toEqual([{ pad: 4, control: 'level', points: points([0, 1], [960, 0.5]) }]);
  expect(movePoints(p, { pad: 4, control: 'level' })).toHaveLength(2);
  expect(movePoints(p, { pad: 4, control: 'pan' })).toEqual([]);
  expect(withPoints(p, { pad: 4, control: 'level' }, [])).toEqual(pattern);
});

test('drawing replaces the stretch it covers and nothing else; erasing takes it out', () => {
  const old = points([0, 0], [500, 1], [1000, 0], [2000, 1]);
  expect(drawnOver(old, points([400, 5], [1100, 6]))).toEqual(points([0, 0], [400, 5], [1100, 6], [2000, 1]));
  expect(erasedPoints(old, 400, 1000)).toEqual(points([0, 0], [2000, 1]));
});

test('thinned out, the course differs by no more than the tolerance at the points that went, and a line keeps its ends', () => {
  expect(thinnedOut(points([0, 0], [1, 1], [2, 2], [3, 3]), 0.01)).toEqual(points([0, 0], [3, 3]));
  const anyPoints = fc
    .array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 3, maxLength: 60 })
    .map((values) => values.map((value, i) => ({ tick: i * 40, value })));
  fc.assert(
    fc.property(anyPoints, fc.double({ min: 0, max: 0.5, noNaN: true }), (all, tolerance) => {
      const few = flatPoints(thinnedOut(all, tolerance));
      return all.every(({ tick, value }) => Math.abs(moveValue(few, tick) - value) <= tolerance + 1e-9);
    }),
  );
});
