import { createSelector } from '@reduxjs/toolkit';
import { newPattern, type Pattern, type PatternPlace } from '@/core/document/pattern';
import { controlsOf } from '@/core/document/samplesOf';
import { patternAt, tracksOf, type BeatSet } from '@/core/document/set';
import { trackStage } from '@/core/document/stage';
import { withVoice } from '@/core/document/tones';
import type { Track } from '@/core/document/track';
import { onlyTake } from '@/core/edit/takes';
import { withoutTreatment } from '@/core/edit/treat';
import { restored } from '@/core/library/restore';
import { gridTicks } from '@/core/quantize/grid';
import { soundingHits } from '@/core/sequence/soundingHits';
import type { Tried } from './sessionSlice';
import type { RootState } from './store';
import { undoLabel } from './undoable';

export const selectSet = (state: RootState) => state.set.present;
/** The tracks, from top to bottom. */
export const selectTracks = createSelector([selectSet], tracksOf);
export const selectStage = (state: RootState) => state.stage;
/** Id of the track that pads play and Steps shows. */
export const selectShown = (state: RootState) => state.stage.shown;
export const selectTrack = (state: RootState) => selectSet(state).tracks[state.stage.shown]!;
/** The slot that the shown track is on. */
export const selectSlot = (state: RootState) => trackStage(state.stage, state.stage.shown).slot;
/** Where the pattern lies that Steps shows and edits are for, at this moment: a drag keeps the place that it began in. */
export const selectPlace: (state: RootState) => PatternPlace = createSelector(
  [selectShown, selectSlot],
  (track, slot) => ({ track, slot }),
);

/** What an empty slot shows: an empty pattern, which comes to be with the first edit. */
const selectEmpty = createSelector([selectSlot, (state: RootState) => selectSet(state).meter], newPattern);

/** The pattern that Steps shows. */
export const selectPattern = (state: RootState): Pattern =>
  patternAt(selectSet(state), selectPlace(state)) ?? selectEmpty(state);

/** What the shown pattern plays, in order of time. */
export const selectSounding = createSelector([selectPattern], soundingHits);

/** The pattern that is shown beneath it, or null. */
export const selectTrace = (state: RootState): Pattern | null => {
  const { trace } = selectSet(state);
  return trace ? patternAt(selectSet(state), trace) : null;
};

/** The track that has it. */
export const selectTracedTrack = (state: RootState): Track | null => {
  const { trace, tracks } = selectSet(state);
  return (trace && tracks[trace.track]) ?? null;
};

export const selectUndo = (state: RootState) => undoLabel(state.set);
export const selectRedo = (state: RootState) => state.set.future[0]?.label ?? null;

/** The set as the engine plays it: the document, but for another version, a sound that is tried, a proposal, one take alone, or all as it was played. */
export const selectHeardSet = createSelector(
  [
    selectSet,
    selectPlace,
    selectPattern,
    (state: RootState) => state.session.heardTake,
    (state: RootState) => state.session.comparing,
    (state: RootState) => state.session.proposal,
    (state: RootState) => state.session.heardVersion,
    (state: RootState) => state.session.tried,
  ],
  (set, place, pattern, take, comparing, proposal, version, tried): BeatSet => {
    if (version) return restored(set, version);
    if (tried) return withTried(set, tried);
    if (take === null && !comparing && !proposal) return set;
    if (proposal) return withPattern(set, place, proposal);
    const alone = take === null ? pattern : onlyTake(pattern, take);
    return withPattern(set, place, comparing ? withoutTreatment(alone) : alone);
  },
);

/** The controls that move something of what the chosen pad plays. */
export const selectControls = (state: RootState) => controlsOf(selectTrack(state), state.steps.pad);

function withTrack(set: BeatSet, track: Track): BeatSet {
  return { ...set, tracks: { ...set.tracks, [track.id]: track } };
}

/** The set with what is tried in the place of its own sound, kit or voice. */
function withTried(set: BeatSet, tried: Tried): BeatSet {
  const track = set.tracks[tried.track];
  if (!track) return set;
  if ('tones' in tried)
    return track.tones ? withTrack(set, { ...track, tones: withVoice(track.tones, tried.tones) }) : set;
  const { pads } = track.kit;
  const kit = 'kit' in tried ? tried.kit : { ...track.kit, pads: pads.map((own, pad) => (pad === tried.pad ? { ...own, sound: tried.sound } : own)) }; // prettier-ignore
  return withTrack(set, { ...track, kit });
}

/** The set with another pattern at a place. */
function withPattern(set: BeatSet, { track: id, slot }: PatternPlace, heard: Pattern): BeatSet {
  const track = set.tracks[id]!;
  const patterns = track.patterns.map((pattern, i) => (i === slot ? heard : pattern));
  return { ...set, tracks: { ...set.tracks, [id]: { ...track, patterns } } };
}

/** The snap that input quantize gives to hits that do not come through the engine, or null while it is off. */
export const selectInputSnap = createSelector([(state: RootState) => selectSet(state).inputQuantize], ({ on, grid }) =>
  on ? { grid: gridTicks(grid), strength: 1 } : null,
);
