import fc from 'fast-check';
import { emptySet } from '@/core/document/create';
import { demoSet } from '@/core/document/demo';
import type { Hit } from '@/core/document/hit';
import type { OpenSet } from '@/core/document/set';
import { writeSet } from '@/core/document/readSet';
import { createStore } from '@/store/store';
import { listAside } from './aside';
import { Memory } from './memory.testing';
import { restore } from './persistence';
import { cutHits, isPiece, MOST_HITS, SetPieces } from './pieces';
import { DAMAGED_PREFIX, SET_KEY } from './records';
import { findSet, readStored, removeSet, sweepPieces, textOf } from './storedSet';

const hit = (id: number): Hit => ({ id, pad: id % 16, tick: id, length: 60, velocity: 0.5, snap: null });
const hits = (from: number, count: number) => Array.from({ length: count }, (_, i) => hit(from + i));

/** A set with its hits in one pattern, or in so many of them. */
function filled(count: number, tracks = 1, slots = 1): OpenSet {
  const { set, stage } = emptySet();
  const each = Math.floor(count / (tracks * slots));
  const track = (id: number) => ({
    ...set.tracks[0]!,
    id,
    patterns: Array.from({ length: slots }, (_, slot) => ({
      name: `Pattern ${slot + 1}`,
      length: 3840 * 64,
      hits: hits(1 + (id * slots + slot) * each, each),
    })),
  });
  const order = Array.from({ length: tracks }, (_, id) => id);
  return {
    set: { ...set, order, tracks: Object.fromEntries(order.map((id) => [id, track(id)])) },
    stage: { ...stage, tracks: Object.fromEntries(order.map((id) => [id, stage.tracks[0]!])) },
  };
}

/** A set with other hits in one of its patterns. */
function withHits({ set, stage }: OpenSet, change: (hits: readonly Hit[]) => Hit[], id = 0, slot = 0): OpenSet {
  const track = set.tracks[id]!;
  const patterns = track.patterns.map((p, i) => (p && i === slot ? { ...p, hits: change(p.hits) } : p));
  return { set: { ...set, tracks: { ...set.tracks, [id]: { ...track, patterns } } }, stage };
}

const bytes = (entries: Record<string, string>) =>
  Object.entries(entries).reduce((sum, [key, text]) => sum + key.length + text.length, 0);

async function store(memory: Memory, pieces: SetPieces, open: OpenSet): Promise<void> {
  await memory.setMany(pieces.entries(open));
  await memory.removeMany(pieces.written());
}

async function stored(memory: Memory, key = SET_KEY) {
  const found = (await findSet(memory, key))!;
  return { found, read: readStored(found) };
}

describe('a set in pieces', () => {
  test('is put together again as it was, and so is one that was stored as a whole', async () => {
    for (const open of [demoSet(), emptySet(), filled(5000), filled(2000, 4, 8)]) {
      const memory = new Memory();
      await store(memory, new SetPieces(SET_KEY), open);
      const { found, read } = await stored(memory);
      expect(read).toEqual(open);
      expect(textOf(found)).toBe(writeSet(open));
      memory.map.set(SET_KEY, writeSet(open));
      expect((await stored(memory)).read).toEqual(open);
    }
  });

  test('one hit more writes what is near it, of however large a set', () => {
    for (const open of [filled(20_000), filled(50_000, 16, 16), filled(1500)]) {
      const pieces = new SetPieces(SET_KEY);
      expect(bytes(pieces.entries(open))).toBeGreaterThan(80 * 1000);
      pieces.written();
      for (const change of [
        (list: readonly Hit[]) => [...list, hit(100_001)],
        (list: readonly Hit[]) => list.toSpliced(Math.floor(list.length / 2), 1),
        (list: readonly Hit[]) => list.with(3, { ...list[3]!, velocity: 1 }),
      ]) {
        // Each takes back the one before, too.
        expect(bytes(pieces.entries(withHits(open, change)))).toBeLessThan(100_000);
        pieces.written();
      }
    }
  });

  test('what did not change keeps its pieces when it is opened again', async () => {
    const memory = new Memory();
    const open = filled(5000, 1, 2);
    await store(memory, new SetPieces(SET_KEY), open);
    const { found, read } = await stored(memory);
    const pieces = SetPieces.ofStored(SET_KEY, read as OpenSet, found.keys);
    expect(Object.keys(pieces.entries(read as OpenSet))).toEqual([SET_KEY]);
    const entries = pieces.entries(withHits(read as OpenSet, (list) => [...list, hit(100_001)]));
    expect(Object.keys(entries)).toHaveLength(3); // the record, the pattern, its last hits
  });

  test('a piece is at most so large, and short ones grow together as hits are recorded one by one', () => {
    let list: Hit[] = [];
    let pieces = cutHits(list, []);
    for (let id = 1; id <= 3000; id++) pieces = cutHits((list = [...list, hit(id)]), pieces);
    expect(pieces.flatMap((piece) => piece.hits)).toEqual(list);
    expect(Math.max(...pieces.map((piece) => piece.hits.length))).toBeLessThanOrEqual(MOST_HITS);
    expect(pieces.length).toBeLessThanOrEqual(2 * Math.ceil(3000 / MOST_HITS));
  });

  test('a piece that is missing or damaged is said, by where it is; what there is, is kept as one set', async () => {
    for (const [damage, problem] of [
      ['missing', /At tracks 1, patterns 1, hits: each must be an object/],
      ['[{', /At tracks 1, patterns 1, hits: each must be an object/],
      ['pattern', /At tracks 1, patterns 1: /],
    ] as const) {
      const memory = new Memory();
      await store(memory, new SetPieces(SET_KEY), filled(2000));
      const keys = [...memory.map.keys()].filter(isPiece);
      const isOf = (key: string) => key.startsWith('pattern') === (damage === 'pattern');
      const key = keys.filter(isOf)[damage === 'pattern' ? 0 : 1]!;
      if (damage === '[{') memory.map.set(key, damage);
      else memory.map.delete(key);
      expect((await stored(memory)).read).toEqual({ error: expect.stringMatching(problem) });
      const app = createStore();
      await restore(app, memory);
      const [aside] = await listAside(memory);
      expect(aside!.key).toContain(DAMAGED_PREFIX);
      if (damage !== 'pattern') expect(aside!.text).toContain('"id":2000');
      expect(app.getState().session.notice!.text).toMatch(problem);
    }
  });

  test('a set that is removed takes its pieces with it, and no other’s', async () => {
    const memory = new Memory();
    await store(memory, new SetPieces(SET_KEY), filled(1000));
    await store(memory, new SetPieces('other'), filled(700));
    await removeSet(memory, 'other');
    expect(memory.map.has('other')).toBe(false);
    expect((await stored(memory)).read).toEqual(filled(1000));
    await removeSet(memory, SET_KEY);
    expect(memory.map.size).toBe(0);
  });
});

type Deed =
  | { kind: 'add' | 'remove' | 'change' | 'undo'; at: number; count: number }
  | { kind: 'save'; fails: boolean; answered: boolean }
  | { kind: 'reload' | 'sweep' };

const deed: fc.Arbitrary<Deed> = fc.oneof(
  {
    weight: 3,
    arbitrary: fc.record({
      kind: fc.constantFrom('add' as const, 'remove' as const, 'change' as const, 'undo' as const),
      at: fc.nat(3000),
      count: fc.integer({ min: 1, max: 700 }),
    }),
  },
  {
    weight: 4,
    arbitrary: fc.record({ kind: fc.constant('save' as const), fails: fc.boolean(), answered: fc.boolean() }),
  },
  { weight: 1, arbitrary: fc.record({ kind: fc.constantFrom('reload' as const, 'sweep' as const) }) },
);

test('edited, undone, saved, refused, unanswered, swept and loaded anew in any order: what was written last is what is read', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(deed, { maxLength: 40 }), async (deeds) => {
      const memory = new Memory();
      let pieces = new SetPieces(SET_KEY);
      let open = filled(1500, 2, 2);
      let written: OpenSet | null = null;
      const past: OpenSet[] = [];
      let id = 10_001;
      for (const one of deeds) {
        if (one.kind === 'save') {
          memory.full = one.fails;
          const entries = pieces.entries(open);
          const done = await memory.setMany(entries).then(
            () => true,
            () => false,
          );
          memory.full = false;
          if (done) written = open;
          // A page that goes hears no answer, and removes nothing.
          if (done && one.answered) await memory.removeMany(pieces.written());
        } else if (one.kind === 'sweep') await sweepPieces(memory);
        else if (one.kind === 'reload') {
          if (!written) continue;
          const { found, read } = await stored(memory);
          expect(read).toEqual(written);
          open = read as OpenSet;
          pieces = SetPieces.ofStored(SET_KEY, open, found.keys);
          past.length = 0;
        } else if (one.kind === 'undo') open = past.pop() ?? open;
        else if ('at' in one) {
          past.push(open);
          const { kind, at, count } = one;
          const edit = (list: readonly Hit[]) => {
            const where = list.length === 0 ? 0 : at % list.length;
            if (kind === 'add') return list.toSpliced(where, 0, ...hits((id += count) - count, count));
            if (kind === 'remove') return list.toSpliced(where, count);
            return list.map((h, i) => (i >= where && i < where + count ? { ...h, velocity: 1 } : h));
          };
          open = withHits(open, edit, at % 2, count % 2);
        }
      }
      if (!written) return;
      expect((await stored(memory)).read).toEqual(written);
      await sweepPieces(memory);
      const { found, read } = await stored(memory);
      expect(read).toEqual(written);
      const named = [...found.keys.values()].flatMap((keys) => [keys.key, ...keys.hits.map(({ key }) => key)]);
      expect(new Set([...memory.map.keys()].filter(isPiece))).toEqual(new Set(named));
    }),
    { numRuns: Number(process.env.SAVES ?? 60) },
  );
}, 120_000);
