import { createSelector } from '@reduxjs/toolkit';
import { onlyTake } from '@/core/edit/takes';
import { withoutTreatment } from '@/core/edit/treat';
import { currentPattern, shownTrack, type BeatSet, type Pattern } from '@/core/document/set';
import { soundingHits } from '@/core/sequence/soundingHits';
import { gridTicks } from '@/core/quantize/grid';
import type { RootState } from './store';

export const selectSet = (state: RootState) => state.set.present;
export const selectTrack = (state: RootState) => shownTrack(state.set.present);
export const selectPattern = (state: RootState): Pattern | null => currentPattern(selectTrack(state));

/** What the current pattern plays, in order of time. */
export const selectSounding = createSelector([selectPattern], (pattern) => (pattern ? soundingHits(pattern) : []));

/** The pattern that is shown beneath the current one, or null. */
export const selectTrace = (state: RootState): Pattern | null => {
  const { trace, tracks } = selectSet(state);
  return (trace && tracks.find(({ channel }) => channel === trace.channel)?.patterns[trace.slot]) ?? null;
};

export const selectUndo = (state: RootState) => state.set.past[state.set.past.length - 1]?.label ?? null;
export const selectRedo = (state: RootState) => state.set.future[0]?.label ?? null;

/** The set as the engine plays it: the document, but for a proposal, one take alone, or everything as it was played. */
export const selectHeardSet = createSelector(
  [
    selectSet,
    (state: RootState) => state.session.heardTake,
    (state: RootState) => state.session.comparing,
    (state: RootState) => state.session.proposal,
  ],
  (set, take, comparing, proposal): BeatSet => {
    const pattern = currentPattern(shownTrack(set));
    if (!pattern || (take === null && !comparing && !proposal)) return set;
    if (proposal) return withPattern(set, pattern, proposal);
    const alone = take === null ? pattern : onlyTake(pattern, take);
    const heard = comparing ? withoutTreatment(alone) : alone;
    return withPattern(set, pattern, heard);
  },
);

/** The set with another pattern in the place of one of the shown track. */
function withPattern(set: BeatSet, old: Pattern, heard: Pattern): BeatSet {
  const patterns = (track: BeatSet['tracks'][number]) => track.patterns.map((p) => (p === old ? heard : p));
  const tracks = set.tracks.map((track) => (track.channel === set.shown ? { ...track, patterns: patterns(track) } : track)); // prettier-ignore
  return { ...set, tracks };
}

/** The snap that input quantize gives to hits that do not come through the engine, or null while it is off. */
export const selectInputSnap = createSelector([(state: RootState) => selectSet(state).inputQuantize], ({ on, grid }) =>
  on ? { grid: gridTicks(grid), strength: 1 } : null,
);
