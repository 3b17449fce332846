import { createSlice, type Action, type PayloadAction } from '@reduxjs/toolkit';
import { loopTicks } from '@/core/edit/loop';
import { demoSet } from '@/core/model/create';
import { currentPattern, type BeatSet, type CountIn, type Hit } from '@/core/model/set';
import { clampTempo } from '@/core/time/tempo';
import type { GridName } from '@/core/timing/grid';
import { undoable, type StepOf } from './undoable';

interface RecordedHit {
  track: number;
  hit: Hit;
  /** Names the pass of the recording: all hits of one pass are undone together. */
  take: string;
}

const slice = createSlice({
  name: 'set',
  initialState: demoSet(),
  reducers: {
    /** A set comes from storage: the history begins here. */
    setLoaded: (_, { payload }: PayloadAction<BeatSet>) => payload,
    /** Another set takes this one's place; undo brings it back. */
    setOpened: (_, { payload }: PayloadAction<BeatSet>) => payload,
    tempoSet(set, { payload }: PayloadAction<number>) {
      set.tempo = clampTempo(payload);
    },
    metronomeToggled(set) {
      set.metronome.on = !set.metronome.on;
    },
    metronomeLevelSet(set, { payload }: PayloadAction<number>) {
      set.metronome.level = payload;
    },
    countInSet(set, { payload }: PayloadAction<CountIn>) {
      set.countIn = payload;
    },
    inputQuantizeToggled(set) {
      set.inputQuantize.on = !set.inputQuantize.on;
    },
    gridSet(set, { payload }: PayloadAction<GridName>) {
      set.inputQuantize.grid = payload;
    },
    loopBarsSet(set, { payload }: PayloadAction<{ track: number; bars: number }>) {
      const pattern = currentPattern(set.tracks[payload.track]!);
      if (pattern) pattern.length = loopTicks(payload.bars, set.meter);
    },
    patternCleared(set, { payload }: PayloadAction<{ track: number }>) {
      const pattern = currentPattern(set.tracks[payload.track]!);
      if (pattern) pattern.hits = [];
    },
    hitRecorded(set, { payload }: PayloadAction<RecordedHit>) {
      const track = set.tracks[payload.track];
      if (track) currentPattern(track)?.hits.push(payload.hit);
    },
    hitReleased(set, { payload }: PayloadAction<{ track: number; id: number; length: number }>) {
      const track = set.tracks[payload.track];
      const hit = track && currentPattern(track)?.hits.findLast((h) => h.id === payload.id);
      if (hit) hit.length = payload.length;
    },
  },
});

export const {
  setLoaded,
  setOpened,
  tempoSet,
  metronomeToggled,
  metronomeLevelSet,
  countInSet,
  inputQuantizeToggled,
  gridSet,
  loopBarsSet,
  patternCleared,
  hitRecorded,
  hitReleased,
} = slice.actions;

/**
 * What can be undone: takes and edits of the music. Tempo, click and quantize have their own controls in plain sight,
 * and an undo that reaches for a bad take must not move them.
 */
const stepOf: StepOf = (action: Action) => {
  if (setLoaded.match(action)) return 'reset';
  if (hitRecorded.match(action)) return { label: 'take', group: action.payload.take };
  if (hitReleased.match(action)) return 'amend';
  if (loopBarsSet.match(action)) return { label: 'loop length' };
  if (patternCleared.match(action)) return { label: 'clear' };
  if (setOpened.match(action)) return { label: 'change of set' };
  return null;
};

export const setReducer = undoable(slice.reducer, stepOf);
