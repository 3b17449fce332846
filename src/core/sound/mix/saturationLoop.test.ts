import { assertSameBits } from './loops.testing';
import { bend, saturate, SATURATION_NUMBERS, saturateSlowly } from './saturationLoop';

test('both sides at once are to the bit what they are one by one', () =>
  assertSameBits(saturate, saturateSlowly, SATURATION_NUMBERS));

test('the curve is the step polynomial of the seventh degree: odd, of slope 1, flat from 35/16 on', () => {
  expect(bend(0)).toBe(0);
  expect(bend(1e-6) / 1e-6).toBeCloseTo(1, 9);
  // Half way there: (35/2 - 35/8 + 21/32 - 5/128) / 16.
  expect(bend(35 / 32)).toBeCloseTo(0.85888671875, 12);
  expect([bend(35 / 16), bend(9), bend(-9)]).toEqual([1, 1, -1]);
  for (let x = 0; x < 2.5; x += 0.01) expect(bend(-x) + bend(x)).toBe(0);
});
