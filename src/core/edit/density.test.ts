import { soundingHits } from '../sequence/soundingHits';
import { denseMoments } from './density';
import { padPages } from './padPages';
import { demoSet } from '../document/demo';

test('dense is where four different sounds or more fall together; a kick, a snare and a hat do not', () => {
  const at = (tick: number, ...pads: number[]) =>
    pads.map((pad) => ({ tick: tick + pad / 100, struck: tick, pad, velocity: 1, length: 1, id: pad, pitch: 0, odds: 1, roll: null })); // prettier-ignore
  const sounding = [
    ...at(0, 0, 2, 4),
    ...at(960, 0, 2, 4, 12),
    ...at(1920, 4, 4, 4, 4),
    ...at(2880, 0, 1, 2),
    ...at(3000, 3, 4),
  ];
  expect(denseMoments(sounding)).toEqual([{ tick: 960, sounds: 4 }]);
  // In the demo the backbeats are: kick, snare, hat, shaker, tambourine, and once more.
  const demo = denseMoments(soundingHits(demoSet().set.tracks[0]!.patterns[0]!));
  expect(demo.map(({ tick }) => (Math.round(tick / 240) * 240) % 1920)).toEqual(demo.map(() => 960));
});

test('pads hold a bar of steps at a time, or sixteen of a longer one; a shorter last bar ends with the pattern', () => {
  const four = { beats: 4, unit: 4 };
  expect(padPages(7680, 240, four)).toEqual([
    { start: 0, steps: 16, bar: 0 },
    { start: 3840, steps: 16, bar: 1 },
  ]);
  expect(padPages(4800, 240, { beats: 5, unit: 4 })).toEqual([
    { start: 0, steps: 16, bar: 0 },
    { start: 3840, steps: 4, bar: 0 },
  ]);
  expect(padPages(4080, 240, four)[1]).toEqual({ start: 3840, steps: 1, bar: 1 });
  expect(padPages(3840, 320, four)).toEqual([{ start: 0, steps: 12, bar: 0 }]);
});
