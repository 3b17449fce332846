import { createSlice, original, type Action, type PayloadAction } from '@reduxjs/toolkit';
import { edited as editedPattern, EDIT_LABELS, type Edit } from '@/core/edit/edit';
import { loopTicks } from '@/core/edit/loopTicks';
import { copyOf, freeSlot, newPattern, nextName, SLOTS_ADDED } from '@/core/edit/slots';
import { withoutTake } from '@/core/edit/takes';
import { treated, withoutNarrower, type Scope, type Treatment } from '@/core/edit/treat';
import { demoSet } from '@/core/document/create';
import {
  currentPattern,
  idsFrom,
  MAX_NAME,
  MAX_SECTIONS,
  MAX_SLOTS,
  MAX_TRACKS,
  shownTrack,
  type BeatSet,
  type Chain,
  type CountIn,
  type Hit,
  type Launching,
  type Metronome,
  type Pattern,
  type PatternPlace,
  type Section,
  type Track,
} from '@/core/document/set';
import { MOST_OCTAVES, relaid, type Tones } from '@/core/document/tones';
import { clampTempo } from '@/core/time/tempo';
import { ticksPerBar, type Meter } from '@/core/time/ticks';
import type { GridName } from '@/core/quantize/grid';
import { undoable, type StepOf } from './undoable';

/** Names a track wherever it stands in the list. */
interface OfTrack {
  channel: number;
}

interface OfPattern extends OfTrack {
  slot: number;
}

interface OfSlot {
  slot: number;
}

interface RecordedHit extends OfPattern {
  hit: Hit;
  /** Names the pass of the recording: all hits of one pass are undone together. */
  take: string;
}

function toggled(pads: readonly number[] = [], pad: number): number[] {
  return pads.includes(pad) ? pads.filter((p) => p !== pad) : [...pads, pad];
}

function trackOf(set: BeatSet, channel: number): Track | undefined {
  return set.tracks.find((track) => track.channel === channel);
}

/** Puts a changed pattern in the place of the one that is shown. */
function change(set: BeatSet, edit: (pattern: Pattern) => Pattern): void {
  const track = shownTrack(set);
  const pattern = currentPattern(track);
  if (pattern) track.patterns[track.current] = edit(pattern);
}

/** Sections and chains that name two slots follow the patterns when those change places. */
function swapNames(set: BeatSet, { channel, chain }: Track, a: number, b: number): void {
  const other = (slot: number) => (slot === a ? b : slot === b ? a : slot);
  for (const section of set.sections) {
    for (const part of section.parts) {
      if (part.channel === channel && typeof part.plays === 'number') part.plays = other(part.plays);
    }
  }
  for (const link of chain?.links ?? []) link.slot = other(link.slot);
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
    loopBarsSet(set, { payload }: PayloadAction<{ bars: number }>) {
      const pattern = currentPattern(shownTrack(set));
      if (pattern) pattern.length = loopTicks(payload.bars, set.meter);
    },
    patternCleared(set) {
      const pattern = currentPattern(shownTrack(set));
      if (pattern) pattern.hits = [];
    },
    treatmentSet(set, { payload }: PayloadAction<{ scope: Scope; treatment: Treatment; gesture?: string }>) {
      change(set, (pattern) => treated(pattern, payload.scope, payload.treatment));
    },
    /** The narrower treatments below a scope give way to its own. */
    narrowerCleared(set, { payload }: PayloadAction<{ scope: Scope; kind: 'feel' | 'loudness' }>) {
      change(set, (pattern) => withoutNarrower(pattern, payload.scope, payload.kind));
    },
    takeDropped(set, { payload }: PayloadAction<{ take: number }>) {
      change(set, (pattern) => withoutTake(pattern, payload.take));
    },
    /** An edit by hand; `gesture` makes one swipe one step of undo. */
    edited(set, { payload }: PayloadAction<{ edit: Edit; gesture?: string }>) {
      change(set, (pattern) => editedPattern(original(pattern) ?? pattern, payload.edit));
    },
    /** What was just played becomes a pattern, in the next free slot, and is the current one; freely played, it brings its tempo. */
    patternKept(set, { payload }: PayloadAction<{ pattern: Pattern; tempo?: number }>) {
      const track = shownTrack(set);
      const slot = freeSlot(track);
      track.patterns[slot] = payload.pattern;
      track.current = slot;
      delete track.stopped;
      if (payload.tempo !== undefined) set.tempo = clampTempo(payload.tempo);
    },
    /** A slot becomes the current one; an empty one gets an empty pattern of one bar. */
    slotOpened(set, { payload }: PayloadAction<OfSlot>) {
      const track = shownTrack(set);
      if (payload.slot >= track.patterns.length) return;
      track.patterns[payload.slot] ??= newPattern(payload.slot, set.meter);
      track.current = payload.slot;
    },
    /**
     * A pattern is copied into another slot, in the place of what is there; ids from `firstId`, every second number, are free.
     * `open` makes it the current one.
     */
    slotCopied(set, { payload }: PayloadAction<OfSlot & { to: number; firstId: number; open: boolean }>) {
      const track = shownTrack(set);
      const pattern = track.patterns[payload.slot];
      if (!pattern || payload.to >= MAX_SLOTS) return;
      track.patterns[payload.to] = copyOf(pattern, track.patterns, idsFrom(payload.firstId));
      if (payload.open) track.current = payload.to;
    },
    /** Two slots change places; the current pattern stays the current one. */
    slotsSwapped(set, { payload }: PayloadAction<OfSlot & { to: number }>) {
      const track = shownTrack(set);
      const { slot, to } = payload;
      [track.patterns[slot], track.patterns[to]] = [track.patterns[to] ?? null, track.patterns[slot] ?? null];
      swapNames(set, track, slot, to);
      if (track.current === slot) track.current = to;
      else if (track.current === to) track.current = slot;
    },
    slotRenamed(set, { payload }: PayloadAction<OfSlot & { name: string }>) {
      const pattern = shownTrack(set).patterns[payload.slot];
      if (pattern && payload.name.trim() !== '') pattern.name = payload.name.trim().slice(0, MAX_NAME);
    },
    slotColoured(set, { payload }: PayloadAction<OfSlot & { colour: number }>) {
      const pattern = shownTrack(set).patterns[payload.slot];
      if (pattern) pattern.colour = payload.colour;
    },
    /** A slot is emptied; the current one gets an empty pattern, so that there is one to play into. */
    slotCleared(set, { payload }: PayloadAction<OfSlot>) {
      const track = shownTrack(set);
      if (!track.patterns[payload.slot]) return;
      track.patterns[payload.slot] = payload.slot === track.current ? newPattern(payload.slot, set.meter) : null;
    },
    slotsAdded(set) {
      const patterns = shownTrack(set).patterns;
      for (let i = 0; i < SLOTS_ADDED && patterns.length < MAX_SLOTS; i++) patterns.push(null);
    },
    padMuteToggled(set, { payload }: PayloadAction<{ pad: number }>) {
      const track = shownTrack(set);
      track.mutedPads = toggled(track.mutedPads, payload.pad);
    },
    padSoloToggled(set, { payload }: PayloadAction<{ pad: number }>) {
      const track = shownTrack(set);
      track.soloPads = toggled(track.soloPads, payload.pad);
    },
    traceSet(set, { payload }: PayloadAction<PatternPlace | null>) {
      if (payload) set.trace = payload;
      else delete set.trace;
    },
    stepEntered(set, { payload }: PayloadAction<{ hit: Hit }>) {
      change(set, (pattern) => ({ ...pattern, hits: [...pattern.hits, payload.hit] }));
    },
    hitRecorded(set, { payload }: PayloadAction<RecordedHit>) {
      trackOf(set, payload.channel)?.patterns[payload.slot]?.hits.push(payload.hit);
    },
    hitReleased(set, { payload }: PayloadAction<OfPattern & { id: number; length: number }>) {
      const pattern = trackOf(set, payload.channel)?.patterns[payload.slot];
      const hit = pattern?.hits.findLast((h) => h.id === payload.id);
      if (hit) hit.length = payload.length;
    },
    /** The engine tells what plays on tracks: a slot, or null. */
    launchesReported(set, { payload }: PayloadAction<(OfTrack & { slot: number | null })[]>) {
      for (const { channel, slot } of payload) {
        const track = trackOf(set, channel);
        if (!track) continue;
        if (slot === null) track.stopped = true;
        else {
          delete track.stopped;
          if (slot < track.patterns.length) track.current = slot;
        }
      }
    },
    /** The engine tells which tracks are muted and soloed. */
    gatesReported(set, { payload }: PayloadAction<(OfTrack & { mute: boolean; solo: boolean })[]>) {
      for (const { channel, mute, solo } of payload) {
        const track = trackOf(set, channel);
        if (!track) continue;
        track.mute = mute;
        if (solo) track.solo = true;
        else delete track.solo;
      }
    },
    /** Pads and Steps turn to a track. */
    trackShown(set, { payload }: PayloadAction<number>) {
      if (trackOf(set, payload)) set.shown = payload;
    },
    trackAdded(set, { payload }: PayloadAction<Track>) {
      if (set.tracks.length >= MAX_TRACKS) return;
      set.tracks.push(payload);
      set.shown = payload.channel;
    },
    /** A track again, with its patterns, below the first; ids from `firstId`, every second number, are free. */
    trackDuplicated(set, { payload }: PayloadAction<OfTrack & { as: number; firstId: number }>) {
      const at = set.tracks.findIndex((track) => track.channel === payload.channel);
      if (at < 0 || set.tracks.length >= MAX_TRACKS) return;
      const source = set.tracks[at]!;
      const newId = idsFrom(payload.firstId);
      const patterns = source.patterns.map(
        (pattern) => pattern && { ...pattern, hits: pattern.hits.map((hit) => ({ ...hit, id: newId() })) },
      );
      const name = nextName(source.name, set.tracks);
      set.tracks.splice(at + 1, 0, { ...source, channel: payload.as, name, patterns, stopped: true });
      set.shown = payload.as;
    },
    /** A track goes up (-1) or down (1) in the list. */
    trackMoved(set, { payload }: PayloadAction<OfTrack & { by: number }>) {
      const at = set.tracks.findIndex((track) => track.channel === payload.channel);
      const to = at + payload.by;
      if (at < 0 || to < 0 || to >= set.tracks.length) return;
      const [track] = set.tracks.splice(at, 1);
      set.tracks.splice(to, 0, track!);
    },
    /** The last track of a set stays. */
    trackRemoved(set, { payload }: PayloadAction<OfTrack>) {
      const at = set.tracks.findIndex((track) => track.channel === payload.channel);
      if (at < 0 || set.tracks.length === 1) return;
      set.tracks.splice(at, 1);
      for (const section of set.sections) section.parts = section.parts.filter((p) => p.channel !== payload.channel);
      if (set.shown === payload.channel) set.shown = set.tracks[Math.max(0, at - 1)]!.channel;
      if (set.trace?.channel === payload.channel) delete set.trace;
    },
    trackNamed(set, { payload }: PayloadAction<OfTrack & { name: string }>) {
      const track = trackOf(set, payload.channel);
      if (track && payload.name.trim() !== '') track.name = payload.name.trim().slice(0, MAX_NAME);
    },
    trackColoured(set, { payload }: PayloadAction<OfTrack & { colour: number }>) {
      const track = trackOf(set, payload.channel);
      if (track) track.colour = payload.colour;
    },
    levelSet(set, { payload }: PayloadAction<OfTrack & { level: number; gesture?: string }>) {
      const track = trackOf(set, payload.channel);
      if (track) track.level = payload.level;
    },
    /** A track plays a kit (null) or notes; notes that were recorded keep sounding as they did. */
    tonesSet(set, { payload }: PayloadAction<OfTrack & { tones: Tones | null }>) {
      const track = trackOf(set, payload.channel);
      if (!track) return;
      const old = track.tones;
      if (!payload.tones) delete track.tones;
      else track.tones = payload.tones;
      // Another voice has a range of its own: its notes stay on their pads.
      if (!old || !payload.tones || old.voice !== payload.tones.voice) return;
      const find = relaid(old, payload.tones);
      for (const pattern of track.patterns) {
        for (const hit of pattern?.hits ?? []) {
          const { pad, pitch } = find(hit.pad, hit.pitch ?? 0);
          hit.pad = pad;
          if (pitch !== 0) hit.pitch = pitch;
          else delete hit.pitch;
        }
      }
    },
    /** Hands play higher or lower, by octaves. */
    octaveSet(set, { payload }: PayloadAction<OfTrack & { octave: number }>) {
      const tones = trackOf(set, payload.channel)?.tones;
      if (tones) tones.octave = Math.min(MOST_OCTAVES, Math.max(-MOST_OCTAVES, payload.octave));
    },
    /** An empty slot gets an empty pattern. */
    patternMade(set, { payload }: PayloadAction<OfPattern>) {
      const track = trackOf(set, payload.channel);
      if (track && payload.slot < track.patterns.length) track.patterns[payload.slot] ??= newPattern(payload.slot, set.meter); // prettier-ignore
    },
    chainSet(set, { payload }: PayloadAction<OfTrack & { chain: Chain | null }>) {
      const track = trackOf(set, payload.channel);
      if (!track) return;
      if (payload.chain?.links.length) track.chain = payload.chain;
      else delete track.chain;
    },
    launchingSet(set, { payload }: PayloadAction<Partial<Launching>>) {
      Object.assign(set.launching, payload);
    },
    sectionStored(set, { payload }: PayloadAction<Section>) {
      const at = set.sections.findIndex((section) => section.id === payload.id);
      if (at >= 0) set.sections[at] = payload;
      else if (set.sections.length < MAX_SECTIONS) set.sections.push(payload);
    },
    sectionMoved(set, { payload }: PayloadAction<{ id: number; by: number }>) {
      const at = set.sections.findIndex((section) => section.id === payload.id);
      const to = at + payload.by;
      if (at < 0 || to < 0 || to >= set.sections.length) return;
      const [section] = set.sections.splice(at, 1);
      set.sections.splice(to, 0, section!);
    },
    /** Those that went on to it go on for good. */
    sectionRemoved(set, { payload }: PayloadAction<number>) {
      set.sections = set.sections.filter((section) => section.id !== payload);
      for (const section of set.sections) if (section.then === payload) delete section.then;
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
  launchesReported,
  gatesReported,
  trackShown,
  trackAdded,
  trackDuplicated,
  trackMoved,
  trackRemoved,
  trackNamed,
  trackColoured,
  levelSet,
  tonesSet,
  octaveSet,
  patternMade,
  chainSet,
  launchingSet,
  sectionStored,
  sectionMoved,
  sectionRemoved,
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
  if (trackAdded.match(action)) return { label: 'new track' };
  if (trackDuplicated.match(action)) return { label: 'copy of a track' };
  if (trackMoved.match(action)) return { label: 'order of tracks' };
  if (trackRemoved.match(action)) return { label: 'removing a track' };
  if (trackNamed.match(action)) return { label: 'name' };
  if (trackColoured.match(action)) return { label: 'colour' };
  if (tonesSet.match(action)) return { label: 'notes of a track' };
  if (patternMade.match(action)) return { label: 'new pattern' };
  if (chainSet.match(action)) return { label: 'chain' };
  if (sectionStored.match(action)) return { label: 'section' };
  if (sectionMoved.match(action)) return { label: 'order of sections' };
  if (sectionRemoved.match(action)) return { label: 'removing a section' };
  return null;
};

export const setReducer = undoable(slice.reducer, stepOf);
