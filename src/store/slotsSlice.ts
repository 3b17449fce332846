import { createSlice, original, type PayloadAction } from '@reduxjs/toolkit';
import { demoSet } from '@/core/document/demo';
import { idsFrom } from '@/core/document/hit';
import { MAX_NAME, MAX_SECTIONS, MAX_SLOTS } from '@/core/document/limits';
import { newPattern, type Pattern, type PatternPlace } from '@/core/document/pattern';
import { patternAt, type BeatSet } from '@/core/document/set';
import type { Track } from '@/core/document/track';
import { patternAcross } from '@/core/edit/acrossTracks';
import { copyOf, SLOTS_ADDED } from '@/core/edit/slots';
import type { Made } from '@/core/score/make';
import { clampTempo } from '@/core/time/tempo';
import { undoStep } from './undoable';

interface Kept {
  place: PatternPlace;
  pattern: Pattern;
  /** Freely played, it brings its tempo. */
  tempo?: number;
}

/** Ids from `firstId`, every second number, are free. */
interface Copied {
  place: PatternPlace;
  to: number;
  /** Id of the track that it is copied to; absent: its own. */
  onto?: number;
  firstId: number;
  /** What the step is called where it can be undone. */
  label: string;
}

type MadeFromRun = Made & {
  /** What the step is called where it can be undone. */
  label: string;
};

interface Swapped {
  track: number;
  slot: number;
  to: number;
}

interface Renamed extends PatternPlace {
  name: string;
}

interface Coloured extends PatternPlace {
  colour: number;
}

/** Which patterns lie in which slots, and what they are called. */
const slice = createSlice({
  name: 'slots',
  initialState: demoSet().set,
  reducers: {
    /** What was just played becomes a pattern. */
    patternKept: {
      reducer(set, { payload: { place, pattern, tempo } }: PayloadAction<Kept>) {
        const patterns = set.tracks[place.track]?.patterns;
        if (!patterns || place.slot > patterns.length || place.slot >= MAX_SLOTS) return;
        patterns[place.slot] = pattern;
        if (tempo !== undefined) set.tempo = clampTempo(tempo);
      },
      prepare: undoStep<Kept>('Keep'),
    },
    /** What a run gave becomes patterns in free slots, and sections. */
    madeFromRun: {
      reducer(set, { payload: { patterns, sections } }: PayloadAction<MadeFromRun>) {
        for (const { track, slot, pattern } of patterns) {
          const slots = set.tracks[track]?.patterns;
          if (slots && !slots[slot] && slot <= slots.length && slot < MAX_SLOTS) slots[slot] = pattern;
        }
        for (const section of sections) if (set.sections.length < MAX_SECTIONS) set.sections.push(section);
      },
      prepare: undoStep<MadeFromRun>(({ label }) => label),
    },
    /** An empty slot gets an empty pattern. */
    patternMade: {
      reducer(set, { payload }: PayloadAction<PatternPlace>) {
        made(set, payload);
      },
      prepare: undoStep<PatternPlace>('new pattern'),
    },
    /** A pattern is copied into another slot of its track, or of another one as that plays it, in the place of what is there. */
    slotCopied: {
      reducer(set, { payload: { place, to, onto = place.track, firstId } }: PayloadAction<Copied>) {
        const pattern = patternAt(set, place);
        const track = set.tracks[onto];
        if (!pattern || !track || to > track.patterns.length || to >= MAX_SLOTS) return;
        const { patterns, tones } = track;
        const from = set.tracks[place.track]!.tones;
        const played = onto === place.track ? pattern : patternAcross(pattern, from, tones);
        patterns[to] = copyOf(played, patterns, idsFrom(firstId));
      },
      prepare: undoStep<Copied>(({ label }) => label),
    },
    slotsSwapped: {
      reducer(set, { payload: { track: id, slot, to } }: PayloadAction<Swapped>) {
        const track = set.tracks[id];
        if (!track || Math.max(slot, to) >= track.patterns.length) return;
        const { patterns } = track;
        // The very objects change places: by them one sees later that a pattern went elsewhere.
        const [a, b] = [original(patterns)![slot] ?? null, original(patterns)![to] ?? null];
        patterns[slot] = b;
        patterns[to] = a;
        followPatterns(set, track, slot, to);
      },
      prepare: undoStep<Swapped>('swap'),
    },
    slotRenamed: {
      reducer(set, { payload }: PayloadAction<Renamed>) {
        const pattern = made(set, payload);
        if (pattern && payload.name.trim() !== '') pattern.name = payload.name.trim().slice(0, MAX_NAME);
      },
      prepare: undoStep<Renamed>('name'),
    },
    slotColoured: {
      reducer(set, { payload }: PayloadAction<Coloured>) {
        const pattern = made(set, payload);
        if (pattern) pattern.colour = payload.colour;
      },
      prepare: undoStep<Coloured>('colour'),
    },
    slotCleared: {
      reducer(set, { payload: { track, slot } }: PayloadAction<PatternPlace>) {
        const patterns = set.tracks[track]?.patterns;
        if (patterns?.[slot]) patterns[slot] = null;
      },
      prepare: undoStep<PatternPlace>('clear slot'),
    },
    slotsAdded(set, { payload }: PayloadAction<{ track: number }>) {
      const patterns = set.tracks[payload.track]?.patterns;
      for (let i = 0; patterns && i < SLOTS_ADDED && patterns.length < MAX_SLOTS; i++) patterns.push(null);
    },
  },
});

/** The pattern of a slot; an empty one gets an empty pattern. */
function made(set: BeatSet, { track, slot }: PatternPlace): Pattern | null {
  const patterns = set.tracks[track]?.patterns;
  if (!patterns || slot >= patterns.length) return null;
  return (patterns[slot] ??= newPattern(slot, set.meter));
}

/** Sections and chains that name two slots follow the patterns when those change places. */
function followPatterns(set: BeatSet, { id, chain }: Track, a: number, b: number): void {
  const other = (slot: number) => (slot === a ? b : slot === b ? a : slot);
  for (const section of set.sections) {
    for (const part of section.parts) {
      if (part.track === id && typeof part.plays === 'number') part.plays = other(part.plays);
    }
  }
  for (const link of chain?.links ?? []) link.slot = other(link.slot);
}

export const {
  patternKept,
  madeFromRun,
  patternMade,
  slotCopied,
  slotsSwapped,
  slotRenamed,
  slotColoured,
  slotCleared,
  slotsAdded,
} = slice.actions;
export const slotsReducer = slice.reducer;
