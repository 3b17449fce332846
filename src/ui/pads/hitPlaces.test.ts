import { emptySet } from '@/core/document/create';
import { createStore } from '@/store/store';
import { hitsRecorded } from '@/store/patternsSlice';
import { setLoaded } from '@/store/openSlice';
import { hitPath, selectHitPlaces } from './hitPlaces';

const BAR = 3840;

test('a pad shows where in the loop its hits lie, and only the pad that was struck changes', () => {
  const store = createStore();
  store.dispatch(setLoaded(emptySet()));
  const record = (id: number, pad: number, tick: number) =>
    store.dispatch(
      hitsRecorded({
        place: { track: 0, slot: 0 },
        hits: [{ id, pad, tick, length: 60, velocity: 0.8, snap: null, take: 1 }],
        take: '1',
      }),
    );
  const loop = () => store.getState().set.present.tracks[0]!.patterns[0]!.length;
  record(1, 2, 0);
  const first = selectHitPlaces(store.getState());
  expect([first[2]!.indexOf('|'), first[2]!.lastIndexOf('|'), first[3]!.includes('|')]).toEqual([0, 0, false]);
  record(3, 3, loop() - BAR / 4);
  const second = selectHitPlaces(store.getState());
  // The last beat of so many bars.
  expect(second[3]!.indexOf('|') / second[3]!.length).toBeCloseTo(1 - BAR / 4 / loop(), 2);
  expect(second.map((places, pad) => places !== first[pad]).lastIndexOf(true)).toBe(3);
  expect(second.slice(0, 3)).toEqual(first.slice(0, 3));
});

test('each hit is a stroke at its place', () => {
  expect(hitPath('|.|.')).toBe('M0 0h0.016v1h-0.016zM0.5 0h0.016v1h-0.016z');
  expect(hitPath('....')).toBe('');
});
