import { createSlice, isDraft, nanoid, original, type PayloadAction } from '@reduxjs/toolkit';
import { alike } from '@/core/alike';
import { demoSet } from '@/core/document/demo';
import type { BeatSet, OpenSet } from '@/core/document/set';
import { restored, withTrackOf, withTracks } from '@/core/library/restore';
import type { Track } from '@/core/document/track';
import { newHistory, undoStep } from './undoable';

interface RestoredTrack {
  version: BeatSet;
  /** Its id. */
  track: number;
}

/** A whole set takes the place of another. */
const slice = createSlice({
  name: 'open',
  initialState: demoSet().set,
  reducers: {
    /** A set comes from storage: the history begins here. */
    setLoaded: {
      reducer: (_, { payload }: PayloadAction<OpenSet>) => payload.set,
      prepare: newHistory<OpenSet>,
    },
    /** Another set is opened; undo brings the old one back. */
    setOpened: {
      reducer: (_, { payload }: PayloadAction<OpenSet>) => payload.set,
      prepare: ({ set, stage }: OpenSet) =>
        undoStep<OpenSet>('change of set')({ set: { ...set, id: set.id ?? nanoid() }, stage }),
    },
    /** All is again as it was in another version of the set. */
    versionRestored: {
      reducer: (set, { payload }: PayloadAction<BeatSet>) => bring(set, (now) => restored(now, payload)),
      prepare: undoStep<BeatSet>('restored version'),
    },
    /** One track is again as it was in another version of the set. */
    trackRestored: {
      reducer: (set, { payload: { version, track } }: PayloadAction<RestoredTrack>) =>
        bring(set, (now) => withTrackOf(now, version, track) ?? now),
      prepare: undoStep<RestoredTrack>('restored track'),
    },
    /** Tracks come from elsewhere, beside what is there; those for which there is no room stay away. */
    tracksBroughtIn: {
      reducer: (set, { payload }: PayloadAction<readonly Track[]>) => bring(set, (now) => withTracks(now, payload).set),
      prepare: undoStep<readonly Track[]>('tracks brought in'),
    },
  },
});

/** Changes what differs in another set: were the whole replaced, a step of undo would hold the whole. */
function bring(draft: BeatSet, make: (now: BeatSet) => BeatSet): void {
  const now = isDraft(draft) ? original(draft)! : draft;
  const { tracks, ...rest } = make(now);
  for (const key of Object.keys(now) as (keyof BeatSet)[]) if (!(key in rest) && key !== 'tracks') delete draft[key];
  for (const [key, value] of Object.entries(rest)) {
    if (!alike(value, now[key as keyof BeatSet])) Object.assign(draft, { [key]: value });
  }
  for (const id of Object.keys(now.tracks).map(Number)) if (!tracks[id]) delete draft.tracks[id];
  for (const track of Object.values(tracks)) if (now.tracks[track.id] !== track) draft.tracks[track.id] = track;
}

export const { setLoaded, setOpened, versionRestored, trackRestored, tracksBroughtIn } = slice.actions;
export const openReducer = slice.reducer;
