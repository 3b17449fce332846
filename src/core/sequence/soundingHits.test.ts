import fc from 'fast-check';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import { passOf } from './soundingHits';

const BAR = 3840;
let lastId = 1;
const hits = fc.record({
  pad: fc.nat(2),
  tick: fc.integer({ min: -200, max: BAR + 200 }).map((tick) => Math.round(tick / 120) * 120),
  velocity: fc.constantFrom(0.3, 0.8),
  isOnGrid: fc.boolean(),
});
const newHit = ({ isOnGrid, ...hit }: { pad: number; tick: number; velocity: number; isOnGrid: boolean }): Hit => ({
  ...hit,
  id: (lastId += 2),
  length: 60,
  snap: isOnGrid ? { grid: 240, strength: 1 } : null,
});

type Change = (pattern: Pattern) => Pattern;
const withHits = (pattern: Pattern, now: Hit[]): Pattern => ({ ...pattern, hits: now });
const changes: fc.Arbitrary<Change> = fc.oneof(
  { weight: 6, arbitrary: fc.array(hits, { minLength: 1, maxLength: 3 }).map((more): Change => (p) => withHits(p, [...p.hits, ...more.map(newHit)])) },
  // The last hits are let go and so get their length, or are taken back.
  { weight: 4, arbitrary: fc.tuple(fc.nat(3), fc.nat(500)).map(([last, length]): Change => (p) => withHits(p, p.hits.map((hit, i) => (i >= p.hits.length - last ? { ...hit, length } : hit)))) },
  { weight: 2, arbitrary: fc.nat(3).map((last): Change => (p) => withHits(p, p.hits.slice(0, Math.max(0, p.hits.length - last)))) },
  fc.tuple(fc.nat(30), hits).map(([i, hit]): Change => (p) => withHits(p, [...p.hits.slice(0, i), newHit(hit), ...p.hits.slice(i)])),
  fc.nat(30).map((i): Change => (p) => withHits(p, p.hits.filter((_, j) => j !== i))),
  fc.constantFrom(BAR, BAR / 2).map((length): Change => (p) => ({ ...p, length })),
  fc.constantFrom(240, 480).map((grid): Change => (p) => ({ ...p, feel: { grid, strength: 1 } })),
); // prettier-ignore

test('a pass that was made from the one before it is the pass that would be made anew', () => {
  fc.assert(
    fc.property(fc.array(changes, { minLength: 1, maxLength: 40 }), (list) => {
      let pattern: Pattern = { name: 'Tape', length: BAR, hits: [] };
      for (const change of list) {
        pattern = change(pattern);
        // A copy is known to no cache.
        expect(passOf(pattern)).toEqual(passOf(structuredClone(pattern)));
      }
    }),
    { numRuns: 300 },
  );
});

test('a hit that another pattern shares and places otherwise can be taken back', () => {
  const [first, other, shared] = [0, 960, 1000].map((tick) => newHit({ pad: 0, tick, velocity: 0.8, isOnGrid: false }));
  const pattern: Pattern = { name: 'Tape', length: BAR, hits: [first!, shared!] };
  passOf(pattern);
  passOf({ ...pattern, hits: [other!, shared!], feel: { grid: 480, strength: 1 } });
  expect(passOf(withHits(pattern, [first!])).sounding.map(({ id }) => id)).toEqual([first!.id]);
});
