import { createSlice, isDraft, original, type PayloadAction } from '@reduxjs/toolkit';
import { demoSet } from '@/core/document/demo';
import type { Hit } from '@/core/document/hit';
import { newPattern, type Pattern, type PatternPlace } from '@/core/document/pattern';
import type { BeatSet } from '@/core/document/set';
import { edited as editedPattern, EDIT_LABELS, type Edit } from '@/core/edit/edit';
import { loopTicks } from '@/core/edit/loopTicks';
import { withoutTake } from '@/core/edit/takes';
import { treated, withoutNarrower, type Scope, type Treatment } from '@/core/edit/treat';
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
    hitsRecorded: {
      reducer(set, { payload: { place, hits } }: PayloadAction<Recorded>) {
        const pattern = set.tracks[place.track]?.patterns[place.slot];
        // Into the list as it is: a copy of a long one would cost more than all else.
        if (pattern) pattern.hits.push(...hits);
        else change(set, place, (empty) => ({ ...empty, hits: [...hits] }));
      },
      prepare: undoStep<Recorded>('take', ({ take }) => take),
    },
    hitsReleased: {
      reducer(set, { payload: { place, lengths } }: PayloadAction<Released>) {
        const pattern = set.tracks[place.track]?.patterns[place.slot];
        const hits = (pattern && original(pattern)?.hits) ?? [];
        for (const { id, length } of lengths) {
          // What was played just now was recorded last.
          const index = hits.findLastIndex((hit) => hit.id === id);
          if (index >= 0) pattern!.hits[index]!.length = length;
        }
      },
      prepare: amendment<Released>,
    },
  },
});

export const {
  edited,
  loopBarsSet,
  patternCleared,
  treatmentSet,
  narrowerCleared,
  takeRemoved,
  stepEntered,
  hitsRecorded,
  hitsReleased,
} = slice.actions;
export const patternsReducer = slice.reducer;
