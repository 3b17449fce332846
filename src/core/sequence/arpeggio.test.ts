import fc from 'fast-check';
import { ARP_ORDERS } from '../document/tones';
import { arpPlace, arpRound } from './arpeggio';

const turns = (...[order, notes, octaves, count]: [...Parameters<typeof arpPlace>]) =>
  Array.from({ length: count }, (_, turn) => arpPlace(order, notes, octaves, turn));

test('up, down, and up and down with its outermost notes once each (common practice), over octaves', () => {
  expect(turns('up', 3, 1, 7)).toEqual([0, 1, 2, 0, 1, 2, 0]);
  expect(turns('down', 3, 2, 7)).toEqual([5, 4, 3, 2, 1, 0, 5]);
  expect(turns('upDown', 3, 1, 9)).toEqual([0, 1, 2, 1, 0, 1, 2, 1, 0]);
  expect(turns('upDown', 1, 1, 3)).toEqual([0, 0, 0]);
  expect(turns('played', 2, 2, 5)).toEqual([0, 1, 2, 3, 0]);
});

test('in each round every note of every octave comes, and nothing else', () => {
  fc.assert(
    fc.property(fc.constantFrom(...ARP_ORDERS), fc.integer({ min: 1, max: 16 }), fc.integer({ min: 1, max: 4 }), fc.nat(9), (order, notes, octaves, rounds) => {
      const places = notes * octaves;
      const round = arpRound(order, places);
      const all = Array.from({ length: round }, (_, i) => arpPlace(order, notes, octaves, rounds * round + i));
      expect([...new Set(all)].sort((a, b) => a - b)).toEqual(Array.from({ length: places }, (_, i) => i));
    }),
  );
}); // prettier-ignore
