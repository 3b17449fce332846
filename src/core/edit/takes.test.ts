import type { Hit, Pattern } from '../model/set';
import { soundingHits } from '../sequence/soundingHits';
import { crop, doubled, hitsPerBar, nextTake, onlyTake, takesOf, withoutTake } from './takes';

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

test('cropping keeps what belongs to the bars, an early first hit too, and moves it to the start', () => {
  const cropped = crop(pattern, BAR, BAR);
  expect([cropped.length, cropped.hits.map((h) => [h.id, h.tick])]).toEqual([
    BAR,
    [
      [3, -30],
      [4, 960],
    ],
  ]);
  expect(soundingHits(cropped).map((h) => h.tick)).toEqual([0, 960]);
});

test('doubling plays the loop again in its second half', () => {
  let id = 99;
  const twice = doubled(crop(pattern, BAR, BAR), () => (id += 2));
  expect(twice.length).toBe(2 * BAR);
  expect(soundingHits(twice).map((h) => [h.id, h.tick])).toEqual([
    [3, 0],
    [4, 960],
    [101, BAR],
    [103, BAR + 960],
  ]);
});

test('bars are told by how many hits sound in them', () => expect(hitsPerBar(pattern, BAR)).toEqual([2, 2, 0, 1]));
