import { useEffect, useMemo, useState } from 'react';
import type { Sound } from '@/core/document/sound';
import { tempoOf } from '@/core/slice/loopTempo';
import { piecesOf, playedPart, type Piece } from '@/core/slice/cuts';
import { sensitiveTo, type SoundOnset } from '@/core/slice/onsets';
import type { SampleAudio } from '@/core/sample/levels';
import { onsetsIn, openRecording } from '@/instrument/recordings';
import { selectSet, selectTrack } from '@/store/selectors';
import { useAppSelector } from '@/store/store';

/** The recording of the chosen pad, as it is cut. */
export interface Recording {
  track: number;
  pad: number;
  sound: Sound;
  /** Names the audio, and its frames. */
  id: string;
  frames: number;
  /** What of it is played. */
  part: Piece;
  cuts: readonly number[];
  pieces: readonly Piece[];
  /** Null until it is read, or where it is missing. */
  audio: SampleAudio | null;
  /** Null until they are found. */
  onsets: readonly SoundOnset[] | null;
  /** Quarter notes per minute: what the player says, or what was found. Null: nothing tells it. */
  tempo: number | null;
}

const NO_CUTS: readonly number[] = [];
/** Onsets that are distinct enough to tell the tempo. */
const DISTINCT = 0.5;

/** The recording of the chosen pad of the shown track; null where it plays none. */
export function useRecording(): Recording | null {
  const { id: track, kit, tones } = useAppSelector(selectTrack);
  const pad = useAppSelector((state) => state.steps.pad);
  const meter = useAppSelector((state) => selectSet(state).meter);
  const { sound } = kit.pads[pad]!;
  const source = !tones && 'sample' in sound.source ? sound.source : null;
  const { audio, onsets } = useAudio(source?.sample ?? null);
  const part = playedPart(sound.settings, source?.frames ?? 1);
  // It takes some ms: not with every cut that is dragged.
  const found = useMemo(
    () => onsets && foundTempo(onsets, { from: part.from, to: part.to }, meter),
    [onsets, part.from, part.to, meter],
  );
  if (!source) return null;
  const cuts = sound.cuts ?? NO_CUTS;
  return {
    track,
    pad,
    sound,
    id: source.sample,
    frames: source.frames,
    part,
    cuts,
    pieces: piecesOf(cuts, part),
    audio,
    onsets,
    tempo: sound.tempo ?? found,
  };
}

/** The tempo of what is played of a recording. */
function foundTempo(
  onsets: readonly SoundOnset[],
  { from, to }: Piece,
  meter: Parameters<typeof tempoOf>[2],
): number | null {
  const within = sensitiveTo(onsets, DISTINCT).filter(({ frame }) => frame >= from && frame < to);
  return tempoOf(within.map((onset) => ({ ...onset, frame: onset.frame - from })), to - from, meter); // prettier-ignore
}

interface Opened {
  id: string;
  audio: SampleAudio | null;
  onsets: readonly SoundOnset[] | null;
}

/** The audio of a recording and what begins in it, each as soon as it is there. */
function useAudio(id: string | null): Omit<Opened, 'id'> {
  const [opened, setOpened] = useState<Opened | null>(null);
  useEffect(() => {
    if (id === null) return undefined;
    let isOver = false;
    void openRecording(id).then(async (audio) => {
      if (isOver) return;
      setOpened({ id, audio, onsets: null });
      const onsets = audio && (await onsetsIn(id, audio).catch(() => []));
      if (!isOver) setOpened({ id, audio, onsets });
    });
    return () => void (isOver = true);
  }, [id]);
  return opened?.id === id && opened ? opened : { audio: null, onsets: null };
}
