import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { demoSet } from '@/core/document/demo';
import type { OpenSet } from '@/core/document/set';
import { newHistory, undoStep } from './undoable';

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
      prepare: undoStep<OpenSet>('change of set'),
    },
  },
});

export const { setLoaded, setOpened } = slice.actions;
export const openReducer = slice.reducer;
