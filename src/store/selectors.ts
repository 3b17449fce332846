import { createSelector } from '@reduxjs/toolkit';
import { currentPattern, type Pattern } from '@/core/model/set';
import { soundingHits } from '@/core/sequence/soundingHits';
import type { RootState } from './store';

/** The track that pads play and record. One for now; launching brings the choice. */
export const CURRENT_TRACK = 0;

export const selectSet = (state: RootState) => state.set.present;
export const selectTrack = (state: RootState) => state.set.present.tracks[CURRENT_TRACK]!;
export const selectPattern = (state: RootState): Pattern | null => currentPattern(selectTrack(state));

/** What the current pattern plays, in order of time. */
export const selectSounding = createSelector([selectPattern], (pattern) => (pattern ? soundingHits(pattern) : []));

export const selectUndo = (state: RootState) => state.set.past[state.set.past.length - 1]?.label ?? null;
export const selectRedo = (state: RootState) => state.set.future[0]?.label ?? null;
