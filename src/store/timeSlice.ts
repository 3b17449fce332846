import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { demoSet } from '@/core/document/demo';
import { MAX_TICKS, SHORTEST_LOOP } from '@/core/document/limits';
import type { Metronome } from '@/core/document/metronome';
import { tracksOf, type CountIn } from '@/core/document/set';
import type { GridName } from '@/core/quantize/grid';
import { clampTempo } from '@/core/time/tempo';
import { ticksPerBar, type Meter } from '@/core/time/ticks';
import { undoStep } from './undoable';

/**
 * The set's time: tempo, meter, click and input quantize. But for the meter none of it is undone: it has controls in plain
 * sight, and an undo that reaches for a bad take must not move them.
 */
const slice = createSlice({
  name: 'time',
  initialState: demoSet().set,
  reducers: {
    tempoSet(set, { payload }: PayloadAction<number>) {
      set.tempo = clampTempo(payload);
    },
    metronomeToggled(set) {
      set.metronome.on = !set.metronome.on;
    },
    metronomeSet(set, { payload }: PayloadAction<Partial<Metronome>>) {
      Object.assign(set.metronome, payload);
    },
    /** Every pattern keeps its number of bars; hits beyond a shorter bar's loop wait on the tape. */
    meterSet: {
      reducer(set, { payload }: PayloadAction<Meter>) {
        const [old, bar] = [ticksPerBar(set.meter), ticksPerBar(payload)];
        set.meter = payload;
        const scaled = (length: number) =>
          Math.min(MAX_TICKS, Math.max(SHORTEST_LOOP, Math.round((length / old) * bar)));
        for (const track of tracksOf(set)) {
          for (const pattern of track.patterns) if (pattern) pattern.length = scaled(pattern.length);
        }
      },
      prepare: undoStep<Meter>('meter'),
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
  },
});

export const { tempoSet, metronomeToggled, metronomeSet, meterSet, countInSet, inputQuantizeToggled, gridSet } =
  slice.actions;
export const timeReducer = slice.reducer;
