import fc from 'fast-check';
import { GHOST, treatedVelocity, type Loudness } from '../document/loudness';
import { passOf, soundingHits } from '../sequence/soundingHits';
import { ticksToMs } from '../time/ticks';
import { AS_PLAYED, type Feel } from '../quantize/feel';
import { GRIDS, gridTicks, nearestLine, nextLine } from '../quantize/grid';
import { swingWords } from '../quantize/swing';
import { narrower, newlyCovered, treated, withoutNarrower, withoutTreatment, type Scope } from './treat';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

const BAR = 3840;
const hit = (id: number, tick: number, more: Partial<Hit> = {}): Hit => ({
  id,
  pad: 0,
  tick,
  length: 1,
  velocity: 0.5,
  snap: { grid: 240, strength: 1 },
  ...more,
});
const pattern = (hits: Hit[], length = BAR): Pattern => ({ name: 'p', length, hits });
const ticks = (p: Pattern) => soundingHits(p).map((h) => h.tick);

const anyFeel: fc.Arbitrary<Feel> = fc.record({
  grid: fc.constantFrom(0, ...GRIDS.map((g) => g.ticks)),
  strength: fc.double({ min: 0, max: 1, noNaN: true }),
  swing: fc.record({ unit: fc.constantFrom(480, 240), ratio: fc.double({ min: 0.5, max: 0.75, noNaN: true }) }),
  spare: fc.double({ min: 0, max: 100, noNaN: true }),
});
const anyLoudness: fc.Arbitrary<Loudness> = fc.record({
  level: fc.double({ min: 0, max: 1, noNaN: true }),
  even: fc.double({ min: 0, max: 1, noNaN: true }),
  scale: fc.double({ min: 0, max: 2, noNaN: true }),
});
const anyScope = (ids: number[]): fc.Arbitrary<Scope> =>
  fc.oneof(
    fc.constant<Scope>({ kind: 'pattern' }),
    fc.record({ kind: fc.constant('lane' as const), pad: fc.integer({ min: 0, max: 15 }) }),
    fc.record({ kind: fc.constant('hits' as const), ids: fc.subarray(ids) }),
  );

describe('Feel', () => {
  test('set and taken away again, 10,000 random hits and settings: every struck time is the same to the bit', () => {
    const anyHit = fc.record({
      tick: fc.double({ min: -120, max: 4 * BAR, noNaN: true }),
      pad: fc.integer({ min: 0, max: 15 }),
      velocity: fc.double({ min: 0, max: 1, noNaN: true }),
    });
    let hits = 0;
    fc.assert(
      fc.property(
        fc
          .array(anyHit, { minLength: 10, maxLength: 10 })
          .chain((raw) =>
            fc.tuple(fc.constant(raw), anyFeel, anyLoudness, anyScope(raw.map((_, i) => i + 1)), fc.boolean()),
          ),
        ([raw, feel, loudness, scope, snapped]) => {
          const before = pattern(
            raw.map((h, i) => hit(i + 1, h.tick, { ...h, ...(!snapped && { snap: null }) })),
            4 * BAR,
          );
          const during = treated(treated(before, scope, { feel }), scope, { loudness });
          const after = treated(during, scope, { feel: undefined, loudness: undefined });
          hits += raw.length;
          return (
            [during, after, withoutTreatment(during)].every((p) =>
              p.hits.every(
                (h, i) => Object.is(h.tick, raw[i]!.tick) && Object.is(h.velocity, raw[i]!.velocity) && h.id === i + 1,
              ),
            ) && JSON.stringify(after) === JSON.stringify(before)
          );
        },
      ),
      { numRuns: 1000 },
    );
    expect(hits).toBeGreaterThanOrEqual(10_000);
  });

  // Swing convention, computed: two sixteenths fill an eighth; at 480 to the quarter the second falls at 129.6 for 54 %,
  // 144 for 60 %, 150 for 62.5 %, 160 for 66.667 %, 180 for 75 %.
  test.each([
    [0.54, 129.6],
    [0.6, 144],
    [0.625, 150],
    [2 / 3, 160],
    [0.75, 180],
  ])('swing %d puts the second sixteenth where the convention says', (ratio, at480) => {
    const swung = treated(pattern([hit(1, 0), hit(2, 240), hit(3, 480), hit(4, 3600)]), { kind: 'pattern' }, {
      feel: { grid: 240, strength: 1, swing: { unit: 240, ratio } },
    }); // prettier-ignore
    expect(ticks(swung)).toEqual([0, expect.closeTo(2 * at480, 9), 480, expect.closeTo(3360 + 2 * at480, 9)]);
  });

  test.each([54, 58, 62, 66.7])('at 90 BPM and %d %% it lands at the exact ms of its ratio', (percent) => {
    // A pair of sixteenths lasts half a quarter: 60000 / 90 / 2 ms.
    const line = nearestLine(250, 240, { unit: 240, ratio: percent / 100 });
    expect(ticksToMs(line, 90)).toBeCloseTo((60000 / 90 / 2) * (percent / 100), 6);
  });

  test('swing moves what fits into its steps, and leaves triplets and coarser grids alone', () => {
    const swing = { unit: 480, ratio: 0.6 };
    expect(nearestLine(480, 480, swing)).toBeCloseTo(576, 9);
    expect(nearestLine(240, 240, swing)).toBeCloseTo(288, 9);
    expect(nearestLine(320, 320, swing)).toBe(320);
    expect(nearestLine(960, 960, swing)).toBe(960);
    expect(['straight', 'triplet, 2 : 1', 'dotted, 3 : 1', '58 : 42']).toEqual(
      [0.5, 2 / 3, 0.75, 0.58].map(swingWords),
    );
  });

  test('the next line is the first one later, and none is left out', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -5_000_000, max: 5_000_000 }).map((thousandths) => thousandths / 1000),
        fc.constantFrom(...GRIDS.map((g) => g.ticks)),
        fc.record({ unit: fc.constantFrom(480, 240), ratio: fc.double({ min: 0.5, max: 0.75, noNaN: true }) }),
        (tick, grid, swing) => {
          const next = nextLine(tick, grid, swing);
          const between = (tick + next) / 2;
          return next > tick && Math.abs(nearestLine(next, grid, swing) - next) < 1e-9 && nextLine(between, grid, swing) === next; // prettier-ignore
        },
      ),
      { numRuns: 1000 },
    );
  });

  test('the narrowest holds: a hit before its lane, a lane before the pattern, all before the recorded snap', () => {
    const raw = pattern([hit(1, 100), hit(2, 100, { pad: 1 }), hit(3, 1100, { pad: 1 })]);
    const all = treated(raw, { kind: 'pattern' }, { feel: { grid: 960, strength: 1 } });
    const lane = treated(all, { kind: 'lane', pad: 1 }, { feel: { grid: 60, strength: 1 } });
    const own = treated(lane, { kind: 'hits', ids: [3] }, { feel: AS_PLAYED });
    expect(ticks(raw)).toEqual([0, 0, 1200]);
    expect(ticks(all)).toEqual([0, 0, 960]);
    expect(soundingHits(own).map((h) => [h.id, h.tick])).toEqual([[1, 0], [2, 120], [3, 1100]]); // prettier-ignore
    expect(narrower(own, { kind: 'pattern' }, 'feel')).toEqual({ lanes: 1, hits: 1 });
    expect(ticks(withoutNarrower(own, { kind: 'pattern' }, 'feel'))).toEqual([0, 0, 960]);
  });

  test('only hits further off are pulled', () => {
    const feel = { grid: 240, strength: 1, spare: 30 };
    const loose = pattern([hit(1, 25), hit(2, 240 - 31), hit(3, 480 + 30)]);
    expect(ticks(treated(loose, { kind: 'pattern' }, { feel }))).toEqual([25, 240, 510]);
  });

  test('pulled onto the loop end, a hit sounds on its start; one of the next bar stays hidden in a shorter loop', () => {
    const late = pattern([hit(1, 3700), hit(2, 3830)]);
    expect(soundingHits(late).map((h) => h.id)).toEqual([1]); // the second was recorded into bar 2
    const coarse = treated(late, { kind: 'pattern' }, { feel: { grid: 960, strength: 1 } });
    expect(soundingHits(coarse)).toMatchObject([{ id: 1, tick: 0, struck: -140 }]);
  });
});

describe('hits that meet', () => {
  const hats = pattern([0, 480, 960, 1440].map((tick, i) => hit(i + 1, tick + 7, { pad: 4 })));

  test('are counted before the grid is chosen, told apart from what sounds, and come back', () => {
    const quarter: Feel = { grid: gridTicks('1/4'), strength: 1 };
    // 487 goes to 960 (nearest), 1447 to 1920: only 960 is held twice.
    expect(newlyCovered(hats, { kind: 'pattern' }, quarter)).toBe(1);
    const coarse = treated(hats, { kind: 'pattern' }, { feel: quarter });
    expect(passOf(coarse).covered.map((h) => h.id)).toEqual([2]);
    expect(passOf(coarse).sounding).toHaveLength(3);
    expect(soundingHits(treated(coarse, { kind: 'pattern' }, { feel: undefined }))).toHaveLength(4);
  });
});

describe('Loudness', () => {
  test('evens out, scales, accents the chosen beats, and makes ghost notes', () => {
    const even = { level: 0.6, even: 0.5, scale: 1 };
    expect(treatedVelocity(1, 0, even)).toBeCloseTo(0.8, 9);
    expect(treatedVelocity(1, 0, { ...even, even: 1 })).toBeCloseTo(0.6, 9);
    expect(treatedVelocity(0.5, 0, { level: 0, even: 0, scale: 2 })).toBe(1);
    expect(treatedVelocity(0.9, 0, GHOST)).toBeCloseTo(0.24, 9);
    expect(treatedVelocity(0.5, 0, { level: 0, even: 0, scale: 0 })).toBeGreaterThan(0);
    const accents = { bar: BAR, at: [960, 2880], amount: 0.5 };
    const backbeat: Loudness = { level: 0, even: 0, scale: 1, accents };
    const heard = [0, 955, 2900, BAR + 960, 1200].map((tick) => treatedVelocity(0.4, tick, backbeat));
    expect(heard).toEqual([0.4, 0.7, 0.7, 0.7, 0.4]);
  });
});
