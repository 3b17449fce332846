import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export type AudioState = 'starting' | 'locked' | 'running' | 'failed';

export interface Notice {
  id: number;
  text: string;
  /** Offer to undo what the notice tells of. */
  undo?: boolean;
}

/** What is true only while the page is open. */
interface Session {
  audio: AudioState;
  /** What the engine reports of its transport. */
  playing: boolean;
  recording: boolean;
  /** The stopped song stands away from its top. */
  awayFromTop: boolean;
  /** The newest is shown; dismissed, it uncovers the one before. */
  notices: Notice[];
  /** Share of a running export that is done, or null. */
  exporting: number | null;
}

const initialState: Session = {
  audio: 'starting',
  playing: false,
  recording: false,
  awayFromTop: false,
  notices: [],
  exporting: null,
};

let notices = 0;

const slice = createSlice({
  name: 'session',
  initialState,
  reducers: {
    audioChanged(session, { payload }: PayloadAction<AudioState>) {
      session.audio = payload;
    },
    transportReported(
      session,
      { payload }: PayloadAction<{ playing: boolean; recording: boolean; awayFromTop: boolean }>,
    ) {
      Object.assign(session, payload);
    },
    noticed: {
      reducer(session, { payload }: PayloadAction<Notice>) {
        session.notices.push(payload);
      },
      prepare: (text: string, undo = false) => ({ payload: { id: ++notices, text, undo } }),
    },
    noticeDismissed(session, { payload }: PayloadAction<number>) {
      session.notices = session.notices.filter((n) => n.id !== payload);
    },
    exportProgressed(session, { payload }: PayloadAction<number | null>) {
      session.exporting = payload;
    },
  },
});

export const { audioChanged, transportReported, noticed, noticeDismissed, exportProgressed } = slice.actions;
export const sessionReducer = slice.reducer;
