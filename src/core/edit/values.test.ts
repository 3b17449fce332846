import { rollPitch, rollVelocity } from '../sequence/rollStrokes';
import { random as randomOf } from '../random';
import { evenedOut, scattered, strokeCourse, tidyValue, VALUE_KINDS, VALUE_RANGES, valueOf, withValue } from './values';
import type { Hit } from '../document/hit';

const hit: Hit = { id: 1, pad: 4, tick: 0, length: 120, velocity: 0.5, snap: null };

test('every value can be set, read back, and taken to neutral without a trace', () => {
  for (const kind of VALUE_KINDS) {
    const rolling = kind === 'swell' || kind === 'glide' ? withValue(hit, 'roll', 3, 240) : hit;
    const { min, max, neutral } = VALUE_RANGES[kind];
    for (const value of [min, max]) expect(valueOf(withValue(rolling, kind, value, 240), kind)).toBeCloseTo(value, 9);
    expect(valueOf(withValue(rolling, kind, 1e9, 240), kind)).toBe(max);
    if (kind !== 'velocity' && kind !== 'length') {
      expect(withValue(withValue(rolling, kind, max, 240), kind, neutral, 240)).toEqual(rolling);
    }
  }
});

test('pitch never changes the pad; swell and glide are those of a roll, and nothing without one', () => {
  expect(withValue(hit, 'pitch', 3.25, 240)).toEqual({ ...hit, pitch: 3.25 });
  expect(withValue(hit, 'swell', 1, 240)).toBe(hit);
  const roll = withValue(hit, 'roll', 4, 240);
  expect(withValue(roll, 'glide', -12, 240).roll).toEqual({ strokes: 4, over: 240, swell: 0, glide: -12 });
  // More strokes keep the ramp that was drawn.
  expect(withValue(withValue(roll, 'glide', -12, 240), 'roll', 8, 999).roll).toMatchObject({ over: 240, glide: -12 });
});

test('rolls have 2, 3, 4, 6 or 8 strokes', () => {
  expect([0, 1, 2, 3, 4, 5.2, 6.4, 7.1, 20].map((v) => tidyValue('roll', v))).toEqual([1, 1, 2, 3, 4, 6, 6, 8, 8]);
});

test('a roll swells to its velocity or falls away from it, and glides in even steps', () => {
  const four = (swell: number) => [0, 1, 2, 3].map((i) => Math.round(100 * rollVelocity(0.8, i, 4, swell)) / 100);
  expect(four(0)).toEqual([0.8, 0.8, 0.8, 0.8]);
  expect(four(0.75)).toEqual([0.2, 0.4, 0.6, 0.8]);
  expect(four(-0.75)).toEqual([0.8, 0.6, 0.4, 0.2]);
  expect(four(1)[0]).toBeGreaterThan(0);
  expect([0, 1, 2].map((i) => rollPitch(i, 3, -12))).toEqual([-0, -6, -12]);
});

test('evened out by half, values lie half as far from their mean; scattered, within the range', () => {
  const values = new Map([[1, 0.2], [2, 0.4], [3, 0.9]]); // prettier-ignore
  expect([...evenedOut(values, 0.5).values()].map((v) => Math.round(v * 1000) / 1000)).toEqual([0.35, 0.45, 0.7]);
  const random = randomOf(7);
  const tried = Array.from({ length: 200 }, () => scattered(values, 0.1, random).get(2)! - 0.4);
  expect(Math.max(...tried.map(Math.abs))).toBeLessThanOrEqual(0.1);
  expect(Math.max(...tried)).toBeGreaterThan(0.08);
  expect(Math.min(...tried)).toBeLessThan(-0.08);
});

test('a drawn curve begins and ends as a line does, and is half way in the middle', () => {
  expect([0, 0.25, 0.5, 1].map((x) => strokeCourse('curve', x))).toEqual([0, 0.15625, 0.5, 1]);
  expect(strokeCourse('line', 0.25)).toBe(0.25);
});
