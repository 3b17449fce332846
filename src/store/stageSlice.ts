import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { demoSet } from '@/core/document/demo';
import type { BeatSet } from '@/core/document/set';
import { trackStage, WAITING_STAGE, type Stage, type TrackStage } from '@/core/document/stage';
import { trackAdded, trackDuplicated } from '@/store/tracksSlice';
import { piecesLaid } from '@/store/soundsSlice';
import { setLoaded, setOpened } from '@/store/openSlice';

/** What the engine tells of one track. */
export interface StageReport extends Partial<TrackStage> {
  track: number;
}

/** What is being performed. The engine tells most of it; undo never touches it. */
const slice = createSlice({
  name: 'stage',
  initialState: demoSet().stage,
  reducers: {
    /** The engine tells what plays on tracks, and which are muted and soloed. */
    stageReported(stage, { payload }: PayloadAction<readonly StageReport[]>) {
      for (const { track, ...told } of payload) stage.tracks[track] = { ...trackStage(stage, track), ...told };
    },
    /** A slot is opened: it is the one that its track is on. */
    slotOpened(stage, { payload: { track, slot } }: PayloadAction<{ track: number; slot: number }>) {
      const now = trackStage(stage, track);
      if (slot !== now.slot) stage.tracks[track] = { ...now, slot, back: now.slot };
    },
    /** Pads and Steps turn to a track. */
    trackShown(stage, { payload }: PayloadAction<number>) {
      stage.shown = payload;
    },
  },
  extraReducers: (builder) =>
    builder
      .addCase(setLoaded, (_, { payload }) => payload.stage)
      .addCase(setOpened, (_, { payload }) => payload.stage)
      .addCase(trackAdded, (stage, { payload }) => begun(stage, payload.id))
      .addCase(trackDuplicated, (stage, { payload }) => begun(stage, payload.as))
      .addCase(piecesLaid, (stage, { payload: { added } }) => {
        // The last one that is begun is shown: the first of them.
        for (const { id } of [...added].reverse()) begun(stage, id);
      }),
});

/** A new track waits, and is shown. */
function begun(stage: Stage, track: number): void {
  stage.tracks[track] = WAITING_STAGE;
  stage.shown = track;
}

/**
 * The stage after the document has changed: where a pattern that a track is on went to another slot, the track follows it, so
 * that what is being performed goes on; where an undo took it away, the track is back on the one from which it was opened; where
 * the slot itself is gone, on the first; a track that is gone is not shown.
 * @param isUndo the change was an undo or redo, and no edit that may empty a slot on purpose
 */
export function followed(stage: Stage, before: BeatSet, after: BeatSet, isUndo: boolean): Stage {
  if (before === after && after.tracks[stage.shown]) return stage;
  const tracks = { ...stage.tracks };
  let moved = false;
  for (const id of after.order) {
    const [old, now] = [before.tracks[id]?.patterns, after.tracks[id]!.patterns];
    const { slot, back } = trackStage(stage, id);
    if (slot >= now.length) {
      tracks[id] = { ...trackStage(stage, id), slot: 0 };
      moved = true;
      continue;
    }
    const pattern = old?.[slot];
    if (!old || old === now || !pattern || now[slot] === pattern) continue;
    const elsewhere = now.indexOf(pattern);
    const isGone = isUndo && elsewhere < 0 && !now[slot];
    const to = isGone && back !== undefined && now[back] ? back : elsewhere;
    if (to < 0) continue;
    tracks[id] = { ...trackStage(stage, id), slot: to };
    moved = true;
  }
  const at = Math.max(0, before.order.indexOf(stage.shown) - 1);
  const shown = after.tracks[stage.shown] ? stage.shown : after.order[Math.min(at, after.order.length - 1)]!;
  if (!moved && shown === stage.shown) return stage;
  return { shown, tracks };
}

export const { stageReported, slotOpened, trackShown } = slice.actions;
export const stageReducer = slice.reducer;
