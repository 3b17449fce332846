import { beatsUntil } from '@/core/time/position';
import { barWidth, loopEnds, tickX } from './drawFlyway';

const meter = { beats: 4, unit: 4 };
const view = (now: number, loop = 7680, fromTick = 0) => ({
  width: 390,
  now,
  origin: now,
  loop,
  loopStart: 0,
  windowDrop: null,
  fromTick,
  meter,
});

test('now stands still and the ticks pass by', () => {
  expect(tickX(view(1000), 1000)).toBe(tickX(view(5000), 5000));
  expect(tickX(view(0), 3840) - tickX(view(0), 0)).toBeCloseTo(barWidth(390), 9);
});

test('going on bar by bar, the ticks stand and what is now walks', () => {
  const standing = (now: number) => ({ ...view(now), origin: 3840 });
  expect(tickX(standing(4000), 5000)).toBe(tickX(standing(5000), 5000));
  expect(tickX(standing(5760), 5760) - tickX(standing(3840), 3840)).toBeCloseTo(barWidth(390) / 2, 9);
});

test('the coming loop end is there even when it is out of sight, with the beats until it', () => {
  expect(loopEnds(view(100))).toEqual([7680]);
  expect(loopEnds(view(7000))).toEqual([7680]);
  expect(loopEnds(view(7680))).toEqual([15360]);
  expect(loopEnds(view(3700, 3840))).toEqual([3840, 7680]);
  expect(loopEnds(view(-3840))).toEqual([7680]);
  expect(loopEnds(view(0, 0))).toEqual([]);
  // A pattern kept while the song goes on begins where it was played.
  expect(loopEnds({ ...view(4000), loopStart: 3840 })).toEqual([11520]);
  expect([0, 1, 959, 961, 6719, 6721, 7679].map((now) => beatsUntil(7680, now, meter))).toEqual([8, 8, 8, 7, 2, 1, 1]);
});
