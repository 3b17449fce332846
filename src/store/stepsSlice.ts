import { createSelector, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { inLane, laneKey, type ChosenLane } from '@/core/document/stepLanes';
import type { NoteStep } from '@/core/edit/notes';
import { hitsInLoop, type Clip } from '@/core/edit/select';
import { hitsInStep } from '@/core/edit/steps';
import type { StrokeShape, ValueKind } from '@/core/edit/values';
import type { Control, MovedInMix } from '@/core/document/moves';
import { gridTicks, type GridName } from '@/core/quantize/grid';
import { selectPattern, selectTrack } from './selectors';
import type { RootState } from './store';

/** A step of one lane. */
export interface Cursor extends ChosenLane {
  /** Where the step begins. */
  tick: number;
}

/** How the player looks at and works on steps, wherever they are shown. */
interface StepsView {
  step: GridName;
  /** Ticks in view, or null for what the screen has room for. */
  span: number | null;
  /** The pad whose lane was touched last, and of a track of notes its note. */
  pad: number;
  note: number | null;
  cursor: Cursor | null;
  /** What the value lane shows, and how a finger draws in it. */
  kind: ValueKind;
  shape: StrokeShape;
  /** The control whose Move is shown: of the chosen lane, or of the mix; or null. */
  control: Control | MovedInMix | null;
  /** Fingers choose instead of painting. */
  selecting: boolean;
  /** Ids of the chosen hits; some may be gone from the pattern. */
  selected: number[];
  clip: Clip | null;
  /** Id of the hit that is open in its sheet. */
  hit: number | null;
  /** The pads are the steps of a bar of the chosen lane, or null while they are pads; `page` counts sixteens of steps. */
  padSteps: { page: number } | null;
}

const initialState: StepsView = {
  step: '1/16',
  span: null,
  pad: 0,
  note: null,
  cursor: null,
  kind: 'velocity',
  shape: 'free',
  control: null,
  selecting: false,
  selected: [],
  clip: null,
  hit: null,
  padSteps: null,
};

const slice = createSlice({
  name: 'steps',
  initialState,
  reducers: {
    stepSizeSet(view, { payload }: PayloadAction<GridName>) {
      view.step = payload;
    },
    spanSet(view, { payload }: PayloadAction<number>) {
      view.span = payload;
    },
    laneChosen(view, { payload }: PayloadAction<ChosenLane>) {
      view.pad = payload.pad;
      view.note = payload.note ?? null;
    },
    cursorMoved(view, { payload }: PayloadAction<Cursor>) {
      view.cursor = payload;
      view.pad = payload.pad;
      view.note = payload.note ?? null;
    },
    kindShown(view, { payload }: PayloadAction<ValueKind>) {
      view.kind = payload;
    },
    shapeChosen(view, { payload }: PayloadAction<StrokeShape>) {
      view.shape = payload;
    },
    controlShown(view, { payload }: PayloadAction<Control | MovedInMix | null>) {
      view.control = payload;
    },
    /** Leaving select mode lets go of what was chosen. */
    selectingToggled(view) {
      view.selecting = !view.selecting;
      if (!view.selecting) view.selected = [];
    },
    hitsSelected(view, { payload }: PayloadAction<number[]>) {
      view.selected = payload;
    },
    hitToggled(view, { payload }: PayloadAction<number>) {
      const { selected } = view;
      view.selected = selected.includes(payload) ? selected.filter((id) => id !== payload) : [...selected, payload];
    },
    clipTaken(view, { payload }: PayloadAction<Clip>) {
      view.clip = payload;
    },
    hitOpened(view, { payload }: PayloadAction<number>) {
      view.hit = payload;
    },
    padStepsToggled(view) {
      view.padSteps = view.padSteps ? null : { page: 0 };
    },
    padPageTurned(view, { payload }: PayloadAction<number>) {
      if (view.padSteps) view.padSteps.page = payload;
    },
  },
});

export const {
  stepSizeSet,
  spanSet,
  laneChosen,
  cursorMoved,
  kindShown,
  shapeChosen,
  controlShown,
  selectingToggled,
  hitsSelected,
  hitToggled,
  clipTaken,
  hitOpened,
  padStepsToggled,
  padPageTurned,
} = slice.actions;
export const stepsReducer = slice.reducer;

export const selectSteps = (state: RootState) => state.steps;

/** Step size, ticks. */
export const selectStepTicks = (state: RootState) => gridTicks(state.steps.step);

/** Ids of the chosen hits that are in the pattern. */
export const selectSelected = createSelector(
  [selectPattern, (state: RootState) => state.steps.selected],
  (pattern, selected): number[] => {
    if (!pattern || selected.length === 0) return [];
    const there = new Set(pattern.hits.map((hit) => hit.id));
    return selected.filter((id) => there.has(id));
  },
);

/** By what notes go from lane to lane: steps of their scale, or semitones while each has a lane. */
export const selectNoteStep = (state: RootState): NoteStep => (state.settings.unfolded.notes ? 'semitone' : 'step');

/** The key of the lane touched last. */
export const selectLane = (state: RootState) => {
  const { pad, note } = state.steps;
  return laneKey(selectTrack(state), { pad, ...(note !== null && { note }) });
};

/** What an edit is for: the chosen hits, or else all of the lane touched last. */
export const selectTargets = createSelector(
  [selectPattern, selectSelected, selectTrack, selectLane],
  (pattern, selected, track, lane): number[] =>
    selected.length > 0 || !pattern ? selected : hitsInLoop(pattern, inLane(track, lane)),
);

/** What a typed value is for: the chosen hits, or else those at the cursor if it is in the lane, or else all of the lane. */
export const selectValueTargets = createSelector(
  [selectPattern, selectSelected, selectTargets, selectTrack, selectLane, ({ steps }: RootState) => steps.cursor, selectStepTicks], // prettier-ignore
  (pattern, selected, targets, track, lane, cursor, step): number[] => {
    if (selected.length > 0 || !pattern || !cursor || laneKey(track, cursor) !== lane) return targets;
    const there = hitsInStep(pattern, { lane: inLane(track, lane), tick: cursor.tick, length: step });
    return there.length > 0 ? there.map((hit) => hit.id) : targets;
  },
);
