import { demoSet } from '@/core/document/demo';
import { tracksOf, type BeatSet } from '@/core/document/set';
import { padNote } from '@/core/document/tones';
import { WHOLE_CHANNEL } from '@/core/document/mix';
import { duckedBySet } from './mixSlice';
import { unmixed } from '@/core/document/unmixed.testing';
import { setLoaded } from './openSlice';
import { selectSet } from './selectors';
import { createStore } from './store';
import { keyMoved, trackRemoved } from './tracksSlice';
import { undone } from './undoable';

/** Every note of the set: MIDI, in the order of tracks, slots and hits. */
const notes = (set: BeatSet) =>
  tracksOf(set).flatMap(({ tones, patterns }) =>
    tones ? patterns.flatMap((one) => one?.hits.map(({ pad, pitch = 0 }) => padNote(tones, pad) + pitch) ?? []) : [],
  );
const drums = (set: BeatSet) => tracksOf(set).filter(({ tones }) => !tones);

test('another key moves every note of every track by as much, and the scales with them; drums stay; one step of undo', () => {
  const store = createStore();
  const set = () => selectSet(store.getState());
  const before = set();
  // Twice round all keys, up and down: roots go round, and notes go on.
  for (const semitones of [1, -1]) {
    for (let step = 1; step <= 12; step++) {
      store.dispatch(keyMoved({ semitones }));
      expect(notes(set())).toEqual(notes(before).map((note) => note + semitones * step));
      expect(drums(set())).toEqual(drums(before));
      const roots = tracksOf(set()).flatMap(({ tones }) => (tones ? [tones.root] : []));
      expect(roots).toEqual(roots.map(() => (9 + semitones * step + 24) % 12)); // the demo is in A
    }
    for (let step = 0; step < 12; step++) store.dispatch(undone());
    expect(set()).toEqual(before);
  }
});

test('with a track goes what it had duck; undo brings both back', () => {
  const store = createStore();
  store.dispatch(setLoaded(unmixed(demoSet())));
  const set = () => selectSet(store.getState());
  const key = (track: number) => ({ track, pad: 0 });
  store.dispatch(duckedBySet({ channel: 3, key: key(0) }));
  store.dispatch(duckedBySet({ channel: WHOLE_CHANNEL, key: key(0) }));
  store.dispatch(duckedBySet({ channel: 2, key: key(1) }));
  store.dispatch(trackRemoved({ track: 0 }));
  expect(set().tracks[3]!.channel).toEqual({ duck: 10 });
  expect(set().mix!.whole!.duckedBy).toBeUndefined();
  expect(set().tracks[2]!.channel!.duckedBy).toEqual(key(1));
  store.dispatch(undone());
  expect([set().tracks[3]!.channel!.duckedBy, set().mix!.whole!.duckedBy]).toEqual([key(0), key(0)]);
});
