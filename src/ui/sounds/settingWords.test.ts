import { NUMBER_SETTINGS, OPEN_CUTOFF, SOUND_NUMBERS } from '@/core/document/sound';
import { numberText, settingNow, shareOf, stepped, STRIPS, valueAt } from './settingWords';

const HAT = { made: 'openHat' } as const;

test('each strip runs from the least to the most, and a value lies where it was touched', () => {
  for (const setting of NUMBER_SETTINGS) {
    const { min, max } = SOUND_NUMBERS[setting];
    expect([setting, valueAt(setting, -1, HAT), valueAt(setting, 2, HAT)]).toEqual([setting, min, max]);
    for (const share of [0.2, 0.5, 0.8]) {
      if (setting !== 'voices') expect([setting, shareOf(setting, valueAt(setting, share, HAT), HAT)]).toEqual([setting, expect.closeTo(share, 2)]); // prettier-ignore
    }
  }
});

test('what is typed as it is shown is the same value again', () => {
  for (const setting of NUMBER_SETTINGS) {
    const { min, max } = SOUND_NUMBERS[setting];
    for (const value of [min, (min + max) / 2, max]) {
      const { number, unit } = STRIPS[setting].shown(value, HAT);
      expect([setting, STRIPS[setting].read(number, HAT, unit)]).toEqual([setting, expect.closeTo(value, 6)]);
    }
  }
  // A cutoff below a kilohertz is typed in Hz, also while it is shown in kHz.
  expect(STRIPS.cutoff.read(400, HAT, 'kHz')).toBe(400);
  expect(STRIPS.cutoff.read(8.4, HAT, 'kHz')).toBe(8400);
});

test('numbers are shown with the digits that mean something; pitch says which way', () => {
  expect([numberText('pitch', 2), numberText('pitch', -3.25), numberText('cutoff', 8.44), numberText('decay', 425.4)]).toEqual(['+2.00', '-3.25', '8.4', '425']); // prettier-ignore
  // The open hat dies away in 850 ms of its own (its recipe).
  expect(STRIPS.decay.shown(settingNow('decay', HAT, {}), HAT)).toEqual({ number: 850, unit: 'ms' });
});

test('keys step by semitones, also those of a cutoff; wide open is wide open again', () => {
  expect(stepped('pitch', 0, 3, HAT)).toBe(3);
  expect(stepped('cutoff', 1000, 12, HAT)).toBe(2000);
  expect(stepped('cutoff', OPEN_CUTOFF, -1, HAT)).toBeLessThan(19000);
  expect(stepped('cutoff', 19990, 1, HAT)).toBe(OPEN_CUTOFF);
});

test('of a sample there is no more than all of it: its decay ends at 100 %', () => {
  const sample = { sample: 'a'.repeat(32), frames: 24000 };
  const all = valueAt('decay', 1, sample);
  expect([all, STRIPS.decay.shown(all, sample), shareOf('decay', 1, sample)]).toEqual([
    0,
    { number: 100, unit: '%' },
    1,
  ]);
  expect(stepped('decay', 0, 5, sample)).toBe(0);
});
