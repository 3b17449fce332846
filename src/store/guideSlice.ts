import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** What the guide leads through, in the order in which a beat is made. */
export const GUIDE_STEPS = ['tempo', 'click', 'countIn', 'kick', 'snare', 'hats', 'tidy', 'save'] as const;
export type GuideStep = (typeof GUIDE_STEPS)[number];

/** Where the guide stands, or null while nobody is led. */
interface Guide {
  step: GuideStep | null;
  /** What was set when it began: what differs from it, the learner has chosen. */
  began: { tempo: number; countIn: number };
}

const initialState: Guide = { step: null, began: { tempo: 0, countIn: 0 } };

const slice = createSlice({
  name: 'guide',
  initialState,
  reducers: {
    guideBegun(guide, { payload }: PayloadAction<Guide['began']>) {
      guide.step = GUIDE_STEPS[0];
      guide.began = payload;
    },
    /** A step is done or passed over; nothing happens when the guide has gone on from it already. */
    guideWentOn(guide, { payload }: PayloadAction<GuideStep>) {
      if (guide.step === payload) guide.step = GUIDE_STEPS[GUIDE_STEPS.indexOf(payload) + 1] ?? null;
    },
    guideLeft(guide) {
      guide.step = null;
    },
  },
});

export const { guideBegun, guideWentOn, guideLeft } = slice.actions;
export const guideReducer = slice.reducer;
