import { loopStrokes } from './loopStrokes';
import { isLucky } from './odds';
import type { Hit } from '../document/hit';
import { demoSet } from '../document/demo';

test('a loop’s strokes: rolls written out round its end, what is muted, unlucky or outside the window left out', () => {
  const track = demoSet().set.tracks[0]!;
  const hit = (id: number, pad: number, tick: number, more: Partial<Hit> = {}): Hit => ({ id, pad, tick, length: 120, velocity: 0.8, snap: null, ...more }); // prettier-ignore
  const roll = { strokes: 2, over: 480, swell: 0.5, glide: 12 };
  const pattern = {
    name: 'p',
    length: 3840,
    window: { start: 960, length: 960 },
    hits: [hit(1, 0, 0), hit(2, 0, 1000), hit(3, 4, 1800, { roll }), hit(4, 2, 1200, { odds: 0 }), hit(5, 3, 1300)],
  };
  track.mutedPads = [3];
  expect(loopStrokes(pattern, track)).toEqual([
    { tick: 40, pad: 0, velocity: 0.8, pitch: 0, length: 120 },
    { tick: 120, pad: 4, velocity: 0.8, pitch: 12, length: 120 }, // gone round
    { tick: 840, pad: 4, velocity: 0.4, pitch: 0, length: 120 },
  ]);
});

test('odds: the same moment always answers the same, as often as they say, apart for each pad and track', () => {
  const share = (odds: number) => {
    let count = 0;
    for (let tick = 0; tick < 10000; tick++) if (isLucky(odds, 0, 4, tick * 240)) count++;
    return count / 10000;
  };
  // Four standard deviations of 10,000 draws: at most 0.02.
  for (const odds of [0.1, 0.5, 0.9]) expect(Math.abs(share(odds) - odds)).toBeLessThan(0.02);
  expect([share(0), share(1)]).toEqual([0, 1]);
  const row = (track: number, pad: number) => Array.from({ length: 64 }, (_, i) => isLucky(0.5, track, pad, i * 240)).join(); // prettier-ignore
  expect(row(0, 4)).toBe(row(0, 4));
  expect(new Set([row(0, 4), row(0, 5), row(1, 4)]).size).toBe(3);
});
