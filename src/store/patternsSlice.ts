import { createAction, createSlice, isDraft, original, type Action, type PayloadAction } from '@reduxjs/toolkit';
import { demoSet } from '@/core/document/demo';
import type { Hit } from '@/core/document/hit';
import { newPattern, type Pattern, type PatternPlace } from '@/core/document/pattern';
import type { BeatSet } from '@/core/document/set';
import { edited as editedPattern, EDIT_LABELS, type Edit } from '@/core/edit/edit';
import { loopTicks } from '@/core/edit/loopTicks';
import { withoutTake } from '@/core/edit/takes';
import { treated, withoutNarrower, type Scope, type Treatment } from '@/core/edit/treat';
import type { Change, RawStep } from './changes';
import { amendment, undoStep } from './undoable';

/** Every edit names the pattern that it is for: what plays or is shown may change while a finger draws. */
interface OfPlace {
  place: PatternPlace;
}

interface Treating extends OfPlace {
  scope: Scope;
  treatment: Treatment;
  /** One drag is one step. */
  gesture?: string;
}

interface Recorded extends OfPlace {
  hits: readonly Hit[];
  /** Names the pass of the recording: all hits of one pass are undone together. */
  take: string;
}

interface Edited extends OfPlace {
  edit: Edit;
  /** One swipe is one step. */
  gesture?: string;
}

interface Released extends OfPlace {
  /** Ticks for which each hit's pad was held. */
  lengths: readonly { id: number; length: number }[];
}

/** Puts a changed pattern in the place of one. In an empty slot the edit finds an empty pattern, which comes to be by it. */
function change(set: BeatSet, { track, slot }: PatternPlace, edit: (pattern: Pattern) => Pattern): void {
  const patterns = set.tracks[track]?.patterns;
  if (!patterns || slot >= patterns.length) return;
  const old = patterns[slot] ?? newPattern(slot, set.meter);
  const plain = isDraft(old) ? original(old)! : old;
  const now = edit(plain);
  if (now !== plain) patterns[slot] = now;
}

/** What is in the patterns. */
const slice = createSlice({
  name: 'patterns',
  initialState: demoSet().set,
  reducers: {
    /** An edit by hand. */
    edited: {
      reducer(set, { payload }: PayloadAction<Edited>) {
        change(set, payload.place, (pattern) => editedPattern(pattern, payload.edit));
      },
      prepare: undoStep<Edited>(
        ({ edit }) => (edit.kind === 'values' ? edit.of : EDIT_LABELS[edit.kind]),
        ({ gesture }) => gesture,
      ),
    },
    /** How a key was pressed belongs to the stroke that was recorded last, and is undone with it. */
    pressRecorded: {
      reducer(set, { payload }: PayloadAction<Omit<Edited, 'gesture'>>) {
        change(set, payload.place, (pattern) => editedPattern(pattern, payload.edit));
      },
      prepare: amendment<Omit<Edited, 'gesture'>>,
    },
    loopBarsSet: {
      reducer(set, { payload: { place, bars } }: PayloadAction<OfPlace & { bars: number }>) {
        const length = loopTicks(bars, set.meter);
        change(set, place, (pattern) => (pattern.length === length ? pattern : { ...pattern, length }));
      },
      prepare: undoStep<OfPlace & { bars: number }>('loop length'),
    },
    patternCleared: {
      reducer(set, { payload }: PayloadAction<OfPlace>) {
        change(set, payload.place, (pattern) => (pattern.hits.length === 0 ? pattern : { ...pattern, hits: [] }));
      },
      prepare: undoStep<OfPlace>('clear'),
    },
    treatmentSet: {
      reducer(set, { payload }: PayloadAction<Treating>) {
        change(set, payload.place, (pattern) => treated(pattern, payload.scope, payload.treatment));
      },
      prepare: undoStep<Treating>(
        ({ treatment }) => ('feel' in treatment ? 'Feel' : 'loudness'),
        ({ gesture }) => gesture,
      ),
    },
    /** The narrower treatments below a scope give way to its own. */
    narrowerCleared: {
      reducer(set, { payload }: PayloadAction<OfPlace & { scope: Scope; kind: 'feel' | 'loudness' }>) {
        change(set, payload.place, (pattern) => withoutNarrower(pattern, payload.scope, payload.kind));
      },
      prepare: undoStep<OfPlace & { scope: Scope; kind: 'feel' | 'loudness' }>(({ kind }) =>
        kind === 'feel' ? 'Feel' : 'loudness',
      ),
    },
    takeRemoved: {
      reducer(set, { payload }: PayloadAction<OfPlace & { take: number }>) {
        change(set, payload.place, (pattern) => withoutTake(pattern, payload.take));
      },
      prepare: undoStep<OfPlace & { take: number }>('dropping a take'),
    },
    stepEntered: {
      reducer(set, { payload }: PayloadAction<OfPlace & { hit: Hit }>) {
        change(set, payload.place, (pattern) => ({ ...pattern, hits: [...pattern.hits, payload.hit] }));
      },
      prepare: undoStep<OfPlace & { hit: Hit }>('step'),
    },
  },
});

export const {
  edited,
  pressRecorded,
  loopBarsSet,
  patternCleared,
  treatmentSet,
  narrowerCleared,
  takeRemoved,
  stepEntered,
} = slice.actions;
export const patternsReducer = slice.reducer;

/** The engine has recorded hits. */
export const hitsRecorded = createAction(
  'patterns/hitsRecorded',
  undoStep<Recorded>('take', ({ take }) => take),
);
/** It knows for how long their pads were held. */
export const hitsReleased = createAction('patterns/hitsReleased', amendment<Released>);

/** What recording changes in a set: said outright, since it comes with every stroke. Null for other actions. */
export function recordingChanges(set: BeatSet, action: Action): RawStep | null {
  if (hitsRecorded.match(action)) return added(set, action.payload);
  if (hitsReleased.match(action)) return lengthened(set, action.payload);
  return null;
}

const NOTHING: RawStep = { undo: [], redo: [] };

function added(set: BeatSet, { place: { track, slot }, hits }: Recorded): RawStep {
  const patterns = set.tracks[track]?.patterns;
  if (!patterns || slot >= patterns.length || hits.length === 0) return NOTHING;
  const path = ['tracks', track, 'patterns', slot];
  const pattern = patterns[slot];
  if (!pattern) {
    const value = { ...newPattern(slot, set.meter), hits: [...hits] };
    return { undo: [{ op: 'replace', path, value: pattern }], redo: [{ op: 'replace', path, value }] };
  }
  const tape = [...path, 'hits'];
  const at = pattern.hits.length;
  return {
    undo: [{ op: 'splice', path: tape, at, remove: hits.length, insert: [] }],
    redo: [{ op: 'splice', path: tape, at, remove: 0, insert: hits }],
  };
}

function lengthened(set: BeatSet, { place: { track, slot }, lengths }: Released): RawStep {
  const hits = set.tracks[track]?.patterns[slot]?.hits ?? [];
  const undo: Change[] = [];
  const redo: Change[] = [];
  for (const { id, length } of lengths) {
    // What was played just now was recorded last.
    const index = hits.findLastIndex((hit) => hit.id === id);
    if (index < 0 || hits[index]!.length === length) continue;
    const path = ['tracks', track, 'patterns', slot, 'hits', index, 'length'];
    redo.push({ op: 'replace', path, value: length });
    undo.unshift({ op: 'replace', path, value: hits[index]!.length });
  }
  return { undo, redo };
}
