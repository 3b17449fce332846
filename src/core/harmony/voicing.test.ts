import fc from 'fast-check';
import { SCALES } from '../document/tones';
import { chordOn, scaleStep } from './chords';
import { nearestVoicing } from './voicing';

const [C, F, G, AM] = [
  [60, 64, 67],
  [65, 69, 72],
  [67, 71, 74],
  [69, 72, 76],
];

test('common tones stay, the others go the shortest way (common practice of part writing): C, F, G, C; C, Am', () => {
  expect(nearestVoicing(C!, null)).toEqual(C);
  const f = nearestVoicing(F!, C!);
  expect(f).toEqual([60, 65, 69]);
  const g = nearestVoicing(G!, f);
  expect(g).toEqual([59, 62, 67]);
  expect(nearestVoicing(C!, g)).toEqual([60, 64, 67]);
  expect(nearestVoicing(AM!, C!)).toEqual([60, 64, 69]);
});

test('of any chord after any other: the same notes in other octaves, about where it was struck, and none of its inversions lies nearer', () => {
  const scale = fc.constantFrom(...SCALES);
  const way = (a: readonly number[], b: readonly number[]) =>
    [...a.map((x) => Math.min(...b.map((y) => Math.abs(x - y)))), ...b.map((y) => Math.min(...a.map((x) => Math.abs(x - y))))].reduce((sum, x) => sum + x, 0); // prettier-ignore
  fc.assert(
    fc.property(scale, fc.nat(11), fc.nat(20), fc.nat(20), fc.constantFrom('triad' as const, 'seventh' as const), (name, root, from, to, kind) => {
      const of = { root, scale: name };
      const chordAt = (degree: number) => chordOn(of, scaleStep(of, 36 + root, degree), kind);
      const [last, next] = [chordAt(from), chordAt(to)];
      const voiced = nearestVoicing(next, last);
      expect(voiced.map((note) => note % 12).sort()).toEqual(next.map((note) => note % 12).sort());
      voiced.forEach((note) => expect(Math.min(...next.map((other) => Math.abs(other - note)))).toBeLessThanOrEqual(12));
      expect(voiced).toEqual([...voiced].sort((a, b) => a - b));
      if (next.at(-1)! - next[0]! > 12) return;
      const turned = next.map((_, k) => next.map((note, i) => (i < k ? note + 12 : note)));
      const down = next.map((_, k) => next.map((note, i) => (i >= next.length - k ? note - 12 : note)));
      for (const other of [...turned, ...down]) expect(way(voiced, last)).toBeLessThanOrEqual(way(other, last));
    }),
  );
}); // prettier-ignore
