import { earlyLate, histogram, offsetsMs, offsetWords, trendWords } from './earlyLate';
import { quantile } from '../statistics';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

test('quantiles are those of type 7 (Hyndman & Fan 1996)', () => {
  // R: quantile(c(1, 2, 3, 4, 10)) gives 1 2 3 4 10; quantile(1:4) gives 1 1.75 2.5 3.25 4 (from memory).
  expect([0, 0.25, 0.5, 0.75, 1].map((p) => quantile([1, 2, 3, 4, 10], p))).toEqual([1, 2, 3, 4, 10]);
  expect([0, 0.25, 0.5, 0.75, 1].map((p) => quantile([4, 3, 2, 1], p))).toEqual([1, 1.75, 2.5, 3.25, 4]);
  expect(quantile([], 0.5)).toBeNaN();
});

test('offsets are measured from the line that each hit belongs to, swung or not, in ms of the tempo', () => {
  const hit = (tick: number, more: Partial<Hit> = {}): Hit => ({ id: 1, pad: 0, tick, length: 1, velocity: 1, snap: { grid: 240, strength: 1 }, ...more }); // prettier-ignore
  const pattern: Pattern = { name: 'p', length: 3840, hits: [] };
  // At 125 BPM a quarter lasts 480 ms: a tick half a ms.
  expect(offsetsMs(pattern, [hit(-20), hit(970), hit(470, { snap: null }), hit(9000)], 480, 125)).toEqual([-10, 5, -5]);
  const swing = { feel: { grid: 240, strength: 1, swing: { unit: 240, ratio: 0.75 } } };
  expect(offsetsMs({ ...pattern, ...swing }, [hit(364)], 480, 125)).toEqual([2]);
});

test('summed up: middle, spread, how many are close; and in bins', () => {
  const offsets = [-8, -9, -8, -7, -30, 70];
  expect(earlyLate(offsets)).toEqual({ count: 6, median: -8, spread: expect.closeTo(1.5, 9), close: 4 / 6 });
  expect(earlyLate([])).toBeNull();
  const bins = histogram(offsets);
  expect(bins).toHaveLength(21);
  expect(bins.reduce((sum, bin) => sum + bin.count, 0)).toBe(6);
  expect(bins.filter((bin) => bin.count > 0)).toEqual([
    { ms: -30, count: 1 },
    { ms: -10, count: 3 },
    { ms: -5, count: 1 },
    { ms: 50, count: 1 },
  ]);
});

test('said in words, beside the take before', () => {
  expect([-8.2, 0.6, 12].map(offsetWords)).toEqual(['8 ms early', 'on time', '12 ms late']);
  const sum = (spread: number, count = 8) => ({ count, median: -8, spread, close: 1 });
  expect(trendWords(sum(5), sum(12))).toBe('8 ms early, steadier than the last take');
  expect(trendWords(sum(12), sum(5))).toBe('8 ms early, less steady than the last take');
  expect(trendWords(sum(5), sum(6))).toBe('8 ms early, as steady as the last take');
  expect(trendWords(sum(5), null)).toBe('8 ms early');
});
