import fc from 'fast-check';
import type { Snap } from '../quantize/place';
import { placeRecorded, type RecordedPlace } from './recordHit';

const BAR = 3840;
const SNAP = { grid: 240, strength: 1 };

/** The place of a stroke, or null. */
function placeOf(tick: number, loop: number, snap: Snap | null, grid: number, from: number): RecordedPlace | null {
  const place = { pass: NaN, struck: NaN, placed: NaN };
  return placeRecorded(tick, loop, snap, grid, from, place) ? place : null;
}

test('a stroke in the loop keeps its fraction and is placed on the grid of its own pass', () => {
  expect(placeOf(2 * BAR + 965.25, BAR, SNAP, 240, 0)).toEqual({
    pass: 2,
    struck: 965.25,
    placed: 960,
  });
});

test('a stroke just before the loop ends belongs to the first step of the next pass', () => {
  expect(placeOf(BAR - 30, BAR, SNAP, 240, 0)).toEqual({ pass: 1, struck: -30, placed: 0 });
  expect(placeOf(BAR - 130, BAR, SNAP, 240, 0)).toEqual({
    pass: 0,
    struck: BAR - 130,
    placed: BAR - 240,
  });
});

test('a stroke in the last half grid of the count-in belongs to bar 1 beat 1, an earlier one is practice', () => {
  expect(placeOf(-119, BAR, SNAP, 240, 0)).toMatchObject({ pass: 0, struck: -119 });
  expect(placeOf(-121, BAR, SNAP, 240, 0)).toBeNull();
});

test('so it is with input quantize off; the stroke stays where it was', () => {
  expect(placeOf(-119, BAR, null, 240, 0)).toEqual({ pass: 0, struck: -119, placed: -119 });
  expect(placeOf(-121, BAR, null, 240, 0)).toBeNull();
});

test('a recording that begins later in the song has its own count-in', () => {
  expect(placeOf(2 * BAR - 100, BAR, SNAP, 240, 2 * BAR)).toMatchObject({ pass: 2, struck: -100 });
  expect(placeOf(2 * BAR - 130, BAR, SNAP, 240, 2 * BAR)).toBeNull();
});

test('no stroke is lost, moved or put outside the loop', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -119, max: 1e6, noNaN: true }),
      fc.constantFrom(960, 480, 320, 240, 160, 120),
      fc.constantFrom(BAR, 2 * BAR, 8 * BAR),
      (tick, grid, loop) => {
        const place = placeOf(Math.max(tick, -grid / 2 + 1), loop, { grid, strength: 1 }, grid, 0)!;
        const { placed } = place;
        expect(place.struck + place.pass * loop).toBeCloseTo(Math.max(tick, -grid / 2 + 1), 6);
        expect(placed).toBeGreaterThanOrEqual(0);
        expect(placed).toBeLessThan(loop);
        expect(placed % grid).toBe(0);
      },
    ),
  );
});
