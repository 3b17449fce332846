import fc from 'fast-check';
import { demoSet } from '@/core/document/demo';
import type { PatternPlace } from '@/core/document/pattern';
import { readSet, writeSet } from '@/core/document/readSet';
import { dragged } from '@/core/edit/drag';
import type { Edit } from '@/core/edit/edit';
import { chordNotes } from '@/core/edit/notes';
import { idsFrom } from '@/core/document/hit';
import { VALUE_KINDS, VALUE_RANGES } from '@/core/edit/values';
import { edited } from './patternsSlice';
import { selectSet } from './selectors';
import { setLoaded } from './openSlice';
import { createStore, type Store } from './store';
import { undone } from './undoable';

/** The demo's track of chords. */
const PLACE: PatternPlace = { track: 3, slot: 0 };
const track = ({ getState }: Store) => selectSet(getState()).tracks[PLACE.track]!;
const hitsOf = (store: Store) => track(store).patterns[PLACE.slot]!.hits;

/** What hands and keys do to notes, each for some of those that are there. */
type NoteEdit = (store: Store, ids: number[], amount: number, newId: () => number) => Edit;
const EDITS: NoteEdit[] = [
  (_, ids, amount) => ({ kind: 'erase', ids: amount > 0.8 ? ids.slice(0, 2) : [] }),
  (store, ids, amount) => ({ kind: 'notes', ids, tones: track(store).tones!, by: 'step', steps: Math.round(amount * 20 - 10) }), // prettier-ignore
  (store, ids, amount) => ({ kind: 'notes', ids, tones: track(store).tones!, by: 'semitone', steps: Math.round(amount * 48 - 24) }), // prettier-ignore
  (store, ids, amount) => ({ kind: 'strum', ids, tones: track(store).tones!, ticks: amount * 200 - 100 }),
  (_, ids) => ({ kind: 'staccato', ids }),
  (_, ids) => ({ kind: 'legato', ids }),
  (_, ids) => ({ kind: 'dot', ids }),
  (_, ids, amount) => ({ kind: 'move', ids, ticks: Math.round(amount * 4000 - 2000), lanes: 0 }),
  (_, ids, amount) => ({ kind: 'rotate', ids, ticks: Math.round(amount * 4000) }),
  (_, ids, amount) => {
    const of = VALUE_KINDS[Math.floor(amount * VALUE_KINDS.length)]!;
    const { min, max } = VALUE_RANGES[of];
    return { kind: 'values', of, values: ids.map((id) => [id, min + amount * (max - min)]), over: 240 };
  },
  (store, ids, amount) => {
    const { tones, patterns } = track(store);
    const from = 50;
    const drag = { kind: 'move', ticks: amount * 3000 - 1500, from, to: from + Math.round(amount * 30 - 15) } as const;
    return { kind: 'drag', hits: dragged(patterns[PLACE.slot]!, ids, drag, { grid: 240, tones: tones! }) };
  },
  (store, ids, amount) => {
    const drag = { kind: 'stretch', ticks: amount * 3000 - 1500, from: 480 } as const;
    return { kind: 'drag', hits: dragged(track(store).patterns[PLACE.slot]!, ids, drag, { grid: 240 }) };
  },
  (store, ids, _, newId) => {
    const { tones, patterns } = track(store);
    const some = new Set(hitsOf(store).length > 400 ? [] : ids.slice(0, 3));
    return { kind: 'paint', hits: chordNotes(patterns[PLACE.slot]!, some, tones!, 'seventh', newId) };
  },
];

test('1,000 random edits of notes, each set that they make can be opened again, and undo gives back the exact document', () => {
  const anyEdit = fc.tuple(fc.nat(EDITS.length - 1), fc.nat(4), fc.double({ min: 0, max: 1, maxExcluded: true, noNaN: true })); // prettier-ignore
  fc.assert(
    fc.property(fc.array(anyEdit, { minLength: 50, maxLength: 50 }), (edits) => {
      const store = createStore();
      store.dispatch(setLoaded(demoSet()));
      const before = selectSet(store.getState());
      const newId = idsFrom(100_001);
      for (const [kind, every, amount] of edits) {
        const ids = hitsOf(store).filter((_, i) => i % (every + 1) === 0).map(({ id }) => id); // prettier-ignore
        store.dispatch(edited({ place: PLACE, edit: EDITS[kind]!(store, ids, amount, newId) }));
      }
      const { set, stage } = store.getState();
      const read = readSet(writeSet({ set: set.present, stage }));
      if ('error' in read) throw new Error(read.error);
      expect(read.set).toEqual(JSON.parse(JSON.stringify(set.present)));
      while (store.getState().set.past.length > 0 || store.getState().set.open) store.dispatch(undone());
      expect(selectSet(store.getState())).toEqual(before);
    }),
    { numRuns: 20 },
  );
});
