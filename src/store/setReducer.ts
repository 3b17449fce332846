import type { Reducer } from '@reduxjs/toolkit';
import type { BeatSet } from '@/core/document/set';
import { aboutReducer } from './aboutSlice';
import { mixReducer } from './mixSlice';
import { openReducer } from './openSlice';
import { patternsReducer, recordingChanges } from './patternsSlice';
import { sectionsReducer } from './sectionsSlice';
import { slotsReducer } from './slotsSlice';
import { soundsReducer } from './soundsSlice';
import { timeReducer } from './timeSlice';
import { tracksReducer } from './tracksSlice';
import { undoable } from './undoable';

/** The slices that a set is made of, each one concept. They share one document, since an edit may touch more than one part. */
const SLICES: readonly Reducer<BeatSet>[] = [
  timeReducer,
  patternsReducer,
  slotsReducer,
  tracksReducer,
  soundsReducer,
  sectionsReducer,
  mixReducer,
  aboutReducer,
  openReducer,
];

const whole: Reducer<BeatSet> = (set, action) =>
  SLICES.reduce<BeatSet | undefined>((now, reduce) => reduce(now, action), set)!;

export const setReducer = undoable(whole, recordingChanges);
