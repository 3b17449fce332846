import { useEffect, useRef, useState } from 'react';
import type { Loudness } from '@/core/measure/loudness';
import type { CarryWanted, OpenedRun } from '@/instrument/openedRun';
import type { Stretch } from '@/core/score/make';
import { saveFile } from '@/storage/shareFile';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';

/** What can be carried away: a run, or a part of a set. */
export type Carriable = Pick<OpenedRun, 'name' | 'carry' | 'midi'>;

/** What it can be carried away as. */
export const KINDS = ['midi', 'mix', 'stems', 'flac', 'mp3'] as const;
export type Kind = (typeof KINDS)[number];

export const KIND_NAMES: Record<Kind, string> = {
  midi: 'MIDI',
  mix: 'WAV mix',
  stems: 'Stems',
  flac: 'FLAC',
  mp3: 'MP3',
};
const EXTENSIONS: Record<Kind, string> = { midi: 'mid', mix: 'wav', stems: 'zip', flac: 'flac', mp3: 'mp3' };

/** A file that is being made, or was made last. */
export type Carrying =
  | { state: 'making'; kind: Kind; done: number; secondsLeft: number | null }
  | { state: 'made'; kind: Kind; name: string; file: Blob; loudness: Loudness | null };

export interface Carry {
  now: Carrying | null;
  begin: (kind: Kind) => void;
  cancel: () => void;
  close: () => void;
}

/** So much must be done before it can be told how long the rest takes. */
const TOLD_FROM = 0.03;

/**
 * Makes files, one at a time, while the music goes on.
 * @param stretch of it, in ticks, or all of it
 * @param fileName without its ending
 */
export function useCarry(of: Carriable, stretch: Stretch | null = null, fileName = of.name): Carry {
  const dispatch = useAppDispatch();
  const { wav, tail } = useAppSelector((state) => state.settings.carry);
  const [now, setNow] = useState<Carrying | null>(null);
  const giveUp = useRef<() => void>(() => undefined);
  useEffect(() => () => giveUp.current(), []);

  const save = (kind: Kind, file: Blob, loudness: Loudness | null) => {
    const name = saveFile(file, fileName, EXTENSIONS[kind]);
    setNow({ state: 'made', kind, name, file, loudness });
  };
  const fail = (kind: Kind, error: unknown) => {
    const reason = error instanceof Error ? error.message : String(error);
    setNow(null);
    dispatch(noticed(reason === 'cancelled' ? 'Cancelled.' : `${KIND_NAMES[kind]} could not be made: ${reason}.`));
  };
  const begin = (kind: Kind) => {
    if (now?.state === 'making') return;
    if (kind === 'midi') {
      try {
        save(kind, of.midi(stretch), null);
      } catch (error) {
        fail(kind, error);
      }
      return;
    }
    const wanted: CarryWanted = {
      what: kind === 'stems' ? 'stems' : 'mix',
      format: kind === 'flac' || kind === 'mp3' ? kind : wav,
      stretch,
      tail,
    };
    const start = performance.now();
    setNow({ state: 'making', kind, done: 0, secondsLeft: null });
    const { made, cancel } = of.carry(wanted, (done) => {
      const left = (((performance.now() - start) / 1000) * (1 - done)) / Math.max(done, 1e-6);
      setNow({ state: 'making', kind, done, secondsLeft: done > TOLD_FROM ? left : null });
    });
    giveUp.current = cancel;
    made.then(
      ({ file, loudness }) => save(kind, file, loudness),
      (error: unknown) => fail(kind, error),
    );
  };
  return { now, begin, cancel: () => giveUp.current(), close: () => setNow(null) };
}
