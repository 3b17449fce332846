import { DROPS } from '@/core/document/launching';
import { lanesOf } from '@/core/document/lanes';
import { CONTROL_RANGES, type ControlRange, type MovedPad } from '@/core/document/moves';
import type { Target } from '@/core/midi/target';
import { INPUT_GRIDS, REPEAT_RATES, type GridName } from '@/core/quantize/grid';
import { repeatRange } from '@/core/sequence/repeatRates';
import { MAX_TEMPO } from '@/core/time/ticks';
import { launchingSet } from '@/store/sectionsSlice';
import { selectSet, selectTrack } from '@/store/selectors';
import { repeatRateSet } from '@/store/settingsSlice';
import type { RootState } from '@/store/store';
import { gridSet, metronomeSet, tempoSet } from '@/store/timeSlice';
import { channelLevelSet } from '@/store/mixSlice';
import { DROP_NAMES } from '../launches';
import { padOf, trackOf, type Desk } from './desk';

/** A knob of 128 places moves the tempo by whole BPM, from here up: what sets are made at lies within (common practice). */
const SLOWEST = 60;
const FASTEST = Math.min(MAX_TEMPO, SLOWEST + 127);

/** A function with a range: where it stands, 0..1, and what puts it elsewhere. */
export interface ValueFunction {
  read: (state: RootState, target: Target, desk: Desk) => number;
  write: (place: number, target: Target, desk: Desk, timeStamp: number) => void;
  /** The value at a place, in words. */
  words: (place: number, target: Target, state: RootState) => string;
}

const shareOf = <T>(list: readonly T[], item: T) => Math.max(0, list.indexOf(item)) / (list.length - 1);
const itemAt = <T>(list: readonly T[], place: number) => list[Math.round(place * (list.length - 1))]!;

const valueAt = ({ min, max, stepped }: ControlRange, place: number) => {
  const value = min + place * (max - min);
  return stepped ? Math.round(value) : value;
};

/** The rates that suit what lies on a pad, slowest first. */
function ratesOf(state: RootState, target: Target): readonly GridName[] {
  if (target.pad === undefined) return REPEAT_RATES;
  const [slowest, fastest] = repeatRange(lanesOf(selectTrack(state))[target.pad]!);
  return REPEAT_RATES.slice(slowest, fastest + 1);
}

/** What a target turns. */
function movedBy(state: RootState, target: Target): MovedPad {
  return { pad: padOf(state, target), control: target.control! };
}

/** The functions that knobs and faders work. */
export const VALUE_FUNCTIONS: Readonly<
  Record<'turn' | 'rate' | 'level' | 'tempo' | 'clickLevel' | 'grid' | 'dropRange', ValueFunction>
> = {
  // prettier-ignore
  turn: {
    read: (state, target, { instrument }) => {
      const { min, max, neutral } = CONTROL_RANGES[target.control!];
      const held = instrument.rides.valueOf(trackOf(state, target) ?? 0, movedBy(state, target));
      return ((held ?? neutral) - min) / (max - min);
    },
    write: (place, target, { store, instrument }, timeStamp) => {
      const state = store.getState();
      const track = trackOf(state, target);
      const value = valueAt(CONTROL_RANGES[target.control!], place);
      if (track !== null) instrument.rides.ride(track, movedBy(state, target), value, timeStamp, 'knob');
    },
    words: (place, target) => {
      const value = valueAt(CONTROL_RANGES[target.control!], place);
      return target.control === 'rate' ? REPEAT_RATES[value]! : value.toFixed(2);
    },
  },
  rate: {
    read: (state, target, { instrument }) => {
      const { repeatRate } = state.settings;
      const own =
        target.pad === undefined
          ? undefined
          : instrument.rides.valueOf(state.stage.shown, { pad: target.pad, control: 'rate' });
      return shareOf(ratesOf(state, target), own === undefined ? repeatRate : REPEAT_RATES[own]!);
    },
    write: (place, target, { store, instrument }, timeStamp) => {
      const state = store.getState();
      const rate = itemAt(ratesOf(state, target), place);
      if (target.pad === undefined) {
        if (rate !== state.settings.repeatRate) store.dispatch(repeatRateSet(rate));
      } else {
        const moved = { pad: target.pad, control: 'rate' } as const;
        instrument.rides.ride(state.stage.shown, moved, REPEAT_RATES.indexOf(rate), timeStamp, 'knob');
      }
    },
    words: (place, target, state) => itemAt(ratesOf(state, target), place),
  },
  level: {
    read: (state, target) => selectSet(state).tracks[trackOf(state, target) ?? -1]?.level ?? 0,
    write: (place, target, { store }) => {
      const track = trackOf(store.getState(), target);
      if (track !== null) store.dispatch(channelLevelSet({ channel: track, level: place }));
    },
    words: percent,
  },
  tempo: {
    read: (state) => Math.min(1, Math.max(0, (selectSet(state).tempo - SLOWEST) / (FASTEST - SLOWEST))),
    write: (place, _, { store }) => void store.dispatch(tempoSet(tempoAt(place))),
    words: (place) => `${tempoAt(place)} BPM`,
  },
  clickLevel: {
    read: (state) => selectSet(state).metronome.level,
    write: (place, _, { store }) => void store.dispatch(metronomeSet({ level: place })),
    words: percent,
  },
  dropRange: {
    read: (state) => shareOf(DROPS, selectSet(state).launching.dropOn),
    write: (place, _, { store }) => {
      const dropOn = itemAt(DROPS, place);
      if (dropOn !== selectSet(store.getState()).launching.dropOn) store.dispatch(launchingSet({ dropOn }));
    },
    words: (place) => DROP_NAMES[itemAt(DROPS, place)],
  },
  grid: {
    read: (state) => shareOf(INPUT_GRIDS as readonly GridName[], selectSet(state).inputQuantize.grid),
    write: (place, _, { store }) => {
      const grid = itemAt(INPUT_GRIDS, place);
      if (grid !== selectSet(store.getState()).inputQuantize.grid) store.dispatch(gridSet(grid));
    },
    words: (place) => itemAt(INPUT_GRIDS, place),
  },
};

function percent(place: number): string {
  return `${Math.round(place * 100)} %`;
}

/** To a tenth of a BPM: a knob of 128 places stands on whole ones. */
function tempoAt(place: number): number {
  return Math.round((SLOWEST + place * (FASTEST - SLOWEST)) * 10) / 10;
}
