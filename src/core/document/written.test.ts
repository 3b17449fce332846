import { placedTick } from '../quantize/place';
import { idsFrom } from './hit';
import { writtenPattern } from './written';

const played = { tempo: 120, strength: 1 };

test('marks are sixteenths of their bars, their digits tenths of velocity, X is full', () => {
  const { length, hits } = writtenPattern('A', [['kick', 'X--- ---5', 0], ['snare', '-9', 0]], played, idsFrom(7)); // prettier-ignore
  expect(length).toBe(2 * 3840);
  expect(new Set(hits.map(({ id }) => id)).size).toBe(3);
  expect(hits.map(({ pad, velocity, tick, snap }) => [pad, velocity, placedTick(tick, snap)])).toEqual([
    [0, 1, 0],
    [0, 0.5, 7 * 240],
    [2, 0.9, 240],
  ]);
});

test('a late lane is late by its ms, and hands are within 7 ms of that', () => {
  const { hits } = writtenPattern('A', [['shaker', '5555555555555555', 20]], { ...played, strength: 0 }, idsFrom(1));
  // At 120 BPM a ms is 1.92 ticks.
  for (const [i, { tick }] of hits.entries())
    expect(Math.abs((tick - i * 240) / 1.92 - 20)).toBeLessThanOrEqual(7 + 1e-9);
  expect(new Set(hits.map(({ tick }, i) => Math.round(tick - i * 240))).size).toBeGreaterThan(5);
});

test('swung, the second sixteenth of an eighth falls at its share of it: 60 % is 144 of 240 (convention)', () => {
  const { hits } = writtenPattern('A', [['kick', '9999', 0]], { ...played, swing: 0.6 }, idsFrom(1));
  expect(hits.map(({ tick, snap }) => placedTick(tick, snap) / 2)).toEqual([0, 144, 240, 384]);
});
