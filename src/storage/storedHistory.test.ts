import fc from 'fast-check';
import { setNoted, setRenamed } from '@/store/aboutSlice';
import { setOpened } from '@/store/openSlice';
import { createStore } from '@/store/store';
import { tempoSet } from '@/store/timeSlice';
import { trackRemoved } from '@/store/tracksSlice';
import { historyRestored, redone, undone } from '@/store/undoable';
import { Memory } from './memory.testing';
import { STEP_PREFIX } from './records';
import { enter, StoringApp as App } from './storingApp.testing';

const rename = (name: string) => setRenamed(name);

let memory: Memory;
beforeEach(() => (memory = new Memory()));

/** What a player does, by a number; hits have ids of their own, as the app gives none twice. */
function act(app: App, n: number, canUndo: boolean, id: number): void {
  const { store } = app;
  const kinds = [
    () => store.dispatch(enter(id)),
    () => store.dispatch(tempoSet(60 + (n % 100))),
    () => canUndo && store.dispatch(undone()),
    () => store.dispatch(redone()),
    () => store.dispatch(rename(`Name ${n % 7}`)),
    () => canUndo && store.dispatch(undone()),
    () => app.open.set.order.length > 1 && store.dispatch(trackRemoved({ track: app.open.set.order[1]! })),
  ];
  kinds[n % kinds.length]!();
}

function stepsOf({ store }: App): number {
  const { past, open } = store.getState().set;
  return past.length + (open ? 1 : 0);
}

describe('undo', () => {
  test('survives reloads: steps back and forth are those of a page that was never left', async () => {
    const histories = Number(process.env.HISTORIES ?? 12);
    await fc.assert(
      fc.asyncProperty(fc.array(fc.nat(5000), { minLength: 5, maxLength: 40 }), fc.nat(6), async (acts, every) => {
        memory = new Memory();
        let app = await App.on(memory);
        const twin = await App.on(new Memory());
        const { set, stage } = app.open;
        for (const { store } of [app, twin]) store.dispatch(setOpened({ set: { ...set, id: 'one' }, stage }));
        for (const [i, n] of acts.entries()) {
          if (i % (every + 2) === 0) app = await app.reload();
          const canUndo = stepsOf(twin) > 1;
          act(app, n, canUndo, 10_001 + 2 * i);
          act(twin, n, canUndo, 10_001 + 2 * i);
          expect(app.open.set).toEqual(twin.open.set);
        }
        app = await app.reload();
        // The change of set itself is not stored: the set before lies in the library.
        while (stepsOf(twin) > 1) {
          expect(stepsOf(app)).toBe(stepsOf(twin) - 1);
          for (const { store } of [app, twin]) store.dispatch(undone());
          expect(app.open.set).toEqual(twin.open.set);
        }
      }),
      { numRuns: histories },
    );
  });

  test('a step is stored once, and goes when nothing names it any more', async () => {
    const app = await App.on(memory);
    const steps = () => [...memory.map.keys()].filter((key) => key.startsWith(STEP_PREFIX));
    app.store.dispatch(rename('First'));
    app.store.dispatch(setNoted('slow'));
    await app.close();
    const first = (JSON.parse(memory.map.get('history')!) as { past: string[] }).past[0];
    expect(steps()).toHaveLength(2);
    app.store.dispatch(undone());
    await app.close();
    expect(steps()).toContain(first);
    app.store.dispatch(rename('Second'));
    await app.close();
    expect(steps()).toHaveLength(2);
    expect(steps()).toContain(first);
  });

  test('steps of another set, or damaged ones, are none: the set opens all the same', async () => {
    const app = await App.on(memory);
    app.store.dispatch(rename('First'));
    app.store.dispatch(tempoSet(70));
    await app.close();
    const whole = new Map(memory.map);
    const keys = [...whole.keys()].filter((key) => key.startsWith(STEP_PREFIX) || key === 'history');
    for (const key of keys) {
      for (const text of ['', '{}', '[]', '{"label":"x","undo":[{}],"redo":[]}', whole.get(key)!.slice(0, 30)]) {
        memory.map.clear();
        for (const [name, value] of whole) memory.map.set(name, value);
        memory.map.set(key, text);
        const again = await App.on(memory);
        expect(again.open.set).toEqual(app.open.set);
        expect(again.store.getState().set.past).toEqual([]);
      }
    }
    const other = createStore();
    other.dispatch(historyRestored({ past: [], future: [] }));
    expect(other.getState().set.past).toEqual([]);
  });
});
