import fc from 'fast-check';
import { passOf, soundingHits } from './soundingHits';
import { loopPosition } from './loopWindow';
import { hitRows, HIT } from './hitRows';
import { PatternPlayer } from './patternPlayer';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

const hit = (id: number, tick: number, more: Partial<Hit> = {}): Hit => ({
  id,
  pad: 0,
  tick,
  length: 1,
  velocity: 1,
  snap: { grid: 240, strength: 1 },
  ...more,
});
const pattern = (length: number, hits: Hit[]): Pattern => ({ name: 'p', length, hits });

describe('what a pattern plays', () => {
  test('a hit struck just before the loop sounds on its first step', () => {
    expect(soundingHits(pattern(3840, [hit(1, -40)]))).toMatchObject([{ tick: 0, struck: -40 }]);
  });

  test('and, with its quantize taken away, just before the loop begins again, where it was struck', () => {
    expect(soundingHits(pattern(3840, [hit(1, -40, { snap: null })]))).toMatchObject([{ tick: 3800, struck: 3800 }]);
    expect(soundingHits(pattern(7680, [hit(1, -40, { snap: null })]))).toMatchObject([{ tick: 7640 }]);
  });

  test('a shorter loop hides, a longer one shows again', () => {
    const hits = [hit(1, 10), hit(2, 3830), hit(3, 5000)];
    expect(soundingHits(pattern(7680, hits)).map((h) => h.id)).toEqual([1, 2, 3]);
    expect(soundingHits(pattern(3840, hits)).map((h) => h.id)).toEqual([1]);
    expect(soundingHits(pattern(7680, hits)).map((h) => h.id)).toEqual([1, 2, 3]);
  });

  test('of several hits of a pad on one step the last recorded sounds; other pads are left alone', () => {
    const hits = [hit(1, 230), hit(2, 250, { velocity: 0.5 }), hit(3, 240, { pad: 2 })];
    expect(soundingHits(pattern(3840, hits)).map((h) => h.id)).toEqual([2, 3]);
  });

  test('is always in order, within the loop, and without two of a pad on one tick', () => {
    const anyHit = fc.record({
      tick: fc.double({ min: -500, max: 9000, noNaN: true }),
      pad: fc.integer({ min: 0, max: 15 }),
      on: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(anyHit, { maxLength: 60 }), fc.constantFrom(3840, 7680), (raw, length) => {
        const hits = raw.map(({ tick, pad, on }, i) => hit(i + 1, tick, { pad, ...(on ? {} : { snap: null }) }));
        const sounding = soundingHits(pattern(length, hits));
        return (
          sounding.every((h) => h.tick >= 0 && h.tick < length) &&
          sounding.every((h, i) => {
            const before = sounding[i - 1];
            return !before || h.tick > before.tick || (h.tick === before.tick && h.pad > before.pad);
          })
        );
      }),
    );
  });
});

test('two pads a 64th of a tick apart are two hits, and neither covers the other', () => {
  const hit = (id: number, pad: number, tick: number) => ({ id, pad, tick, length: 1, velocity: 1, snap: null });
  const pattern = { name: 'p', length: 3840, hits: [hit(1, 1, 10), hit(2, 0, 10 + 1 / 64)] };
  expect(soundingHits(pattern).map((h) => h.id)).toEqual([1, 2]);
  expect(passOf(pattern).covered).toEqual([]);
});

describe('a track that plays', () => {
  const player = (length: number, ticks: number[]) => {
    const made = new PatternPlayer();
    const plain = { pad: 0, velocity: 1, length: 1, pitch: 0, odds: 1, roll: null };
    made.load(length, hitRows(ticks.map((tick, i) => ({ ...plain, tick, struck: tick, id: i + 1 }))), null);
    return made;
  };

  test('finds each next hit round the loop, and nothing before its launch', () => {
    const p = player(3840, [0, 960, 1920]);
    expect(p.nextTick(-5000)).toBe(0);
    expect(p.nextTick(0)).toBe(960);
    expect(p.nextTick(1920)).toBe(3840);
    expect(p.nextTick(3840 * 1e6 + 960)).toBe(3840 * 1e6 + 1920);
    p.launchTick = 7680;
    expect(p.nextTick(100)).toBe(7680);
  });

  test('an empty loop has nothing to come', () => {
    expect(player(3840, []).nextTick(0)).toBe(Infinity);
    expect(new PatternPlayer().nextTick(0)).toBe(Infinity);
  });

  test('walking through it meets exactly the hits that the definition gives', () => {
    const sets = fc.uniqueArray(fc.integer({ min: 0, max: 2879 }), { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(sets, fc.integer({ min: 2880, max: 4000 }), (ticks, length) => {
        const sorted = ticks.sort((a, b) => a - b);
        const p = player(length, sorted);
        const expected = [0, 1, 2].flatMap((pass) => sorted.map((tick) => pass * length + tick));
        const met: number[] = [];
        for (let at = -1; met.length < expected.length;) met.push((at = p.nextTick(at)));
        expect(met).toEqual(expected);
      }),
    );
  });

  test('so it does with struck times, which are no whole ticks, far into the song: none twice, none left out', () => {
    const anyTick = fc.integer({ min: 0, max: 3839_990_000 }).map((millionths) => millionths / 1e6);
    fc.assert(
      fc.property(
        fc.uniqueArray(anyTick, { minLength: 1, maxLength: 12, selector: (t) => Math.round(t * 1000) }),
        fc.integer({ min: 0, max: 5000 }),
        (ticks, passes) => {
          const sorted = ticks.sort((a, b) => a - b);
          const p = player(3840, sorted);
          const start = passes * 3840;
          let at = start - 2e-6;
          for (const tick of [...sorted, ...sorted.map((t) => t + 3840)]) {
            at = p.nextTick(at);
            if (Math.abs(at - start - tick) > 1e-5) return false;
          }
          return true;
        },
      ),
      { numRuns: 500 },
    );
  });

  test('in a window only its hits go round, in step with the launch, and the whole is back where it would have been', () => {
    const p = player(3840, [0, 960, 1920, 2880]);
    p.setWindow(960, 960); // the second beat, over and over
    expect([0, 960, 1000, 1920].map((tick) => p.nextTick(tick))).toEqual([960, 1920, 1920, 2880]);
    expect(p.nextTick(-1)).toBe(0); // nothing before the launch, and from there on at once
    p.setWindow(0, 0);
    expect([0, 1000, 3000].map((tick) => p.nextTick(tick))).toEqual([960, 1920, 3840]);
    p.setWindow(3800, 240); // brought into the pattern: it slides back
    expect([p.start, p.span]).toEqual([3600, 240]);
    expect(p.nextTick(0)).toBe(Infinity);
  });

  test('walking through any window meets exactly the moments at which the loop is on a hit', () => {
    const window = fc.record({
      start: fc.integer({ min: 0, max: 3600 }),
      length: fc.integer({ min: 240, max: 3840 }),
      launch: fc.integer({ min: 0, max: 50000 }),
    });
    const anyTicks = fc.uniqueArray(fc.integer({ min: 0, max: 3839 }), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(anyTicks, window, (ticks, { start, length, launch }) => {
        const p = player(3840, ticks.sort((a, b) => a - b)); // prettier-ignore
        p.setWindow(start, length);
        p.launchTick = launch;
        const now = { start: p.start, length: p.span };
        const expected: number[] = [];
        for (let tick = launch; tick < launch + 3 * p.span; tick++) {
          if (ticks.includes(loopPosition(now, tick - launch))) expected.push(tick);
        }
        const met: number[] = [];
        for (let at = launch - 1; met.length < expected.length;) met.push((at = p.nextTick(at)));
        expect(met).toEqual(expected);
        if (expected.length === 0) expect(p.nextTick(launch)).toBe(Infinity);
      }),
    );
  });

  const row = (tick: number, pad: number, id: number) =>
    hitRows([{ tick, struck: tick, pad, velocity: 0.5, length: 1, id, pitch: 0, odds: 1, roll: null }]);

  test('a recorded hit takes its place in order, and the place of an older one of its pad', () => {
    const p = player(3840, [0, 960, 1920]);
    p.insert(row(480, 3, 9));
    p.insert(row(960, 0, 10));
    p.insert(row(5000, 0, 11));
    const met = [0, 1, 2, 3].map((i) => [p.hits.get(i, HIT.TICK), p.hits.get(i, HIT.ID)]);
    expect(met).toEqual([[0, 1], [480, 9], [960, 10], [1920, 3]]); // prettier-ignore
    expect(p.windowEnd).toBe(4);
  });

  test('takes more hits than it had room for', () => {
    const p = player(100000, []);
    for (let i = 0; i < 3000; i++) p.insert(row(99999 - i * 7, 0, i + 1));
    expect(p.windowEnd).toBe(3000);
    expect(p.nextTick(-1)).toBe(99999 - 2999 * 7);
  });
});
