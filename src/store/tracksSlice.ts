import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { demoSet } from '@/core/document/demo';
import { hitOn, idsFrom, type NotePlace } from '@/core/document/hit';
import { MAX_NAME, MAX_TRACKS } from '@/core/document/limits';
import type { PatternPlace } from '@/core/document/pattern';
import { channelSettings, groupedIn } from '@/core/document/mix';
import { tracksOf } from '@/core/document/set';
import { MOST_OCTAVES, relaid, type Tones } from '@/core/document/tones';
import type { Track } from '@/core/document/track';
import { nextName } from '@/core/edit/slots';
import { mod } from '@/core/time/ticks';
import { undoStep } from './undoable';

interface OfTrack {
  /** Its id. */
  track: number;
}

type Duplicated = OfTrack & { as: number; firstId: number };
type Moved = OfTrack & { by: number };
type Named = OfTrack & { name: string };
type Coloured = OfTrack & { colour: number };
type WithTones = OfTrack & { tones: Tones | null };

/** All hits of a track lie on other pads. */
function layAnew(track: Track, find: (pad: number, pitch: number) => NotePlace): void {
  for (const pattern of track.patterns) {
    if (pattern) pattern.hits = pattern.hits.map((hit) => hitOn(hit, find(hit.pad, hit.pitch ?? 0)));
  }
}

/** The tracks: which there are, what they are called, what they sound with. */
const slice = createSlice({
  name: 'tracks',
  initialState: demoSet().set,
  reducers: {
    trackAdded: {
      reducer(set, { payload }: PayloadAction<Track>) {
        if (set.order.length >= MAX_TRACKS || set.tracks[payload.id]) return;
        set.tracks[payload.id] = groupedIn(set.mix, payload);
        set.order.push(payload.id);
      },
      prepare: undoStep<Track>('new track'),
    },
    /** A track again, with its patterns, below the first; ids from `firstId`, every second number, are free. */
    trackDuplicated: {
      reducer(set, { payload: { track, as, firstId } }: PayloadAction<Duplicated>) {
        const source = set.tracks[track];
        if (!source || set.order.length >= MAX_TRACKS || set.tracks[as]) return;
        const newId = idsFrom(firstId);
        const patterns = source.patterns.map(
          (pattern) => pattern && { ...pattern, hits: pattern.hits.map((hit) => ({ ...hit, id: newId() })) },
        );
        set.tracks[as] = { ...source, id: as, name: nextName(source.name, tracksOf(set)), patterns };
        set.order.splice(set.order.indexOf(track) + 1, 0, as);
      },
      prepare: undoStep<Duplicated>('copy of a track'),
    },
    /** A track goes up (-1) or down (1) in the list. */
    trackMoved: {
      reducer({ order }, { payload: { track, by } }: PayloadAction<Moved>) {
        const at = order.indexOf(track);
        const to = at + by;
        if (at < 0 || to < 0 || to >= order.length) return;
        order.splice(at, 1);
        order.splice(to, 0, track);
      },
      prepare: undoStep<Moved>('order of tracks'),
    },
    /** The last track of a set stays. */
    trackRemoved: {
      reducer(set, { payload: { track } }: PayloadAction<OfTrack>) {
        if (!set.tracks[track] || set.order.length === 1) return;
        delete set.tracks[track];
        set.order = set.order.filter((id) => id !== track);
        for (const section of set.sections) section.parts = section.parts.filter((part) => part.track !== track);
        if (set.trace?.track === track) delete set.trace;
        for (const settings of channelSettings(set)) if (settings.duckedBy?.track === track) delete settings.duckedBy;
      },
      prepare: undoStep<OfTrack>('removing a track'),
    },
    trackNamed: {
      reducer(set, { payload }: PayloadAction<Named>) {
        const track = set.tracks[payload.track];
        if (track && payload.name.trim() !== '') track.name = payload.name.trim().slice(0, MAX_NAME);
      },
      prepare: undoStep<Named>('name'),
    },
    trackColoured: {
      reducer(set, { payload }: PayloadAction<Coloured>) {
        const track = set.tracks[payload.track];
        if (track) track.colour = payload.colour;
      },
      prepare: undoStep<Coloured>('colour'),
    },
    /** A track plays a kit (null) or notes; notes that were recorded keep sounding as they did. */
    tonesSet: {
      reducer(set, { payload }: PayloadAction<WithTones>) {
        const track = set.tracks[payload.track];
        if (!track) return;
        const old = track.tones;
        if (!payload.tones) delete track.tones;
        else track.tones = payload.tones;
        // Another voice has a range of its own: its notes stay on their pads.
        if (!old || !payload.tones || old.voice !== payload.tones.voice) return;
        layAnew(track, relaid(old, payload.tones));
      },
      prepare: undoStep<WithTones>('notes of a track'),
    },
    /** The whole set goes to another key: all notes of all tracks, and the roots of their scales. */
    keyMoved: {
      reducer(set, { payload: { semitones } }: PayloadAction<{ semitones: number }>) {
        for (const track of Object.values(set.tracks)) {
          const { tones } = track;
          if (!tones) continue;
          const old = { ...tones };
          tones.root = mod(old.root + semitones, 12);
          const find = relaid(old, tones);
          layAnew(track, (pad, pitch) => find(pad, pitch + semitones));
        }
      },
      prepare: undoStep<{ semitones: number }>('key of the set'),
    },
    /** Hands play higher or lower, by octaves. */
    octaveSet(set, { payload }: PayloadAction<OfTrack & { octave: number }>) {
      const tones = set.tracks[payload.track]?.tones;
      if (tones) tones.octave = Math.min(MOST_OCTAVES, Math.max(-MOST_OCTAVES, payload.octave));
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
  },
});

function toggled(pads: readonly number[] = [], pad: number): number[] {
  return pads.includes(pad) ? pads.filter((p) => p !== pad) : [...pads, pad];
}

export const {
  trackAdded,
  trackDuplicated,
  trackMoved,
  trackRemoved,
  trackNamed,
  trackColoured,
  tonesSet,
  keyMoved,
  octaveSet,
  padMuteToggled,
  padSoloToggled,
  traceSet,
} = slice.actions;
export const tracksReducer = slice.reducer;
