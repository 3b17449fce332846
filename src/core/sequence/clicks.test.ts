import { ticksPerBar, ticksPerPulse, type Meter } from '../time/ticks';
import { CLICK, clickStrength, nextClick } from './clicks';

/** Strengths of the clicks of one bar. */
function bar(meter: Meter, between = 0): string {
  const names = 'BGb.';
  let out = '';
  for (let tick = nextClick(-1e-6, meter, between); tick < ticksPerBar(meter); tick = nextClick(tick, meter, between)) {
    out += names[clickStrength(tick, meter)];
  }
  return out;
}

test('the first beat is the strongest; compound meters go in threes (common practice)', () => {
  expect(bar({ beats: 4, unit: 4 })).toBe('Bbbb');
  expect(bar({ beats: 3, unit: 4 })).toBe('Bbb');
  expect(bar({ beats: 5, unit: 4 })).toBe('Bbbbb');
  expect(bar({ beats: 6, unit: 8 })).toBe('BbbGbb');
  expect(bar({ beats: 7, unit: 8 })).toBe('Bbbbbbb');
  expect(bar({ beats: 12, unit: 8 })).toBe('BbbGbbGbbGbb');
  expect([ticksPerPulse({ beats: 6, unit: 8 }), ticksPerPulse({ beats: 4, unit: 4 })]).toEqual([1440, 960]);
});

test('softer clicks between the beats: eighths, triplets, sixteenths', () => {
  expect(bar({ beats: 2, unit: 4 }, 480)).toBe('B.b.');
  expect(bar({ beats: 2, unit: 4 }, 320)).toBe('B..b..');
  expect(bar({ beats: 2, unit: 4 }, 240)).toBe('B...b...');
  expect(bar({ beats: 6, unit: 8 }, 480)).toBe('BbbGbb'); // no shorter than the beat: none
  expect(CLICK.BAR).toBe(0);
});

test('a count-in clicks before bar 1', () => expect(nextClick(-3840 - 1e-6, { beats: 4, unit: 4 }, 0)).toBe(-3840));
