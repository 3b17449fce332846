import { emptySet } from '@/core/document/create';
import { JustPlayed, type PlayedStroke } from '@/core/record/justPlayed';
import type { Instrument } from './instrument';
import { keep, keepWindow, lookBack } from './keepPattern';
import { selectPattern, selectSet, selectSlot, selectUndo } from '@/store/selectors';
import { createStore } from '@/store/store';
import { undone } from '@/store/undoable';
import { setLoaded } from '@/store/openSlice';

const BAR = 3840;
const METER = { beats: 4, unit: 4 };

/** An instrument that remembers strokes, and whose ids begin at 1. */
function rig(strokes: Partial<PlayedStroke>[], playing = false) {
  const store = createStore();
  store.dispatch(setLoaded(emptySet()));
  const justPlayed = new JustPlayed();
  strokes.forEach((stroke, i) =>
    justPlayed.add({ id: i, track: 0, pad: 0, velocity: 1, ms: 0, songTick: null, heldMs: 0, ...stroke }, BAR),
  );
  const launches: number[] = [];
  const instrument = {
    justPlayed,
    performance: { anchor: { playing } },
    reserveIds: () => 1,
    launchAt: (_track: number, tick: number) => launches.push(tick),
    perform: () => undefined,
  } as unknown as Instrument;
  return { store, instrument, launches };
}

const withSong = Array.from({ length: 16 }, (_, i) => ({ songTick: 8 * BAR + i * 960 + 7 }));

test('with the song: a new pattern of whole bars, launched where it was played, and one step of undo', () => {
  const { store, instrument, launches } = rig(withSong, true);
  const keepable = lookBack(instrument, store.getState());
  expect(keepable).toMatchObject({ withSong: true, beat: null });
  const window = keepWindow(keepable, null, { bars: 2, shift: 0, meter: METER, grid: 240, now: 12 * BAR + 100 });
  expect(keep(store, instrument, window, null)).toBe(8);
  const kept = selectPattern(store.getState());
  expect(kept).toMatchObject({ name: 'Kept 1', length: 2 * BAR });
  expect(kept.hits.map((h) => [h.id, h.tick])).toEqual([0, 1, 2, 3, 4, 5, 6, 7].map((i) => [1 + 2 * i, i * 960 + 7])); // prettier-ignore
  expect(launches).toEqual([10 * BAR]);
  expect(selectUndo(store.getState())).toBe('Keep');
  store.dispatch(undone());
  expect(selectPattern(store.getState())).toMatchObject({ name: 'Pattern 1', hits: [] });
});

test('a second one goes to the next slot: nothing that was kept is replaced', () => {
  const { store, instrument } = rig(withSong);
  for (let i = 0; i < 2; i++) {
    keep(
      store,
      instrument,
      keepWindow(lookBack(instrument, store.getState()), null, {
        bars: 1,
        shift: 0,
        meter: METER,
        grid: 240,
        now: null,
      }),
      null,
    );
  }
  const { patterns } = selectSet(store.getState()).tracks[0]!;
  expect([patterns[0]!.name, patterns[1]!.name, selectSlot(store.getState())]).toEqual(['Kept 1', 'Kept 2', 1]);
});

test('free playing brings its tempo; an empty window keeps nothing and says so', () => {
  const quarter = 60000 / 90;
  const free = Array.from({ length: 16 }, (_, i) => ({ ms: 3000 + i * quarter, pad: i % 2 ? 2 : 0 }));
  const { store, instrument, launches } = rig(free);
  const keepable = lookBack(instrument, store.getState());
  expect(keepable.beat!.tempo).toBeCloseTo(90, 1);
  const away = keepWindow(keepable, keepable.beat, { bars: 2, shift: 40, meter: METER, grid: 240, now: null });
  expect(keep(store, instrument, away, keepable.beat)).toBe(0);
  expect(store.getState().session.notice!.text).toBe('Nothing was played in these bars.');
  const window = keepWindow(keepable, keepable.beat, { bars: 4, shift: 0, meter: METER, grid: 240, now: null });
  expect(keep(store, instrument, window, keepable.beat)).toBe(16);
  expect(selectSet(store.getState()).tempo).toBeCloseTo(90, 1);
  expect(launches).toEqual([]);
});
