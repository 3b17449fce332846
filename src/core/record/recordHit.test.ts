import fc from 'fast-check';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import type { Snap } from '../quantize/place';
import { soundingHits } from '../sequence/soundingHits';
import { windowOf } from '../sequence/loopWindow';
import { placeRecorded, type RecordedLoop, type RecordedPlace } from './recordHit';

const BAR = 3840;
const SNAP = { grid: 240, strength: 1 };
const whole = (length: number): RecordedLoop => ({ length, start: 0, span: length });

/** The place of a stroke, or null. */
function placeOf(tick: number, loop: RecordedLoop, snap: Snap | null, from = 0, placedBy = snap): RecordedPlace | null {
  const place = { pass: NaN, struck: NaN, placed: NaN, keepsSnap: false };
  return placeRecorded({ tick, snap, placedBy, grid: 240, from }, loop, place) ? place : null;
}

test('a stroke in the loop keeps its fraction and is placed on the grid of its own pass', () => {
  expect(placeOf(2 * BAR + 965.25, whole(BAR), SNAP)).toEqual({ pass: 2, struck: 965.25, placed: 960, keepsSnap: true }); // prettier-ignore
});

test('a stroke just before the loop ends belongs to the first step of the next pass', () => {
  expect(placeOf(BAR - 30, whole(BAR), SNAP)).toMatchObject({ pass: 1, struck: -30, placed: 0 });
  expect(placeOf(BAR - 130, whole(BAR), SNAP)).toMatchObject({ pass: 0, struck: BAR - 130, placed: BAR - 240 });
});

test('so it does when a Feel places it elsewhere: its snap tells the pass, and the document knows no other', () => {
  const asPlayed = { grid: 0, strength: 1 };
  expect(placeOf(3800, whole(BAR), SNAP, 0, asPlayed)).toMatchObject({ pass: 1, struck: -40, placed: -40 });
});

test('a stroke in the last half grid of the count-in belongs to bar 1 beat 1, an earlier one is practice', () => {
  expect(placeOf(-119, whole(BAR), SNAP)).toMatchObject({ pass: 0, struck: -119, placed: 0 });
  expect(placeOf(-121, whole(BAR), SNAP)).toBeNull();
});

test('so it is with input quantize off; the stroke stays where it was', () => {
  expect(placeOf(-119, whole(BAR), null)).toMatchObject({ pass: 0, struck: -119, placed: -119 });
  expect(placeOf(-121, whole(BAR), null)).toBeNull();
});

test('a recording that begins later in the song has its own count-in, also off the grid', () => {
  expect(placeOf(2 * BAR - 100, whole(BAR), SNAP, 2 * BAR)).toMatchObject({ pass: 2, struck: -100 });
  expect(placeOf(2 * BAR - 130, whole(BAR), SNAP, 2 * BAR)).toBeNull();
  // Played on from the middle of a step: the first stroke after it is no practice.
  expect(placeOf(1010, whole(BAR), SNAP, 1000)).toMatchObject({ pass: 0, struck: 1010 });
});

test('in a window that lies off the grid lines are counted from the pattern, as they are in the document', () => {
  // Counted from the window's start its line was 1200 - 480 = 720, and the document's 960: it sounded at both.
  expect(placeOf(950, { length: BAR, start: 240, span: 1920 }, { grid: 480, strength: 1 })).toMatchObject({
    placed: 960,
  });
  // Its line was the window's end, which the document places before its start: it was never heard again.
  expect(placeOf(2390, { length: BAR, start: 480, span: 1920 }, { grid: 960, strength: 1 })).toMatchObject({ pass: 0, placed: 1920 }); // prettier-ignore
});

test('where no line lies within the window the stroke is kept as it was struck', () => {
  expect(placeOf(1900, { length: BAR, start: 480, span: 1440 }, { grid: 960, strength: 1 })).toEqual({
    pass: 0,
    struck: 1900,
    placed: 1900,
    keepsSnap: false,
  });
});

test('every stroke that belongs to a recording sounds in the document once each pass, where the engine has placed it', () => {
  const grids = fc.constantFrom(960, 480, 320, 240, 160, 120);
  const anyFeel = fc.option(
    fc.record({
      grid: fc.constantFrom(0, 120, 240, 480, 960),
      strength: fc.constantFrom(1, 0.5),
      swing: fc.constantFrom(undefined, { unit: 240, ratio: 0.62 }),
    }),
    { nil: undefined },
  );
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 40000, noNaN: true }),
      grids,
      fc.boolean(),
      anyFeel,
      fc.constantFrom(BAR, 2 * BAR, 3360, 1200),
      fc.option(fc.record({ start: fc.nat({ max: 3600 }), length: fc.integer({ min: 240, max: 3840 }) }), { nil: undefined }), // prettier-ignore
      (tick, grid, quantized, feel, length, window) => {
        const bare: Pattern = { name: '', length, hits: [], ...(feel && { feel }), ...(window && { window }) };
        const { start, length: span } = windowOf(bare);
        const snap = quantized ? { grid, strength: 1 } : null;
        const place = placeOf(tick, { length, start, span }, snap, 0, snap && (feel ?? snap))!;
        if (!place) return tick < -grid / 2;
        const kept = place.keepsSnap ? snap : null;
        const standsAlone = feel && !(place.keepsSnap && snap !== null); // placed by no Feel, as the engine says
        const hit: Hit = { id: 1, pad: 0, tick: place.struck, length: 1, velocity: 1, snap: kept, ...(standsAlone && { feel: kept ?? { grid: 0, strength: 1 } }) }; // prettier-ignore
        const [sounding, ...more] = soundingHits({ ...bare, hits: [hit] });
        if (!sounding || more.length > 0) return false;
        if (sounding.tick < start - 1e-6 || sounding.tick > start + span + 1e-6) return false;
        const apart = sounding.tick - place.placed;
        const turns = Math.round(apart / span);
        return Math.abs(apart - turns * span) < 1e-6 && Math.abs(place.struck + place.pass * span - tick) < 1e-6;
      },
    ),
    { numRuns: 5000 },
  );
});
