import fc from 'fast-check';
import { hitRows } from './hitRows';
import { PatternPlayer } from './patternPlayer';

const row = (tick: number, pad: number, id: number) =>
  hitRows([{ tick, struck: tick, pad, velocity: 1, length: 60, id, pitch: 0, odds: 1, roll: null }]);

const LENGTH = 1920;

test('a pattern that hits were recorded into goes round as one that came with them, whatever its window', () => {
  const hit = fc.record({ tick: fc.nat(8).map((eighth) => eighth * 240 - 0.5), pad: fc.nat(2) });
  const window = fc.record({ start: fc.nat(6), length: fc.nat(7) });
  fc.assert(
    fc.property(fc.array(hit, { maxLength: 30 }), window, (hits, { start, length }) => {
      const recorded = new PatternPlayer();
      recorded.load(LENGTH, new Float64Array(0), null);
      recorded.setWindow(start * 240, length * 240);
      hits.forEach(({ tick, pad }, i) => recorded.insert(row(tick, pad, i + 1)));

      // Of one pad on one tick the last one holds; what lies outside of the pattern is not kept.
      const kept = new Map<string, Float64Array>();
      hits.forEach(({ tick, pad }, i) => {
        if (tick >= 0 && tick < LENGTH) kept.set(`${tick} ${pad}`, row(tick, pad, i + 1));
      });
      const rows = [...kept.values()].sort((a, b) => a[0]! - b[0]!);
      const loaded = new PatternPlayer();
      loaded.load(LENGTH, Float64Array.from(rows.flatMap((one) => [...one])), null);
      loaded.setWindow(start * 240, length * 240);

      expect(recorded.windowEnd).toBe(loaded.windowEnd);
      for (let tick = -1; tick < 2 * LENGTH; tick += 97) expect(recorded.nextTick(tick)).toBe(loaded.nextTick(tick));
    }),
    { numRuns: 300 },
  );
});
