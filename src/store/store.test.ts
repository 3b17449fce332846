import fc from 'fast-check';
import type { Edit } from '@/core/edit/edit';
import { emptySet } from '@/core/document/create';
import { soundingHits } from '@/core/sequence/soundingHits';
import { selectHeardSet, selectPattern, selectRedo, selectSet, selectSounding, selectUndo } from './selectors';
import { compared, noticed, noticeDismissed, sheetClosed, takeHeard } from './sessionSlice';
import { defaultSettings, readSettings } from './settingsSlice';
import { createStore, type Store } from './store';
import { redone, undone } from './undoable';
import type { Hit } from '@/core/document/hit';
import { demoSet } from '@/core/document/demo';
import { patternAt } from '@/core/document/set';
import { gridSet, meterSet, metronomeToggled, tempoSet } from '@/store/timeSlice';
import { edited, hitsRecorded, hitsReleased, loopBarsSet, patternCleared, treatmentSet } from '@/store/patternsSlice';
import { setLoaded, setOpened } from '@/store/openSlice';

const hit = (id: number): Hit => ({ id, pad: 0, tick: id * 10, length: 1, velocity: 1, snap: null });
const place = { track: 0, slot: 0 };
const record = (id: number, take: string) => hitsRecorded({ place, hits: [hit(id)], take });
/** How many steps can be undone. */
const steps = ({ getState }: Store) => getState().set.past.length + (getState().set.open ? 1 : 0);
const ids = (store: Store) => selectPattern(store.getState()).hits.map((h) => h.id);

function emptyStore(): Store {
  const store = createStore();
  store.dispatch(setLoaded(emptySet()));
  return store;
}

describe('undo', () => {
  test('of any sequence of edits gives back the exact document, and redo the edited one', () => {
    const ids = fc.uniqueArray(fc.integer({ min: 1, max: 40 }), { maxLength: 6 });
    const ticks = fc.integer({ min: 240, max: 9600 });
    const anyEdit: fc.Arbitrary<Edit> = fc.oneof(
      ticks.map((length): Edit => ({ kind: 'length', length })),
      fc.record({ start: ticks, length: ticks }).map((window): Edit => ({ kind: 'window', window })),
      fc.record({ start: ticks, length: ticks }).map((window): Edit => ({ kind: 'crop', ...window })),
      fc.constant<Edit>({ kind: 'doubleEmpty' }),
      ids.map((some): Edit => ({ kind: 'erase', ids: some })),
      fc.tuple(ids, ticks).map(([some, by]): Edit => ({ kind: 'rotate', ids: some, ticks: by })),
      fc.tuple(ids, ticks).map(([some, by]): Edit => ({ kind: 'move', ids: some, ticks: by, lanes: 1 })),
      ids.map((some): Edit => ({ kind: 'reverse', ids: some, step: 240 })),
      ids.map((some): Edit => ({ kind: 'values', of: 'roll', values: some.map((id) => [id, 4]), over: 240 })),
      ids.map((): Edit => ({ kind: 'moves', moved: { pad: 4, control: 'pan' }, points: [{ tick: 0, value: 1 }] })),
    );
    fc.assert(
      fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 12 }), (edits) => {
        const store = createStore();
        const before = selectSet(store.getState());
        for (const edit of edits) store.dispatch(edited({ place, edit }));
        const after = selectSet(store.getState());
        const count = steps(store);
        for (let i = 0; i < count; i++) store.dispatch(undone());
        expect(selectSet(store.getState())).toEqual(before);
        for (let i = 0; i < count; i++) store.dispatch(redone());
        expect(selectSet(store.getState())).toEqual(after);
      }),
      { numRuns: 200 },
    );
  });

  test('one pass of one recording is one step', () => {
    const store = emptyStore();
    [record(1, 'a 0'), record(2, 'a 0'), record(3, 'a 1'), record(4, 'a 1'), record(5, 'b 0')].forEach(store.dispatch);
    store.dispatch(undone());
    expect(ids(store)).toEqual([1, 2, 3, 4]);
    store.dispatch(undone());
    expect(ids(store)).toEqual([1, 2]);
    store.dispatch(redone());
    expect(ids(store)).toEqual([1, 2, 3, 4]);
    store.dispatch(undone());
    store.dispatch(undone());
    expect(ids(store)).toEqual([]);
    expect([selectUndo(store.getState()), selectRedo(store.getState())]).toEqual([null, 'take']);
  });

  test('takes back a take and leaves tempo, click and grid as they are now', () => {
    const store = emptyStore();
    store.dispatch(record(1, 'a 0'));
    [tempoSet(87), metronomeToggled(), gridSet('1/8T')].forEach((action) => store.dispatch(action));
    store.dispatch(undone());
    expect(selectSet(store.getState())).toMatchObject({
      tempo: 87,
      metronome: { on: true },
      inputQuantize: { grid: '1/8T' },
    });
    expect(ids(store)).toEqual([]);
  });

  test('a take undone and redone keeps the length that its hits were held', () => {
    const store = emptyStore();
    [record(1, 'a 0'), hitsReleased({ place, lengths: [{ id: 1, length: 333 }] }), undone(), redone()].forEach((a) =>
      store.dispatch(a),
    );
    expect(selectPattern(store.getState()).hits[0]!.length).toBe(333);
    expect(steps(store)).toBe(1);
  });

  test('a new edit ends what could be redone', () => {
    const store = emptyStore();
    [record(1, 'a 0'), undone(), loopBarsSet({ place, bars: 4 })].forEach((action) => store.dispatch(action));
    expect(selectRedo(store.getState())).toBeNull();
  });

  test('brings back a whole set that another took the place of', () => {
    const store = emptyStore();
    store.dispatch(record(1, 'a 0'));
    const before = selectSet(store.getState());
    store.dispatch(setOpened(demoSet()));
    store.dispatch(tempoSet(60));
    store.dispatch(undone());
    expect(selectSet(store.getState())).toEqual(before);
    store.dispatch(redone());
    expect(selectSet(store.getState())).toEqual({ ...demoSet().set, id: expect.any(String) });
  });

  test('has no limit within a session', () => {
    const store = emptyStore();
    for (let i = 1; i <= 2000; i++) store.dispatch(record(i, `take ${i}`));
    for (let i = 1; i <= 2000; i++) store.dispatch(undone());
    expect(ids(store)).toEqual([]);
    store.dispatch(undone());
    for (let i = 1; i <= 2000; i++) store.dispatch(redone());
    expect(ids(store)).toHaveLength(2000);
  });

  test('an action that changes nothing is no step', () => {
    const store = emptyStore();
    store.dispatch(loopBarsSet({ place, bars: 1 }));
    expect(selectUndo(store.getState())).toBeNull();
  });
});

test('halving the loop hides hits, doubling back shows them again', () => {
  const store = createStore();
  store.dispatch(setLoaded(demoSet()));
  const all = selectSounding(store.getState()).length;
  store.dispatch(loopBarsSet({ place, bars: 1 }));
  expect(selectSounding(store.getState()).length).toBeLessThan(all);
  store.dispatch(loopBarsSet({ place, bars: 2 }));
  expect(selectSounding(store.getState())).toHaveLength(all);
  store.dispatch(patternCleared({ place }));
  expect(selectPattern(store.getState()).hits).toEqual([]);
});

test('a Feel is an undoable step, one for a whole drag; what one hears alone or compares leaves the document alone', () => {
  const store = createStore();
  store.dispatch(setLoaded(demoSet()));
  const before = selectSet(store.getState());
  const feel = (strength: number) =>
    treatmentSet({
      place,
      scope: { kind: 'lane', pad: 4 },
      treatment: { feel: { grid: 240, strength } },
      gesture: 'drag 1',
    });
  [feel(0.9), feel(0.5), feel(0.2)].forEach(store.dispatch);
  expect(steps(store)).toBe(1);
  const heard = () => patternAt(selectHeardSet(store.getState()), place)!;
  expect(soundingHits(heard()).some((h) => h.tick % 240 !== 0)).toBe(true);
  store.dispatch(compared(true));
  expect(soundingHits(heard()).every((h) => h.tick === h.struck)).toBe(true);
  store.dispatch(takeHeard(7));
  expect(heard().hits).toEqual([]);
  store.dispatch(sheetClosed()); // closing the sheet ends both
  expect(selectHeardSet(store.getState())).toBe(selectSet(store.getState()));
  store.dispatch(undone());
  expect(selectSet(store.getState())).toEqual(before);
});

test('a meter change keeps the number of bars of every pattern, and undo brings the old meter back', () => {
  const store = createStore();
  store.dispatch(setLoaded(demoSet()));
  store.dispatch(meterSet({ beats: 7, unit: 8 }));
  expect(selectPattern(store.getState()).length).toBe(2 * 3360);
  store.dispatch(undone());
  expect(selectSet(store.getState())).toEqual(demoSet().set);
});

test('settings that cannot be right fall back one by one', () => {
  expect(readSettings(null)).toEqual(defaultSettings);
  expect(readSettings('{nonsense').theme).toBe('dark');
  const read = readSettings(
    JSON.stringify({ theme: 'light', fixedVelocity: { on: true, value: 9 }, keys: { pads: ['KeyA'] } }),
  );
  const kept = { theme: 'light', fixedVelocity: { on: true, value: 0.8 }, started: true } as const;
  expect(read).toEqual({ ...defaultSettings, ...kept });
  for (const pads of [[0, 1], [0, 2, 4, 4], [3, 2, 1, 0], [0, 1, 2, 16], 'all', [0, 1, 2, 3, 4, 5, 6, 7, 8]]) {
    const { simple } = readSettings(JSON.stringify({ simple: { on: true, pads } }));
    expect(simple).toEqual({ ...defaultSettings.simple, on: true });
  }
  expect(
    readSettings(JSON.stringify({ latencyMs: { touch: 37, keys: 9000, foot: 3 }, repeatRate: '1/5' })),
  ).toMatchObject({
    latencyMs: { touch: 37 },
    repeatRate: '1/16',
  });
});

test('a notice offers to undo what it tells of only while that is the last step; a newer notice takes its place', () => {
  const store = emptyStore();
  const notice = () => store.getState().session.notice;
  store.dispatch(record(1, 'a'));
  store.dispatch(patternCleared({ place }));
  store.dispatch(noticed('Pattern cleared.', true));
  expect(notice()).toMatchObject({ text: 'Pattern cleared.', undo: true });
  store.dispatch(record(2, 'b'));
  expect(notice()).toMatchObject({ text: 'Pattern cleared.', undo: false });
  store.dispatch(noticed('Something else.'));
  expect(notice()).toMatchObject({ text: 'Something else.' });
  store.dispatch(noticeDismissed(notice()!.id - 1)); // the one before is long gone
  expect(notice()).not.toBeNull();
  store.dispatch(noticeDismissed(notice()!.id));
  expect(notice()).toBeNull();
});
