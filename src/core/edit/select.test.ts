import { edited } from './edit';
import fc from 'fast-check';
import { soundingHits } from '../sequence/soundingHits';
import {
  copied,
  dotted,
  hitsInLoop,
  hitsWithin,
  legato,
  moved,
  pasted,
  reversed,
  rotated,
  spanOf,
  stretched,
  transposed,
  withoutHits,
} from './select';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

const BAR = 3840;
const snap = { grid: 240, strength: 1 };
const hit = (id: number, tick: number, more: Partial<Hit> = {}): Hit => ({ id, pad: 0, tick, length: 120, velocity: 1, snap, ...more }); // prettier-ignore
const pattern = (hits: Hit[], length = BAR): Pattern => ({ name: 'p', length, hits });
const ticks = (p: Pattern) => p.hits.map((h) => h.tick);
const all = (p: Pattern) => new Set(p.hits.map((h) => h.id));

test('hits are chosen by lane and stretch, covered ones too, and what waits on the tape is not', () => {
  const p = pattern([hit(1, -20), hit(2, 10), hit(3, 250), hit(4, 250, { pad: 1 }), hit(5, BAR + 10)]);
  expect(hitsWithin(p, [0], 0, 240).sort()).toEqual([1, 2]);
  expect(hitsInLoop(p)).toEqual([1, 2, 3, 4]);
  expect(hitsInLoop(p, ({ pad }) => pad === 1)).toEqual([4]);
  expect(spanOf(p, new Set([1, 3]), 240)).toEqual({ from: 0, to: 480 });
  expect(spanOf(p, new Set(), 240)).toBeNull();
});

test('a lane is rotated round the loop with its looseness, and back', () => {
  const p = pattern([hit(1, -20), hit(2, 3610), hit(3, 950, { pad: 1 }), hit(4, 5000)]);
  const right = rotated(p, new Set([1, 2, 4]), 240);
  expect(ticks(right)).toEqual([220, 10, 950, 5000]);
  expect(rotated(right, new Set([1, 2, 4]), -240)).toEqual(p);
  fc.assert(
    fc.property(fc.integer({ min: -9999, max: 9999 }), (by) => {
      const there = rotated(p, new Set([1, 2]), by);
      const heard = soundingHits(there).find((h) => h.id === 2)!.tick;
      expect(heard).toBeCloseTo((((3600 + by) % BAR) + BAR) % BAR, 6);
      expect(rotated(there, new Set([1, 2]), -by)).toEqual(p);
    }),
  );
});

test('moving keeps the shape, and stops at the borders of loop and kit', () => {
  const p = pattern([hit(1, 470), hit(2, 1205, { pad: 3 }), hit(3, 0, { pad: 15 })]);
  const two = new Set([1, 2]);
  expect(moved(p, two, 240, 1).hits.slice(0, 2).map((h) => [h.tick, h.pad])).toEqual([[710, 1], [1445, 4]]); // prettier-ignore
  expect(moved(p, two, -9999, -9).hits.slice(0, 2).map((h) => [h.tick, h.pad])).toEqual([[-10, 0], [725, 3]]); // prettier-ignore
  // Moved by no whole step, it sounds just there: the grid does not pull it back.
  expect(soundingHits(moved(p, two, 100, 0)).filter((h) => h.id < 3).map((h) => h.tick)).toEqual([580, 1300]); // prettier-ignore
  expect(soundingHits(moved(p, two, 99999, 0)).filter((h) => h.id < 3)).toHaveLength(2);
  expect(moved(p, new Set([1, 3]), 0, 5).hits[2]!.pad).toBe(15);
});

test('a transposed hit stays the sound of its pad', () => {
  const p = pattern([hit(1, 0, { pad: 4 }), hit(2, 240, { pitch: 20 })]);
  const up = transposed(p, all(p), 7);
  expect(up.hits.map((h) => [h.pad, h.pitch])).toEqual([[4, 7], [0, 24]]); // prettier-ignore
  expect('pitch' in transposed(up, new Set([1]), -7).hits[0]!).toBe(false);
});

test('reversed, the steps come the other way round; twice reversed they are as they were', () => {
  const p = pattern([hit(1, -15), hit(2, 490), hit(3, 720)]);
  expect(soundingHits(reversed(p, all(p), 240)).map((h) => [h.id, h.tick])).toEqual([[3, 0], [2, 240], [1, 720]]); // prettier-ignore
  expect(ticks(reversed(p, all(p), 240))).toEqual([705, 250, 0]);
  expect(ticks(reversed(reversed(p, all(p), 240), all(p), 240))).toEqual(ticks(p));
});

test('half time is twice as far apart, double time half as far; together they change nothing that is heard', () => {
  const p = pattern([hit(1, 240), hit(2, 490), hit(3, 720)]);
  const half = stretched(p, all(p), 2, 240);
  expect(soundingHits(half).map((h) => h.tick)).toEqual([240, 720, 1200]);
  expect(half.hits.map((h) => h.length)).toEqual([240, 240, 240]);
  const double = stretched(p, all(p), 0.5, 240);
  expect(soundingHits(double).map((h) => h.tick)).toEqual([240, 360, 480]);
  expect(soundingHits(stretched(half, all(p), 0.5, 240)).map((h) => h.tick)).toEqual([240, 480, 720]);
});

test('dotted and legato lengths', () => {
  const p = pattern([hit(1, 0), hit(2, 960), hit(3, 960, { pad: 1 }), hit(4, 2880)]);
  expect(dotted(p, new Set([1])).hits[0]!.length).toBe(180);
  // A lane of one is held all the way round.
  expect(legato(p, all(p)).hits.map((h) => h.length)).toEqual([960, 1920, BAR, 960]);
});

test('what is cut is pasted anew, round the end of the loop, without its take', () => {
  const p = pattern([hit(1, 470, { take: 3, pitch: 2 }), hit(2, 730, { pad: 5 }), hit(3, 0)]);
  const clip = copied(p, new Set([1, 2]), 240)!;
  expect([clip.span, clip.hits.map((h) => h.tick)]).toEqual([480, [-10, 250]]);
  let id = 99;
  const more = pasted(clip, BAR - 240, BAR, () => (id += 2));
  expect(more.map(({ id: newId, tick, pad, take, pitch }) => [newId, tick, pad, take, pitch])).toEqual([
    [101, BAR - 250, 0, undefined, 2],
    [103, 10, 5, undefined, undefined],
  ]);
  expect(copied(p, new Set([99]), 240)).toBeNull();
  expect(withoutHits(p, new Set([1, 2])).hits.map((h) => h.id)).toEqual([3]);
});

test('no edit touches a hit that it is not for', () => {
  const p = pattern([hit(1, 100), hit(2, 1000), hit(3, 2000), hit(4, 9000)]);
  const ids = [2, 3];
  const edits = [
    { kind: 'rotate', ids, ticks: 77 },
    { kind: 'move', ids, ticks: 240, lanes: 1 },
    { kind: 'transpose', ids, semitones: 3 },
    { kind: 'reverse', ids, step: 240 },
    { kind: 'stretch', ids, factor: 2, step: 240 },
    { kind: 'dot', ids },
    { kind: 'legato', ids },
    { kind: 'staccato', ids },
    { kind: 'drag', hits: ids.map((id) => hit(id, 60)) },
    { kind: 'erase', ids },
    { kind: 'values', of: 'odds', values: [[2, 0.5], [3, 0.2]], over: 240 }, // prettier-ignore
  ] as const;
  for (const edit of edits) {
    const { hits } = edited(p, edit);
    expect([hits[0], hits[hits.length - 1]]).toEqual([p.hits[0], p.hits[3]]);
    expect(hits).not.toEqual(p.hits);
  }
});
