import { copyOf, freeSlot, hasRoom, nextName } from './slots';
import { MAX_SLOTS } from '../document/limits';
import type { Pattern } from '../document/pattern';
import { demoSet } from '../document/demo';

const track = () => demoSet().set.tracks[0]!;
const full = (): Pattern => track().patterns[0]!;

test('the free slot is the current one while it is empty, else the next empty one, else a new one', () => {
  const t = track();
  expect(freeSlot(t, 0)).toBe(t.patterns.indexOf(null));
  expect(freeSlot(t, 6)).toBe(6);
  t.patterns = t.patterns.map(full);
  expect([freeSlot(t, 0), hasRoom(t)]).toEqual([16, true]);
  t.patterns = Array.from({ length: MAX_SLOTS }, full);
  expect(hasRoom(t)).toBe(false);
});

test('a copy has the next free name and hits of its own', () => {
  const taken = [full(), { ...full(), name: 'Fast Laps 2' }, null];
  expect(nextName('Fast Laps', taken)).toBe('Fast Laps 3');
  expect(nextName('Fast Laps 2', taken)).toBe('Fast Laps 3');
  expect(nextName('Doors', taken)).toBe('Doors 2');
  let id = 999;
  const copy = copyOf(full(), taken, () => (id += 2));
  expect(copy.hits.map(({ id: _, ...hit }) => hit)).toEqual(full().hits.map(({ id: _, ...hit }) => hit));
  expect(copy.hits[0]!.id).toBe(1001);
});
