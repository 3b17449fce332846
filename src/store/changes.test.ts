import fc from 'fast-check';
import { emptySet } from '@/core/document/create';
import { nextHitId } from '@/core/document/set';
import { applyChanges, type Change } from './changes';

const document = { tracks: { 0: { name: 'Drums', hits: [{ id: 1, length: 1 }] }, 1: { name: 'Bass', hits: [] } } };

test('what a change brings is put in as it is, and what changes it later leaves it alone', () => {
  const hit = { id: 3, length: 1 };
  const changes: Change[] = [
    { op: 'splice', path: ['tracks', 0, 'hits'], at: 1, remove: 0, insert: [hit] },
    { op: 'replace', path: ['tracks', 0, 'hits', 1, 'length'], value: 60 },
  ];
  expect(applyChanges(document, changes.slice(0, 1)).tracks[0].hits[1]).toBe(hit);
  const after = applyChanges(document, changes);
  expect(after.tracks[0].hits).toEqual([
    { id: 1, length: 1 },
    { id: 3, length: 60 },
  ]);
  expect(hit.length).toBe(1);
  expect(document.tracks[0].hits).toHaveLength(1);
  // What no change is in stays the same object.
  expect(after.tracks[1]).toBe(document.tracks[1]);
  expect(after.tracks[0].hits[0]).toBe(document.tracks[0].hits[0]);
  expect(Object.isFrozen(after.tracks[0].hits)).toBe(true);
});

test('a thousand changes in a list of five thousand copy it once', () => {
  const long = { hits: Array.from({ length: 5000 }, (_, id) => ({ id, length: 1 })) };
  const copies = [jest.spyOn(Array.prototype, Symbol.iterator), jest.spyOn(Array.prototype, 'slice')];
  const changes = Array.from({ length: 1000 }, (_, i): Change => ({
    op: 'replace',
    path: ['hits', i, 'length'],
    value: 60,
  }));
  const after = applyChanges(long, changes);
  const lists = copies.flatMap((spy) => spy.mock.contexts as unknown as unknown[][]);
  copies.forEach((spy) => spy.mockRestore());
  expect(lists.filter(({ length }) => length >= 5000)).toHaveLength(1);
  expect(after.hits.filter(({ length }) => length === 60)).toHaveLength(1000);
});

test('an id that no hit has is found after any changes, as if all hits were looked at', () => {
  const splice = fc.record({
    at: fc.nat(20),
    remove: fc.nat(6),
    ids: fc.array(fc.integer({ min: 1, max: 1000 }), { maxLength: 4 }),
  });
  fc.assert(
    fc.property(fc.array(splice, { maxLength: 12 }), (splices) => {
      const empty = emptySet().set;
      let set = {
        ...empty,
        tracks: { 0: { ...empty.tracks[0]!, patterns: [{ name: '', length: 960, hits: [] }] } },
      } as typeof empty;
      for (const { at, remove, ids } of splices) {
        const hits = set.tracks[0]!.patterns[0]!.hits;
        const insert = ids.map((id) => ({ id, pad: 0, tick: 0, length: 1, velocity: 1, snap: null }));
        const where = Math.min(at, hits.length);
        const path = ['tracks', 0, 'patterns', 0, 'hits'];
        set = applyChanges(set, [
          { op: 'splice', path, at: where, remove: Math.min(remove, hits.length - where), insert },
        ]);
        const all = set.tracks[0]!.patterns[0]!.hits.map(({ id }) => id);
        expect(nextHitId(set)).toBe(Math.max(0, ...all) + 1);
      }
    }),
  );
});
