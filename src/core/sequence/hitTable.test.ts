import fc from 'fast-check';
import { hitRows, HIT, HIT_WIDTH } from './hitRows';
import { HitTable } from './hitTable';

const row = (tick: number, pad: number, id: number, length = 60) =>
  hitRows([{ tick, struck: tick, pad, velocity: 1, length, id, pitch: 0, odds: 1, roll: null }]);

/** A hit as the table tells it. */
const all = (table: HitTable) =>
  Array.from({ length: table.count }, (_, i) => [HIT.TICK, HIT.PAD, HIT.ID, HIT.LENGTH].map((f) => table.get(i, f)));

type Deed =
  { kind: 'insert'; tick: number; pad: number } | { kind: 'remove'; share: number } | { kind: 'length'; share: number };

const deed: fc.Arbitrary<Deed> = fc.oneof(
  { weight: 6, arbitrary: fc.record({ kind: fc.constant('insert' as const), tick: fc.nat(40), pad: fc.nat(3) }) },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('remove' as const), share: fc.double({ min: 0, max: 1, noNaN: true }) }) }, // prettier-ignore
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('length' as const), share: fc.double({ min: 0, max: 1, noNaN: true }) }) }, // prettier-ignore
);

test('whatever is inserted, removed and held, it holds what a sorted list would', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(40), { maxLength: 20 }), fc.array(deed, { maxLength: 120 }), (ticks, deeds) => {
      let id = 1;
      // [tick, pad, id, length], in order of tick and pad.
      let model = [...ticks].sort((a, b) => a - b).map((tick) => [tick, 0, id++, 60]);
      const table = new HitTable();
      table.adopt(Float64Array.from(model.flatMap(([tick, pad, hit]) => [...row(tick!, pad!, hit!)])));
      for (const what of deeds) {
        if (what.kind === 'insert') {
          table.insert(row(what.tick, what.pad, id));
          model = model.filter(([tick, pad]) => tick !== what.tick || pad !== what.pad);
          model.push([what.tick, what.pad, id++, 60]);
          model.sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
        } else if (model.length > 0) {
          const at = Math.min(model.length - 1, Math.floor(what.share * model.length));
          if (what.kind === 'remove') {
            // Every third from there on.
            const gone = new Set(model.filter((_, i) => i % 3 === at % 3).map((hit) => hit[2]!));
            table.remove(gone);
            model = model.filter((hit) => !gone.has(hit[2]!));
          } else {
            table.setLength(model[at]![2]!, id);
            model[at]![3] = id++;
          }
        }
        expect(all(table)).toEqual(model);
      }
      for (let tick = -1; tick <= 41; tick++) {
        const after = model.findIndex((hit) => hit[0]! > tick);
        expect(table.firstAfter(tick)).toBe(after < 0 ? model.length : after);
        const from = model.findIndex((hit) => hit[0]! >= tick);
        expect(table.firstFrom(tick)).toBe(from < 0 ? model.length : from);
      }
    }),
    { numRuns: 300 },
  );
});

test('the rows that came in are played from and never written to', () => {
  const rows = Float64Array.from([...row(0, 0, 1), ...row(10, 0, 2)]);
  const before = rows.slice();
  const table = new HitTable();
  table.adopt(rows);
  table.setLength(2, 99);
  table.insert(row(10, 0, 3));
  table.insert(row(5, 0, 4));
  expect(all(table).map(([, , id]) => id)).toEqual([1, 4, 3]);
  expect(rows).toEqual(before);
  expect(rows).toHaveLength(2 * HIT_WIDTH);
});
