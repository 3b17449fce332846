import { MoveRecorder } from './moveRecorder';
import { selectPattern, selectSet } from '@/store/selectors';
import { createStore } from '@/store/store';
import { undone } from '@/store/undoable';

const PLACE = { track: 0, slot: 0 };

const points = (store: ReturnType<typeof createStore>) => selectPattern(store.getState()).moves?.[0]?.points ?? [];

test('a ride is written with few points, takes the place of what it rides over, and is one step of undo', () => {
  const store = createStore();
  const recorder = new MoveRecorder(store);
  for (let tick = 0; tick <= 960; tick += 30)
    recorder.note(PLACE, { pad: 4, control: 'filter' }, { tick, value: -tick / 480 });
  recorder.end();
  expect(points(store)).toEqual([{ tick: 0, value: -0 }, { tick: 960, value: -2 }]); // prettier-ignore
  for (let tick = 300; tick <= 600; tick += 30) recorder.note(PLACE, { pad: 4, control: 'filter' }, { tick, value: 1 });
  recorder.end();
  expect(points(store).map((p) => [p.tick, p.value])).toEqual([[0, -0], [300, 1], [600, 1], [960, -2]]); // prettier-ignore
  store.dispatch(undone());
  expect(points(store)).toHaveLength(2);
  store.dispatch(undone());
  expect(points(store)).toEqual([]);
});

test('ridden over the loop’s end, the next time round writes over the last one’s beginning', () => {
  const store = createStore();
  const recorder = new MoveRecorder(store);
  for (const [tick, value] of [[7000, 1], [7600, 0], [100, 0.5], [400, 0.5]] as const) recorder.note(PLACE, { pad: 0, control: 'level' }, { tick, value }); // prettier-ignore
  recorder.end();
  expect(points(store)).toEqual([
    { tick: 100, value: 0.5 },
    { tick: 400, value: 0.5 },
    { tick: 7000, value: 1 },
    { tick: 7600, value: 0 },
  ]);
});

test('a ride goes into the pattern that it names, and one that is launched meanwhile keeps its own course', () => {
  const store = createStore();
  const recorder = new MoveRecorder(store);
  for (let tick = 0; tick <= 480; tick += 30) recorder.note(PLACE, { pad: 4, control: 'filter' }, { tick, value: -1 });
  for (let tick = 0; tick <= 480; tick += 30)
    recorder.note({ track: 0, slot: 1 }, { pad: 4, control: 'filter' }, { tick, value: 2 });
  recorder.end();
  const values = (slot: number) => {
    const { points: course } = selectSet(store.getState()).tracks[0]!.patterns[slot]!.moves![0]!;
    return [...new Set(course.map((point) => point.value))];
  };
  expect([values(0), values(1)]).toEqual([[-1], [2]]);
});

test('five minutes of riding are one step of undo that keeps no more than the course it was and is', () => {
  const store = createStore();
  const recorder = new MoveRecorder(store);
  // A hand that moves sixty times a second at 112 BPM, over a loop of two bars.
  for (let i = 0; i < 5 * 60 * 60; i++) {
    const tick = (i * 29.87) % 7680;
    recorder.note(PLACE, { pad: 4, control: 'filter' }, { tick, value: Math.sin(i / 40) });
  }
  recorder.end();
  const { past, open } = store.getState().set;
  expect([past.length, open!.undo.length, open!.redo.length]).toEqual([0, 1, 1]);
  store.dispatch(undone());
  expect(store.getState().set.future[0]!.bytes).toBeLessThan(100_000);
  expect(points(store)).toEqual([]);
});
