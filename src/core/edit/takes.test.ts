import { hitsPerBar, nextTake, onlyTake, takesOf, withoutTake } from './takes';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

const BAR = 3840;
const hit = (id: number, tick: number, take?: number): Hit => ({
  id,
  pad: id % 2,
  tick,
  length: 1,
  velocity: 1,
  snap: { grid: 240, strength: 1 },
  ...(take !== undefined && { take }),
});
const pattern: Pattern = {
  name: 'p',
  length: 4 * BAR,
  hits: [hit(1, -20, 1), hit(2, 960, 1), hit(3, BAR - 30, 2), hit(4, BAR + 960, 2), hit(5, 3 * BAR), hit(6, 5 * BAR)],
};

test('takes are listed newest first, heard alone, dropped', () => {
  expect(takesOf(pattern).map((t) => [t.take, t.hits.map((h) => h.id), t.pads])).toEqual([
    [2, [3, 4], [0, 1]],
    [1, [1, 2], [0, 1]],
  ]);
  expect(nextTake(pattern)).toBe(3);
  expect(onlyTake(pattern, 2).hits.map((h) => h.id)).toEqual([3, 4]);
  expect(withoutTake(pattern, 2).hits.map((h) => h.id)).toEqual([1, 2, 5, 6]);
});

test('bars are told by how many hits sound in them', () => expect(hitsPerBar(pattern, BAR)).toEqual([2, 2, 0, 1]));
