import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { demoSet } from '@/core/document/demo';
import type { Launching } from '@/core/document/launching';
import { MAX_SECTIONS } from '@/core/document/limits';
import type { Section } from '@/core/document/section';
import type { Chain } from '@/core/document/track';
import { undoStep } from './undoable';

type WithChain = { track: number; chain: Chain | null };
type Moved = { id: number; by: number };

/** What is launched together or in a row, and how. */
const slice = createSlice({
  name: 'sections',
  initialState: demoSet().set,
  reducers: {
    chainSet: {
      reducer(set, { payload }: PayloadAction<WithChain>) {
        const track = set.tracks[payload.track];
        if (!track) return;
        if (payload.chain?.links.length) track.chain = payload.chain;
        else delete track.chain;
      },
      prepare: undoStep<WithChain>('chain'),
    },
    launchingSet(set, { payload }: PayloadAction<Partial<Launching>>) {
      Object.assign(set.launching, payload);
    },
    sectionStored: {
      reducer(set, { payload }: PayloadAction<Section>) {
        const at = set.sections.findIndex((section) => section.id === payload.id);
        if (at >= 0) set.sections[at] = payload;
        else if (set.sections.length < MAX_SECTIONS) set.sections.push(payload);
      },
      prepare: undoStep<Section>('section'),
    },
    sectionMoved: {
      reducer(set, { payload }: PayloadAction<Moved>) {
        const at = set.sections.findIndex((section) => section.id === payload.id);
        const to = at + payload.by;
        if (at < 0 || to < 0 || to >= set.sections.length) return;
        const [section] = set.sections.splice(at, 1);
        set.sections.splice(to, 0, section!);
      },
      prepare: undoStep<Moved>('order of sections'),
    },
    /** Those that went on to it go on for good. */
    sectionRemoved: {
      reducer(set, { payload }: PayloadAction<number>) {
        set.sections = set.sections.filter((section) => section.id !== payload);
        for (const section of set.sections) if (section.then === payload) delete section.then;
      },
      prepare: undoStep<number>('removing a section'),
    },
  },
});

export const { chainSet, launchingSet, sectionStored, sectionMoved, sectionRemoved } = slice.actions;
export const sectionsReducer = slice.reducer;
