import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { demoSet } from '@/core/document/demo';
import { MAX_NAME, MAX_NOTE } from '@/core/document/limits';
import { undoStep } from './undoable';

/** What a set is called, and what the player writes about it. */
const slice = createSlice({
  name: 'about',
  initialState: demoSet().set,
  reducers: {
    setRenamed: {
      reducer(set, { payload }: PayloadAction<string>) {
        if (payload.trim() !== '') set.name = payload.trim().slice(0, MAX_NAME);
      },
      prepare: undoStep<string>('name of the set'),
    },
    setNoted: {
      reducer(set, { payload }: PayloadAction<string>) {
        if (payload.trim() === '') delete set.note;
        else set.note = payload.slice(0, MAX_NOTE);
      },
      prepare: undoStep<string>('note on the set'),
    },
    /** The set has its place among the sets of this device. No step of undo: it is the same set. */
    setIdentified(set, { payload }: PayloadAction<string>) {
      set.id ??= payload;
    },
  },
});

export const { setRenamed, setNoted, setIdentified } = slice.actions;
export const aboutReducer = slice.reducer;
