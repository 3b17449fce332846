import { placedTick } from '../quantize/place';
import { msToTicks } from '../time/ticks';
import { idsFrom } from './hit';
import { handMs, inOrder, writtenNotes, writtenPattern } from './written';

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

test('swung, the second sixteenth of an eighth falls at its share of it, however much it is tidied: 60 % is 144 of 240 (convention)', () => {
  for (const strength of [0, 0.4, 0.5]) {
    const { hits } = writtenPattern('A', [['kick', '9999', 0]], { tempo: 120, strength, swing: 0.6 }, idsFrom(1));
    const unsteady = hits.map((_, i) => msToTicks(handMs(i), 120) * (1 - strength));
    expect(hits.map(({ tick, snap }, i) => Math.round((placedTick(tick, snap) - unsteady[i]!) * 500) / 1000)).toEqual([
      0, 144, 240, 384,
    ]);
  }
});

test('bars stand in the order of their letters; `r` is a roll of three within its sixteenth', () => {
  expect(inOrder('AAB', { A: '9---', B: '9--9' })).toBe('9--- 9--- 9--9');
  const { hits } = writtenPattern('A', [['snare', '---r', 0]], played, idsFrom(1));
  expect(hits[0]!.roll).toMatchObject({ strokes: 3, over: 240 });
});

test('notes last from the sixteenth at which they begin to that at which they end', () => {
  const written = { bars: 2, notes: [[3, 4, 7, 6]] } as const;
  const { length, hits } = writtenNotes('A', written, played, idsFrom(1));
  expect(length).toBe(2 * 3840);
  expect(hits).toMatchObject([{ pad: 3, length: 3 * 240, velocity: 0.6 }]);
  expect(placedTick(hits[0]!.tick, hits[0]!.snap)).toBe(4 * 240);
});
