import fc from 'fast-check';
import { loopPosition, windowOf } from '../sequence/loopWindow';
import { soundingHits } from '../sequence/soundingHits';
import { edited, type Edit } from './edit';
import { cropped, doubled, doubledEmpty, fitLength, withLength, withWindow } from './length';
import { PatternPlayer } from '../sequence/patternPlayer';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import { SHORTEST_LOOP } from '../document/limits';

const BAR = 3840;
const snap = { grid: 240, strength: 1 };
const hit = (id: number, tick: number): Hit => ({ id, pad: id % 2, tick, length: 1, velocity: 1, snap });
const pattern: Pattern = {
  name: 'p',
  length: 4 * BAR,
  hits: [hit(1, -20), hit(2, 960), hit(3, BAR - 30), hit(4, BAR + 960), hit(5, 3 * BAR), hit(6, 5 * BAR)],
};
const heard = (p: Pattern) => soundingHits(p).map((h) => [h.id, h.tick]);

test('cropping takes what belongs to the bars to the start, an early first hit too, and keeps the rest on the tape', () => {
  const bar2 = cropped(pattern, BAR, BAR);
  expect(heard(bar2)).toEqual([[3, 0], [4, 960]]); // prettier-ignore
  expect(bar2.hits.find((h) => h.id === 3)!.tick).toBe(-30);
  // Longer again: what was after it follows, then what was before.
  expect(heard(withLength(bar2, 4 * BAR))).toEqual([[3, 0], [4, 960], [5, 2 * BAR], [1, 3 * BAR], [2, 3 * BAR + 960]]); // prettier-ignore
});

test('doubling plays the loop again, or leaves room; the tape beyond moves along', () => {
  let id = 99;
  const bar2 = cropped(pattern, BAR, BAR);
  const twice = doubled(bar2, () => (id += 2));
  expect(heard(twice)).toEqual([[3, 0], [4, 960], [101, BAR], [103, BAR + 960]]); // prettier-ignore
  expect(heard(withLength(twice, 5 * BAR)).slice(4)).toEqual([[5, 3 * BAR], [1, 4 * BAR], [2, 4 * BAR + 960]]); // prettier-ignore
  expect(heard(doubledEmpty(bar2))).toEqual([[3, 0], [4, 960]]); // prettier-ignore
  expect(doubledEmpty(bar2).length).toBe(2 * BAR);
});

test('lengths are from a sixteenth to 64 bars', () => {
  const four = { beats: 4, unit: 4 };
  expect([1, 240, 333.4, 1e9].map((ticks) => fitLength(ticks, four))).toEqual([240, 240, 333, 64 * BAR]);
});

test('a window as long as the pattern is none; one too far slides back into it', () => {
  expect(withWindow(pattern, { start: 500, length: 4 * BAR }).window).toBeUndefined();
  expect(withWindow(pattern, { start: 4 * BAR, length: 100 }).window).toEqual({ start: 4 * BAR - 240, length: 240 });
  const windowed = withWindow(pattern, { start: 2 * BAR, length: 2 * BAR });
  expect(windowOf(withLength(windowed, BAR))).toEqual({ start: 0, length: BAR });
  expect(windowOf(withLength(withLength(windowed, BAR), 4 * BAR))).toEqual({ start: 2 * BAR, length: 2 * BAR });
});

test('5,000 random sequences of window and length edits: no hit is lost, and the loop is where the launch puts it', () => {
  const ticks = fc.integer({ min: 0, max: 64 * 16 }).map((n) => n * 60);
  let id = 1001;
  const anyEdit: fc.Arbitrary<Edit | 'crop'> = fc.oneof(
    ticks.map((length): Edit => ({ kind: 'length', length: Math.max(SHORTEST_LOOP, length) })),
    fc.record({ start: ticks, length: ticks }).map((window): Edit => ({ kind: 'window', window })),
    fc.constant<Edit>({ kind: 'window', window: null }),
    fc.constant<Edit>({ kind: 'doubleEmpty' }),
    fc.constant<Edit>({ kind: 'double', firstId: -1 }),
    fc.constant<'crop'>('crop'),
  );
  const player = new PatternPlayer();
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -120, max: 4 * BAR - 1, noNaN: true }), { maxLength: 12 }),
      fc.array(anyEdit, { minLength: 1, maxLength: 10 }),
      fc.nat({ max: 100000 }),
      fc.nat({ max: 1000000 }),
      (struck, edits, launch, since) => {
        let p: Pattern = { name: 'p', length: 4 * BAR, hits: struck.map((tick, i) => hit(i + 1, tick)) };
        for (const asked of edits) {
          const crop = asked === 'crop';
          let edit: Edit = crop ? { kind: 'crop', ...windowOf(p) } : asked;
          if ((edit.kind === 'double' || edit.kind === 'doubleEmpty') && p.length > 32 * BAR) continue;
          if (edit.kind === 'double') {
            edit = { kind: 'double', firstId: id };
            id += 2 * p.hits.length;
          }
          const before = new Map(p.hits.map((h) => [h.id, h]));
          p = edited(p, edit);
          const after = new Map(p.hits.map((h) => [h.id, h]));
          for (const [key, old] of before) {
            const now = after.get(key);
            if (!now || now.pad !== old.pad || now.velocity !== old.velocity || now.snap !== old.snap) return false;
            // The tape is not touched by a window or a length.
            if ((edit.kind === 'window' || edit.kind === 'length') && now !== old) return false;
          }
          if (after.size !== p.hits.length) return false;
          const { start, length } = windowOf(p);
          if (!(start >= 0 && length >= SHORTEST_LOOP && start + length <= p.length)) return false;
          player.load(p.length, new Float64Array(0), null);
          player.setWindow(p.window?.start ?? 0, p.window?.length ?? 0);
          player.launchTick = launch;
          // By the definition: as many ticks after the window's start as have gone by, whole turns left out.
          const turned = since - start - Math.floor((since - start) / length) * length;
          if (Math.abs(player.positionAt(launch + since) - start - turned) > 1e-6) return false;
          if (loopPosition({ start, length }, since) !== start + turned) return false;
        }
        return true;
      },
    ),
    { numRuns: 5000 },
  );
});
