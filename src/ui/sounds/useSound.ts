import { lanesOf } from '@/core/document/lanes';
import type { SoundSettings } from '@/core/document/sound';
import type { SoundKind } from '@/core/document/soundKinds';
import { presetName, presetOf, voiceName, type TonePreset, type ToneSource } from '@/core/document/toneVoices';
import type { Track } from '@/core/document/track';
import type { Sounding } from '@/core/shelf/ownValues';
import { patchOf, tonePatch, type Patch } from '@/core/sound/patch';
import { selectHeardSet, selectShown, selectTrack } from '@/store/selectors';
import { useAppSelector } from '@/store/store';

/** What a pad plays, be it a sound of its kit or a note. */
export interface ShownSound {
  track: number;
  pad: number;
  name: string;
  kind: SoundKind | null;
  source: Sounding;
  settings: SoundSettings;
  /** The settings that it was taken with. */
  own: SoundSettings;
  /** Where it comes from, in words. */
  from: string;
}

const NONE: SoundSettings = {};

/** The sound of a pad of a track; all pads of a track that plays notes have the same. */
export function soundAt(track: Pick<Track, 'id' | 'kit' | 'tones'>, pad: number): ShownSound {
  const { id, kit, tones } = track;
  if (tones) {
    const { voice, preset = presetOf(tones), settings = NONE } = tones;
    const from = `${presetName(preset)} · ${voiceName(voice).toLowerCase()}`;
    return {
      track: id,
      pad,
      name: lanesOf(track)[pad]!.name,
      kind: null,
      source: { voice, preset },
      settings,
      own: NONE,
      from,
    };
  }
  const { name, kind, source, settings, own = NONE, from } = kit.pads[pad]!.sound;
  const origin = 'sample' in source ? 'sample' : 'made here';
  return { track: id, pad, name, kind, source, settings, own, from: from ? `${origin} · ${from}` : origin };
}

const patches = new WeakMap<object, Patch>();
const plainVoices = new Map<TonePreset, Patch>();

/** The patch of a sound, the same object for as long as the sound is the same. */
export function patchAt({ source, settings }: Pick<ShownSound, 'source' | 'settings'>): Patch {
  if ('voice' in source && settings === NONE) return patchOfVoice(source);
  let patch = patches.get(settings);
  if (!patch) {
    patch = 'voice' in source ? tonePatch(source, settings) : patchOf({ source, settings });
    patches.set(settings, patch);
  }
  return patch;
}

/** The patch of a preset as it is by itself, always the same object. */
export function patchOfVoice(source: ToneSource): Patch {
  const preset = presetOf(source);
  let patch = plainVoices.get(preset);
  if (!patch) plainVoices.set(preset, (patch = tonePatch(source)));
  return patch;
}

/** The sound of the chosen pad of the shown track, as the document has it. */
export function useSound(): ShownSound {
  const track = useAppSelector(selectTrack);
  const pad = useAppSelector((state) => state.steps.pad);
  return soundAt(track, pad);
}

/** The shown track as it is heard: with what is tried. */
export function useHeardTrack(): Track {
  const shown = useAppSelector(selectShown);
  return useAppSelector((state) => selectHeardSet(state).tracks[shown] ?? selectTrack(state));
}
