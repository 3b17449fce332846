import fc from 'fast-check';
import { difference, ListCopy, originOf } from './difference';

const splice = fc.record({ at: fc.nat(30), remove: fc.nat(8), insert: fc.array(fc.nat(3), { maxLength: 5 }) });

test('a copy knows where it was changed: before and after that it is what it was copied from', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(3), { maxLength: 20 }), fc.array(splice, { maxLength: 6 }), (from, splices) => {
      const copy = new ListCopy(from);
      const plain = [...from];
      for (const { at, remove, insert } of splices) {
        const where = Math.min(at, plain.length);
        const some = Math.min(remove, plain.length - where);
        expect(copy.splice(where, some, insert)).toEqual(plain.splice(where, some, ...insert));
      }
      const now = copy.done();
      expect(now).toEqual(plain);
      expect(originOf(now)!.from).toBe(from);
      const { start, oldEnd, end } = difference(from, now);
      expect(start <= oldEnd && start <= end).toBe(true);
      expect(now.slice(0, start)).toEqual(from.slice(0, start));
      expect(now.slice(end)).toEqual(from.slice(oldEnd));
      // No more than what was changed: what lies between the first and the last splice.
      if (splices.length === 0) expect([start, oldEnd, end]).toEqual([from.length, from.length, from.length]);
      if (splices.length === 1) expect(oldEnd - start).toBeLessThanOrEqual(splices[0]!.remove);
    }),
  );
});

test('lists of which one was not copied from the other are compared', () => {
  expect(difference([1, 2, 3, 4], [1, 5, 6, 3, 4])).toEqual({ start: 1, oldEnd: 2, end: 3 });
  const one = new ListCopy([1, 2, 3]);
  one.splice(0, 1, [1]);
  expect(difference([1, 2, 4], one.done())).toEqual({ start: 2, oldEnd: 3, end: 3 });
});
