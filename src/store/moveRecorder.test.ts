import { MoveRecorder } from './moveRecorder';
import { selectPattern } from './selectors';
import { createStore } from './store';
import { undone } from './undoable';

const points = (store: ReturnType<typeof createStore>) => selectPattern(store.getState())!.moves?.[0]?.points ?? [];

test('a ride is written with few points, takes the place of what it rides over, and is one step of undo', () => {
  const store = createStore();
  const recorder = new MoveRecorder(store);
  for (let tick = 0; tick <= 960; tick += 30) recorder.note(4, 'filter', tick, -tick / 480);
  recorder.end();
  expect(points(store)).toEqual([{ tick: 0, value: -0 }, { tick: 960, value: -2 }]); // prettier-ignore
  for (let tick = 300; tick <= 600; tick += 30) recorder.note(4, 'filter', tick, 1);
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
  for (const [tick, value] of [[7000, 1], [7600, 0], [100, 0.5], [400, 0.5]] as const) recorder.note(0, 'level', tick, value); // prettier-ignore
  recorder.end();
  expect(points(store)).toEqual([
    { tick: 100, value: 0.5 },
    { tick: 400, value: 0.5 },
    { tick: 7000, value: 1 },
    { tick: 7600, value: 0 },
  ]);
});
