import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { demoSet } from '@/core/document/demo';
import { MOST_ALSO, overreaching, withCuts, withSound, type AlsoPlays, type Kit } from '@/core/document/kit';
import { MAX_NAME, MAX_TRACKS } from '@/core/document/limits';
import type { BeatSet } from '@/core/document/set';
import { NUMBER_NAMES, sampleOf, type NumberSetting, type Sound, type SoundSettings } from '@/core/document/sound';
import { kindNote, type SoundKind } from '@/core/document/soundKinds';
import { withVoice } from '@/core/document/tones';
import type { ToneSource } from '@/core/document/toneVoices';
import type { PiecesLaid } from '@/core/slice/layPieces';
import { MAX_TEMPO, MIN_TEMPO } from '@/core/time/ticks';
import { undoStep } from './undoable';

/** Names a pad of a track. Where the track plays notes, all its pads have one sound. */
export interface PadPlace {
  track: number;
  pad: number;
}

interface NumberSet extends PadPlace {
  setting: NumberSetting;
  /** Null: as the sound had it when it was taken, or as its source has it. */
  value: number | null;
  /** The same for all changes of one drag. */
  gesture: string;
}
/** What is undefined in it goes back to what the source has. */
type Changed = PadPlace & { change: { [K in keyof SoundSettings]?: SoundSettings[K] | undefined }; label: string; gesture?: string }; // prettier-ignore
type Taken = PadPlace & { sound: Sound };
type KitTaken = { track: number; kit: Kit };
type VoiceTaken = { track: number; tones: ToneSource };
type Cut = PadPlace & { cuts: readonly number[]; gesture?: string };

/** The sounds of the tracks: what lies on each pad, and what the player makes of it. */
const slice = createSlice({
  name: 'sounds',
  initialState: demoSet().set,
  reducers: {
    soundNumberSet: {
      reducer(set, { payload: { setting, value, ...place } }: PayloadAction<NumberSet>) {
        const settings = settingsAt(set, place);
        if (!settings) return;
        const wanted = value ?? ownAt(set, place)[setting];
        if (wanted === undefined) delete settings[setting];
        else settings[setting] = wanted;
      },
      prepare: undoStep<NumberSet>(
        ({ setting }) => NUMBER_NAMES[setting].toLowerCase(),
        ({ gesture }) => gesture,
      ),
    },
    soundChanged: {
      reducer(set, { payload: { change, ...place } }: PayloadAction<Changed>) {
        const settings = settingsAt(set, place);
        if (!settings) return;
        Object.assign(settings, change);
        for (const key of Object.keys(change) as (keyof SoundSettings)[]) {
          if (change[key] === undefined) delete settings[key];
        }
      },
      prepare: undoStep<Changed>(({ label }) => label, ({ gesture }) => gesture), // prettier-ignore
    },
    /** All settings of a sound are those that it was taken with again. */
    soundReset: {
      reducer(set, { payload }: PayloadAction<PadPlace>) {
        const settings = settingsAt(set, payload);
        if (!settings) return;
        for (const key of Object.keys(settings) as (keyof SoundSettings)[]) delete settings[key];
        Object.assign(settings, ownAt(set, payload));
      },
      prepare: undoStep<PadPlace>('settings of a sound'),
    },
    /** Another sound lies on a pad; its place in the kit stays. */
    soundTaken: {
      reducer(set, { payload: { track, pad, sound } }: PayloadAction<Taken>) {
        const kit = set.tracks[track]?.kit;
        if (kit?.pads[pad]) kit.pads[pad] = withSound(kit.pads, pad, sound);
      },
      prepare: undoStep<Taken>('sound of a pad'),
    },
    kitTaken: {
      reducer(set, { payload: { track, kit } }: PayloadAction<KitTaken>) {
        if (set.tracks[track]) set.tracks[track].kit = kit;
      },
      prepare: undoStep<KitTaken>('kit'),
    },
    voiceTaken: {
      reducer(set, { payload: { track, tones } }: PayloadAction<VoiceTaken>) {
        const own = set.tracks[track];
        if (own?.tones) own.tones = withVoice(own.tones, tones);
      },
      prepare: undoStep<VoiceTaken>('voice'),
    },
    kitNamed: {
      reducer(set, { payload: { track, name } }: PayloadAction<{ track: number; name: string }>) {
        const kit = set.tracks[track]?.kit;
        if (kit && name.trim() !== '') kit.name = name.trim().slice(0, MAX_NAME);
      },
      prepare: undoStep<{ track: number; name: string }>('name of a kit'),
    },
    soundNamed: {
      reducer(set, { payload: { track, pad, name } }: PayloadAction<PadPlace & { name: string }>) {
        const sound = set.tracks[track]?.kit.pads[pad]?.sound;
        if (sound && name.trim() !== '') sound.name = name.trim().slice(0, MAX_NAME);
      },
      prepare: undoStep<PadPlace & { name: string }>('name of a sound'),
    },
    /** What a sound is: its pad is written and played by that kind's MIDI note, unless another pad has it. */
    soundKindSet: {
      reducer(set, { payload: { track, pad, kind } }: PayloadAction<PadPlace & { kind: SoundKind }>) {
        const pads = set.tracks[track]?.kit.pads;
        if (!pads?.[pad]) return;
        pads[pad].sound.kind = kind;
        const note = kindNote(kind);
        if (note !== null && !pads.some((other, i) => i !== pad && other.note === note)) pads[pad].note = note;
      },
      prepare: undoStep<PadPlace & { kind: SoundKind }>('kind of a sound'),
    },
    /** Where the sample of a pad is cut. */
    sampleCut: {
      reducer(set, { payload: { track, pad, cuts } }: PayloadAction<Cut>) {
        const sound = set.tracks[track]?.kit.pads[pad]?.sound;
        if (!sound || !sampleOf(sound.source)) return;
        if (cuts.length > 0) sound.cuts = [...cuts];
        else delete sound.cuts;
      },
      prepare: undoStep<Cut>('cuts of a recording', ({ gesture }) => gesture),
    },
    /** What the player says that the tempo of a pad's sample is, BPM. */
    sampleTempoSet: {
      reducer(set, { payload: { track, pad, tempo } }: PayloadAction<PadPlace & { tempo: number; gesture?: string }>) {
        const sound = set.tracks[track]?.kit.pads[pad]?.sound;
        if (sound && sampleOf(sound.source)) sound.tempo = Math.min(MAX_TEMPO, Math.max(MIN_TEMPO, tempo));
      },
      prepare: undoStep<PadPlace & { tempo: number; gesture?: string }>('tempo of a recording', ({ gesture }) => gesture), // prettier-ignore
    },
    /** Pieces of a recording lie on the pads of a track, which may get a pattern of them; those that have no pad there, on tracks of their own. */
    piecesLaid: {
      reducer(set, { payload: { here, added } }: PayloadAction<PiecesLaid>) {
        const track = here && set.tracks[here.track];
        if (track) {
          track.kit = here.kit;
          if (here.pattern) track.patterns[here.slot] = here.pattern;
        }
        for (const one of added) {
          if (set.order.length >= MAX_TRACKS || set.tracks[one.id]) continue;
          set.tracks[one.id] = one;
          set.order.push(one.id);
        }
      },
      prepare: undoStep<PiecesLaid>('pieces on pads'),
    },
    /** A pad cuts off these others, and they it. */
    cutsSet: {
      reducer(set, { payload: { track, pad, others } }: PayloadAction<PadPlace & { others: readonly number[] }>) {
        const kit = set.tracks[track]?.kit;
        if (kit) kit.cutGroups = withCuts(kit.cutGroups, pad, others);
      },
      prepare: undoStep<PadPlace & { others: readonly number[] }>('sounds that cut each other off'),
    },
    /** What else a pad plays: never in a circle, never more than can sound at once. */
    alsoPlaysSet: {
      reducer(
        set,
        { payload: { track, pad, also } }: PayloadAction<PadPlace & { also: AlsoPlays[]; gesture?: string }>,
      ) {
        const kit = set.tracks[track]?.kit;
        if (!kit?.pads[pad] || also.length > MOST_ALSO) return;
        if (overreaching(kit.pads.map((own, i) => (i === pad ? { alsoPlays: also } : own))) >= 0) return;
        if (also.length > 0) kit.pads[pad].alsoPlays = also;
        else delete kit.pads[pad].alsoPlays;
      },
      prepare: undoStep<PadPlace & { also: AlsoPlays[]; gesture?: string }>('what a pad also plays', ({ gesture }) => gesture), // prettier-ignore
    },
  },
});

/** The settings of what a pad plays: of its own sound, or of the voice that all pads play. */
function settingsAt({ tracks }: BeatSet, { track, pad }: PadPlace): SoundSettings | undefined {
  const { kit, tones } = tracks[track] ?? {};
  if (tones) return (tones.settings ??= {});
  return kit?.pads[pad]?.sound.settings;
}

/** The settings that it was taken with. */
function ownAt({ tracks }: BeatSet, { track, pad }: PadPlace): SoundSettings {
  const { kit, tones } = tracks[track] ?? {};
  return (tones ? undefined : kit?.pads[pad]?.sound.own) ?? {};
}

export const {
  soundNumberSet,
  soundChanged,
  soundReset,
  soundTaken,
  kitTaken,
  voiceTaken,
  kitNamed,
  soundNamed,
  soundKindSet,
  sampleCut,
  sampleTempoSet,
  piecesLaid,
  cutsSet,
  alsoPlaysSet,
} = slice.actions;
export const soundsReducer = slice.reducer;
