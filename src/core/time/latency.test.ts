import { readLatency } from './latency';

const clicks = Array.from({ length: 10 }, (_, i) => 1000 + i * 600);

test('the median of the taps beside their clicks; the lead-in, strays and double taps do not count', () => {
  const late = clicks.slice(2).map((click, i) => click + 37 + [0, 4, -3, 1, -60, 2, -1, 0][i]!);
  const reading = readLatency(clicks, [1000, 1290, ...late, late[3]! + 90])!;
  expect(reading.offsetMs).toBeGreaterThan(35);
  expect(reading.offsetMs).toBeLessThan(39);
  expect(reading.taps).toBe(8);
  expect(reading.steadyMs).toBeLessThan(4);
});

test('too few taps are no reading', () => {
  expect(readLatency(clicks, clicks.slice(2, 6))).toBeNull();
  expect(readLatency([], [1, 2, 3, 4, 5, 6])).toBeNull();
});
