import { createSlice, original, type Action, type PayloadAction } from '@reduxjs/toolkit';
import { edited as editedPattern, EDIT_LABELS, type Edit } from '@/core/edit/edit';
import { loopTicks } from '@/core/edit/loop';
import { copyOf, freeSlot, newPattern, SLOTS_ADDED } from '@/core/edit/slots';
import { withoutTake } from '@/core/edit/takes';
import { treated, withoutNarrower, type Scope, type Treatment } from '@/core/edit/treat';
import { demoSet } from '@/core/model/create';
import {
  currentPattern,
  idsFrom,
  MAX_NAME,
  MAX_SLOTS,
  type BeatSet,
  type CountIn,
  type Hit,
  type Metronome,
  type Pattern,
  type PatternPlace,
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

interface OfSlot extends OfTrack {
  slot: number;
}

function toggled(pads: readonly number[] = [], pad: number): number[] {
  return pads.includes(pad) ? pads.filter((p) => p !== pad) : [...pads, pad];
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
    /** An edit by hand; `gesture` makes one swipe one step of undo. */
    edited(set, { payload }: PayloadAction<OfTrack & { edit: Edit; gesture?: string }>) {
      change(set, payload.track, (pattern) => editedPattern(original(pattern) ?? pattern, payload.edit));
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
    /** A slot becomes the current one; an empty one gets an empty pattern of one bar. */
    slotOpened(set, { payload }: PayloadAction<OfSlot>) {
      const track = set.tracks[payload.track];
      if (!track || payload.slot >= track.patterns.length) return;
      track.patterns[payload.slot] ??= newPattern(payload.slot, set.meter);
      track.current = payload.slot;
    },
    /**
     * A pattern is copied into another slot, in the place of what is there; ids from `firstId`, every second number, are free.
     * `open` makes it the current one.
     */
    slotCopied(set, { payload }: PayloadAction<OfSlot & { to: number; firstId: number; open: boolean }>) {
      const track = set.tracks[payload.track];
      const pattern = track?.patterns[payload.slot];
      if (!track || !pattern || payload.to >= MAX_SLOTS) return;
      track.patterns[payload.to] = copyOf(pattern, track.patterns, idsFrom(payload.firstId));
      if (payload.open) track.current = payload.to;
    },
    /** Two slots change places; the current pattern stays the current one. */
    slotsSwapped(set, { payload }: PayloadAction<OfSlot & { to: number }>) {
      const track = set.tracks[payload.track];
      if (!track) return;
      const { slot, to } = payload;
      [track.patterns[slot], track.patterns[to]] = [track.patterns[to] ?? null, track.patterns[slot] ?? null];
      if (track.current === slot) track.current = to;
      else if (track.current === to) track.current = slot;
    },
    slotRenamed(set, { payload }: PayloadAction<OfSlot & { name: string }>) {
      const pattern = set.tracks[payload.track]?.patterns[payload.slot];
      if (pattern && payload.name.trim() !== '') pattern.name = payload.name.trim().slice(0, MAX_NAME);
    },
    slotColoured(set, { payload }: PayloadAction<OfSlot & { colour: number }>) {
      const pattern = set.tracks[payload.track]?.patterns[payload.slot];
      if (pattern) pattern.colour = payload.colour;
    },
    /** A slot is emptied; the current one gets an empty pattern, so that there is one to play into. */
    slotCleared(set, { payload }: PayloadAction<OfSlot>) {
      const track = set.tracks[payload.track];
      if (!track?.patterns[payload.slot]) return;
      track.patterns[payload.slot] = payload.slot === track.current ? newPattern(payload.slot, set.meter) : null;
    },
    slotsAdded(set, { payload }: PayloadAction<OfTrack>) {
      const patterns = set.tracks[payload.track]?.patterns;
      for (let i = 0; patterns && i < SLOTS_ADDED && patterns.length < MAX_SLOTS; i++) patterns.push(null);
    },
    padMuteToggled(set, { payload }: PayloadAction<OfTrack & { pad: number }>) {
      const track = set.tracks[payload.track];
      if (track) track.mutedPads = toggled(track.mutedPads, payload.pad);
    },
    padSoloToggled(set, { payload }: PayloadAction<OfTrack & { pad: number }>) {
      const track = set.tracks[payload.track];
      if (track) track.soloPads = toggled(track.soloPads, payload.pad);
    },
    traceSet(set, { payload }: PayloadAction<PatternPlace | null>) {
      if (payload) set.trace = payload;
      else delete set.trace;
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
  edited,
  patternKept,
  slotOpened,
  slotCopied,
  slotsSwapped,
  slotRenamed,
  slotColoured,
  slotCleared,
  slotsAdded,
  padMuteToggled,
  padSoloToggled,
  traceSet,
  stepEntered,
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
  if (treatmentSet.match(action)) {
    const { treatment, gesture } = action.payload;
    return { label: 'feel' in treatment ? 'Feel' : 'loudness', ...(gesture && { group: gesture }) };
  }
  if (narrowerCleared.match(action)) return { label: action.payload.kind === 'feel' ? 'Feel' : 'loudness' };
  if (takeDropped.match(action)) return { label: 'dropping a take' };
  if (edited.match(action)) {
    const { edit, gesture } = action.payload;
    return { label: edit.kind === 'values' ? edit.of : EDIT_LABELS[edit.kind], ...(gesture && { group: gesture }) };
  }
  if (patternKept.match(action)) return { label: 'Keep' };
  if (slotCopied.match(action)) return { label: action.payload.open ? 'variation' : 'copy' };
  if (slotsSwapped.match(action)) return { label: 'swap' };
  if (slotRenamed.match(action)) return { label: 'name' };
  if (slotColoured.match(action)) return { label: 'colour' };
  if (slotCleared.match(action)) return { label: 'clear slot' };
  if (stepEntered.match(action)) return { label: 'step' };
  if (meterSet.match(action)) return { label: 'meter' };
  return null;
};

export const setReducer = undoable(slice.reducer, stepOf);
