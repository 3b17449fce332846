import fc from 'fast-check';
import { ticksPerBar, ticksToMs, type Meter } from '../time/ticks';
import { estimateBeat, type Beat, type Onset } from './estimateBeat';
import { KINDS, playFreely } from './hands.testing';

const FOUR = { beats: 4, unit: 4 };
const HANDS = 40;

/** Whether an estimate is right: the tempo within 3 %, and the bar line within a 32nd of a bar of 4/4. */
function isRight(beat: Beat | null, tempo: number, barMs: number, meter: Meter): boolean {
  if (!beat || Math.abs(beat.tempo / tempo - 1) > 0.03) return false;
  const bars = (beat.firstBeatMs - barMs) / ticksToMs(ticksPerBar(meter), tempo);
  return Math.abs(bars - Math.round(bars)) < 1 / 32;
}

describe('tempo and bar of sixteen kinds of playing, forty hands each', () => {
  const shares = KINDS.map((kind, k) => {
    let right = 0;
    for (let hand = 0; hand < HANDS; hand++) {
      const { onsets, meant } = playFreely(kind, 1000 * k + hand + 1);
      if (isRight(estimateBeat(onsets, kind.meter), meant.tempo, meant.barMs, kind.meter)) right++;
    }
    return { what: kind.what, right: right / HANDS };
  });

  test('right in at least 85 % of all', () => {
    expect(shares.reduce((sum, { right }) => sum + right, 0) / shares.length).toBeGreaterThanOrEqual(0.85);
  });

  // Half-time with hats in eighths at 140 is, stroke for stroke, a backbeat with hats in sixteenths at 70: no one could tell.
  test.each(shares.map(({ what, right }) => [what, right] as const))('%s', (what, right) => {
    expect(right).toBeGreaterThanOrEqual(what === 'half-time, hats in eighths' ? 0.4 : 0.75);
  });
});

/** Four bars without a fault: `low` on the one, `back` on these places, hats on every one; places are even shares of the bar. */
function perfect(meter: Meter, tempo: number, places: number, back: readonly number[]): Onset[] {
  const place = ticksToMs(ticksPerBar(meter), tempo) / places;
  const onsets: Onset[] = [];
  for (let i = 0; i < 4 * places; i++) {
    const ms = 1000 + i * place;
    if (i % places === 0) onsets.push({ ms, role: 'low', velocity: 0.9 });
    if (back.includes(i % places)) onsets.push({ ms, role: 'back', velocity: 0.9 });
    onsets.push({ ms, role: 'other', velocity: 0.6 });
  }
  return onsets;
}

test.each([
  ['4/4', { beats: 4, unit: 4 }, 8, [2, 6]],
  ['3/4', { beats: 3, unit: 4 }, 6, [2, 4]],
  ['5/4', { beats: 5, unit: 4 }, 10, [6]],
  ['6/8', { beats: 6, unit: 8 }, 6, [3]],
  ['7/8', { beats: 7, unit: 8 }, 7, [4]],
  ['12/8', { beats: 12, unit: 8 }, 12, [3, 9]],
] as const)('%s played perfectly, at any usual tempo', (_, meter, places, back) => {
  for (let tempo = 84; tempo <= 132; tempo += 4) {
    const beat = estimateBeat(perfect(meter, tempo, places, back), meter)!;
    expect(beat.tempo).toBeCloseTo(tempo, 1);
    expect(Math.abs(beat.firstBeatMs - 1000)).toBeLessThan(2);
  }
});

test('a pickup is before the first bar, and the bar line stays where it was', () => {
  const strokes = perfect(FOUR, 96, 8, [2, 6]);
  const pickup: Onset[] = [{ ms: 1000 - 312.5, role: 'other', velocity: 0.6 }, ...strokes];
  const beat = estimateBeat(pickup, FOUR)!;
  expect(beat.tempo).toBeCloseTo(96, 1);
  expect(beat.firstBeatMs).toBeCloseTo(1000 - 2500, 0);
});

test('of a long stretch the last 128 strokes tell the tempo, and the first one the first bar', () => {
  const slow = perfect(FOUR, 90, 8, [2, 6]);
  const end = 1000 + 4 * ticksToMs(3840, 90);
  const strokes = [...slow];
  for (let i = 0; i < 4; i++) {
    const from = end + i * 4 * ticksToMs(3840, 120) - 1000;
    strokes.push(...perfect(FOUR, 120, 8, [2, 6]).map((stroke) => ({ ...stroke, ms: stroke.ms + from })));
  }
  const beat = estimateBeat(strokes, FOUR)!;
  expect(beat.tempo).toBeCloseTo(120, 1);
  const bars = (end - beat.firstBeatMs) / 2000;
  expect(Math.abs(bars - Math.round(bars))).toBeLessThan(0.01);
  expect(beat.firstBeatMs).toBeLessThanOrEqual(1000 + 250);
});

test('three strokes are no tempo, nor are many at one moment', () => {
  const strokes = (...at: number[]) => at.map((ms) => ({ ms, role: 'other' as const, velocity: 0.5 }));
  expect(estimateBeat(strokes(0, 500, 1000), FOUR)).toBeNull();
  expect(estimateBeat(strokes(0, 40, 80, 120, 160), FOUR)).toBeNull();
  expect(estimateBeat(strokes(0, 500, 1000, 1500), FOUR)!.tempo).toBeCloseTo(120, 1);
});

test('whatever is struck, the tempo is one that can be set and the first bar is not after the first stroke', () => {
  const stroke = fc.record({
    ms: fc.double({ min: 0, max: 30_000, noNaN: true }),
    role: fc.constantFrom('low' as const, 'back' as const, 'other' as const),
    velocity: fc.double({ min: 0, max: 1, noNaN: true }),
  });
  const meter = fc.record({ beats: fc.integer({ min: 1, max: 16 }), unit: fc.constantFrom(2, 4, 8, 16) });
  fc.assert(
    fc.property(fc.array(stroke, { maxLength: 40 }), meter, (strokes, given) => {
      const beat = estimateBeat(
        [...strokes].sort((a, b) => a.ms - b.ms),
        given,
      );
      if (!beat) return;
      expect(beat.tempo).toBeGreaterThanOrEqual(20);
      expect(beat.tempo).toBeLessThanOrEqual(300);
      const barMs = ticksToMs(ticksPerBar(given), beat.tempo);
      const first = Math.min(...strokes.map(({ ms }) => ms));
      expect(beat.firstBeatMs).toBeLessThanOrEqual(first + barMs / 8);
      expect(beat.firstBeatMs).toBeGreaterThan(first - barMs);
    }),
    { numRuns: 60 },
  );
});
