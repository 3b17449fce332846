import { createSlice, type Action, type PayloadAction } from '@reduxjs/toolkit';
import { loopTicks } from '@/core/edit/loop';
import { laneCleared, painted, rotated, withoutHits, withVelocities } from '@/core/edit/steps';
import { crop, doubled, withoutTake } from '@/core/edit/takes';
import { treated, withoutNarrower, type Scope, type Treatment } from '@/core/edit/treat';
import { demoSet, emptyPattern } from '@/core/model/create';
import {
  currentPattern,
  type BeatSet,
  type CountIn,
  type Hit,
  type Metronome,
  type Pattern,
  type Track,
} from '@/core/model/set';
import { clampTempo } from '@/core/time/tempo';
import { ticksPerBar, type Meter } from '@/core/time/ticks';
import type { GridName } from '@/core/timing/grid';
import { undoable, type StepOf } from './undoable';

interface RecordedHit {
  track: number;
  hit: Hit;
  /** Names the pass of the recording: all hits of one pass are undone together. */
  take: string;
}

interface OfTrack {
  track: number;
}

/** Puts a changed pattern in the place of the current one. */
function change(set: BeatSet, index: number, edit: (pattern: Pattern) => Pattern): void {
  const track = set.tracks[index];
  const pattern = track && currentPattern(track);
  if (pattern) track.patterns[track.current] = edit(pattern);
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
    metronomeSet(set, { payload }: PayloadAction<Partial<Metronome>>) {
      Object.assign(set.metronome, payload);
    },
    /** Every pattern keeps its number of bars; hits beyond a shorter bar's loop wait on the tape. */
    meterSet(set, { payload }: PayloadAction<Meter>) {
      const [old, bar] = [ticksPerBar(set.meter), ticksPerBar(payload)];
      set.meter = payload;
      for (const track of set.tracks) {
        for (const pattern of track.patterns) if (pattern) pattern.length = Math.round((pattern.length / old) * bar);
      }
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
    treatmentSet(set, { payload }: PayloadAction<OfTrack & { scope: Scope; treatment: Treatment; gesture?: string }>) {
      change(set, payload.track, (pattern) => treated(pattern, payload.scope, payload.treatment));
    },
    /** The narrower treatments below a scope give way to its own. */
    narrowerCleared(set, { payload }: PayloadAction<OfTrack & { scope: Scope; kind: 'feel' | 'loudness' }>) {
      change(set, payload.track, (pattern) => withoutNarrower(pattern, payload.scope, payload.kind));
    },
    takeDropped(set, { payload }: PayloadAction<OfTrack & { take: number }>) {
      change(set, payload.track, (pattern) => withoutTake(pattern, payload.take));
    },
    cropped(set, { payload }: PayloadAction<OfTrack & { start: number; length: number }>) {
      change(set, payload.track, (pattern) => crop(pattern, payload.start, payload.length));
    },
    /** `firstId`: ids from there, every second number, are free. */
    loopRepeated(set, { payload }: PayloadAction<OfTrack & { firstId: number }>) {
      let id = payload.firstId - 2;
      change(set, payload.track, (pattern) => doubled(pattern, () => (id += 2)));
    },
    /** What was just played becomes a pattern, in the next free slot, and is the current one; freely played, it brings its tempo. */
    patternKept(set, { payload }: PayloadAction<OfTrack & { pattern: Pattern; tempo?: number }>) {
      const track = set.tracks[payload.track];
      if (!track) return;
      const slot = freeSlot(track);
      track.patterns[slot] = payload.pattern;
      track.current = slot;
      if (payload.tempo !== undefined) set.tempo = clampTempo(payload.tempo);
    },
    /** An empty pattern of one bar in the next free slot becomes the current one. */
    patternAdded(set, { payload }: PayloadAction<OfTrack>) {
      const track = set.tracks[payload.track];
      if (!track) return;
      const slot = freeSlot(track);
      track.patterns[slot] ??= emptyPattern(`Pattern ${slot + 1}`, set.meter);
      track.current = slot;
    },
    patternChosen(set, { payload }: PayloadAction<OfTrack & { slot: number }>) {
      const track = set.tracks[payload.track];
      if (track?.patterns[payload.slot]) track.current = payload.slot;
    },
    /** Steps are filled with hits of a pad; `gesture` makes one swipe one step of undo. */
    stepsPainted(set, { payload }: PayloadAction<OfTrack & { hits: Hit[]; gesture: string }>) {
      change(set, payload.track, (pattern) => painted(pattern, payload.hits));
    },
    stepsErased(set, { payload }: PayloadAction<OfTrack & { ids: number[]; gesture: string }>) {
      change(set, payload.track, (pattern) => withoutHits(pattern, payload.ids));
    },
    velocitiesSet(
      set,
      { payload }: PayloadAction<OfTrack & { velocities: [id: number, velocity: number][]; gesture: string }>,
    ) {
      change(set, payload.track, (pattern) => withVelocities(pattern, new Map(payload.velocities)));
    },
    laneRotated(set, { payload }: PayloadAction<OfTrack & { pad: number; ticks: number }>) {
      change(set, payload.track, (pattern) => rotated(pattern, payload.pad, payload.ticks));
    },
    laneEmptied(set, { payload }: PayloadAction<OfTrack & { pad: number }>) {
      change(set, payload.track, (pattern) => laneCleared(pattern, payload.pad));
    },
    stepEntered(set, { payload }: PayloadAction<OfTrack & { hit: Hit }>) {
      change(set, payload.track, (pattern) => ({ ...pattern, hits: [...pattern.hits, payload.hit] }));
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
  metronomeSet,
  meterSet,
  countInSet,
  inputQuantizeToggled,
  gridSet,
  loopBarsSet,
  patternCleared,
  treatmentSet,
  narrowerCleared,
  takeDropped,
  cropped,
  loopRepeated,
  patternKept,
  patternAdded,
  patternChosen,
  stepsPainted,
  stepsErased,
  velocitiesSet,
  laneRotated,
  laneEmptied,
  stepEntered,
  hitRecorded,
  hitReleased,
} = slice.actions;

/** The current slot if its pattern is empty, else the next one that is; a new one when all are taken. */
export function freeSlot(track: Track): number {
  const isFree = (slot: number) => (track.patterns[slot]?.hits.length ?? 0) === 0;
  if (isFree(track.current)) return track.current;
  const slots = track.patterns.length;
  for (let i = 1; i < slots; i++) if (isFree((track.current + i) % slots)) return (track.current + i) % slots;
  return slots;
}

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
  if (treatmentSet.match(action)) {
    const { treatment, gesture } = action.payload;
    return { label: 'feel' in treatment ? 'Feel' : 'loudness', ...(gesture && { group: gesture }) };
  }
  if (narrowerCleared.match(action)) return { label: action.payload.kind === 'feel' ? 'Feel' : 'loudness' };
  if (takeDropped.match(action)) return { label: 'dropping a take' };
  if (cropped.match(action)) return { label: 'crop' };
  if (loopRepeated.match(action)) return { label: 'doubling' };
  if (patternAdded.match(action)) return { label: 'new pattern' };
  if (patternKept.match(action)) return { label: 'Keep' };
  if (stepsPainted.match(action)) return { label: 'painting', group: action.payload.gesture };
  if (stepsErased.match(action)) return { label: 'erasing', group: action.payload.gesture };
  if (velocitiesSet.match(action)) return { label: 'velocity', group: action.payload.gesture };
  if (laneRotated.match(action)) return { label: 'rotation' };
  if (laneEmptied.match(action)) return { label: 'clear lane' };
  if (stepEntered.match(action)) return { label: 'step' };
  if (meterSet.match(action)) return { label: 'meter' };
  return null;
};

export const setReducer = undoable(slice.reducer, stepOf);
