import { MIX_CONTROLS, MIX_RANGES } from '@/core/document/mix';
import { RETURN_CONTROLS, returnName, returnRange } from '@/core/document/returns';
import { LEVEL_SCALE, mixScale, msScale, returnScale, SHARE_SCALE } from './mixScales';

const scales = [
  ...MIX_CONTROLS.filter((control) => control !== 'level').map((control) => [control, mixScale(control)] as const),
  ...RETURN_CONTROLS.filter(({ control }) => control !== 'time').map(
    (moved) => [returnName(moved), returnScale(moved)] as const,
  ),
  ['a share', SHARE_SCALE] as const,
  ['ms', msScale({ min: 1, max: 2000 })] as const,
  ['level', LEVEL_SCALE] as const,
];

test.each(scales)('%s: the strip runs from end to end, and a place, a step and what is typed stay within', (_, scale) => {
  const { min, max } = scale;
  expect([scale.share(min), scale.share(max), scale.at(-1), scale.at(2)]).toEqual([0, 1, min, max]);
  let before = -Infinity;
  for (let place = 0; place <= 1; place += 0.01) {
    const value = scale.at(place);
    expect(Math.abs(scale.share(value) - place)).toBeLessThan(0.01);
    expect(value).toBeGreaterThanOrEqual(before);
    before = value;
    // What is shown can be typed again.
    const { number, unit } = scale.shown(value);
    expect(Math.abs(scale.share(scale.read(number, unit)) - scale.share(value))).toBeLessThan(0.16);
    for (const steps of [-10, -1, 1, 10]) {
      const stepped = scale.stepped(value, steps);
      expect([stepped >= min, stepped <= max, steps > 0 ? stepped >= value : stepped <= value]).toEqual([true, true, true]); // prettier-ignore
    }
  }
  for (const number of [-1e9, 1e9]) expect([min, max]).toContain(scale.read(number, ''));
}); // prettier-ignore

test('numbers are shown as they are said: a plus above 0, dB of a level, off at its foot', () => {
  expect([mixScale('low').text(3), mixScale('low').text(-3), mixScale('low').text(0)]).toEqual(['+3.0', '-3.0', '0.0']);
  expect(mixScale('pan').shown(-0.5)).toEqual({ number: -50, unit: '%' });
  expect(LEVEL_SCALE.shown(0.5).number).toBeCloseTo(-6.02, 2);
  expect(LEVEL_SCALE.shown(LEVEL_SCALE.at(0.5)).number).toBeCloseTo(-12.04, 2);
  expect([LEVEL_SCALE.text(LEVEL_SCALE.shown(0).number), LEVEL_SCALE.read(-70, 'dB'), LEVEL_SCALE.read(3, 'dB')]).toEqual(['off', 0, 1]); // prettier-ignore
  expect(MIX_RANGES.level.max).toBe(1);
});

test('each control of the echo and the room runs over its range; the echo’s time by note values', () => {
  for (const moved of RETURN_CONTROLS) {
    const { min, max } = returnRange(moved)!;
    const { at, share } = returnScale(moved);
    expect([at(0), at(1), share(min), share(max)]).toEqual([min, max, 0, 1]);
  }
  const { at, text } = returnScale({ on: 'echo', control: 'time' });
  expect([0, 0.5, 0.6, 1].map((place) => text(at(place)))).toEqual(['1/16', '1/4 triplet', '1/8 dotted', '1/2']);
});
