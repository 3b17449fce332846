import { useState } from 'react';
import { counted } from '@/core/counted';
import type { OpenedRun } from '@/instrument/openedRun';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { blockStrokes, type Block, type Score } from '@/core/score/score';
import type { Stretch } from '@/core/score/make';
import { ticksPerBar, ticksPerBeat } from '@/core/time/ticks';
import type { Line } from './scoreLines';

export const SNAPS = ['bar', 'beat', 'free'] as const;
export type Snap = (typeof SNAPS)[number];

/** What the player has chosen and set while a run lies open. */
export interface RunDesk {
  fixing: boolean;
  /** The row of the track that was touched last. */
  row: number;
  line: Line;
  /** Ids of blocks and hits. */
  chosen: ReadonlySet<number>;
  stretch: Stretch | null;
  /** The stretch goes round when it is listened to. */
  loops: boolean;
  /** Tick at which Listen begins. */
  cursor: number;
  snap: Snap;
  /** The view goes along with what is heard. */
  follows: boolean;
  /** What is chosen, in words. */
  words: string;
  set: (change: Partial<DeskState>) => void;
  /** Listen begins at a tick; what is heard goes on there. */
  jump: (tick: number) => void;
  /** Begins to listen, or stops. */
  listenOrStop: () => void;
}

type DeskState = Omit<RunDesk, 'set' | 'words' | 'jump' | 'listenOrStop'>;

const FIRST: DeskState = {
  fixing: false,
  row: 0,
  line: 'levels',
  chosen: new Set(),
  stretch: null,
  loops: false,
  cursor: 0,
  snap: 'bar',
  follows: true,
};

/** The state of an open run's view, and how it is listened to. The song stops for it. */
export function useRunDesk(opened: OpenedRun): RunDesk {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const [state, setState] = useState(FIRST);
  const { score } = opened;
  const set = (change: Partial<DeskState>) => setState((now) => ({ ...now, ...change }));
  const listen = (from: number) => {
    instrument.rest();
    const { stretch, loops } = state;
    opened.listen({ from, loop: loops ? stretch : null }, (problem) => {
      if (problem !== undefined) dispatch(noticed(`This run cannot be played. ${problem}`));
    });
  };
  return {
    ...state,
    words: chosenWords(score, state.chosen),
    set,
    jump: (tick) => {
      set({ cursor: tick });
      if (opened.isHeard) listen(tick);
    },
    listenOrStop: () => {
      if (!opened.isHeard) return listen(state.cursor);
      // From where it was, the next time.
      set({ cursor: state.loops ? state.cursor : (opened.tick ?? state.cursor) });
      opened.stop();
    },
  };
}

/** Ticks of a snap; 0 is free. */
export function snapTicks(snap: Snap, { meter }: Score): number {
  return snap === 'bar' ? ticksPerBar(meter) : snap === 'beat' ? ticksPerBeat(meter) : 0;
}

/** The blocks that are chosen, and the rows that they lie in. */
export function chosenBlocks(score: Score, chosen: ReadonlySet<number>): { row: number; block: Block }[] {
  return score.tracks.flatMap(({ blocks }, row) =>
    blocks.filter(({ id }) => chosen.has(id)).map((block) => ({ row, block })),
  );
}

/** Ids of the hits that are chosen. */
export function chosenHits(score: Score, chosen: ReadonlySet<number>): number[] {
  return score.tracks.flatMap(({ hits }) => hits.filter(({ id }) => chosen.has(id)).map(({ id }) => id));
}

/** @example stretchWords({ from: 61440, to: 122880 }, score) // "bars 17 to 33" */
export function stretchWords({ from, to }: Stretch, { meter }: Score): string {
  const bar = ticksPerBar(meter);
  const place = (tick: number) => {
    const bars = tick / bar + 1;
    // A bar line is one though the arithmetic of frames misses it by a last digit.
    return Math.abs(bars - Math.round(bars)) < 0.005 ? String(Math.round(bars)) : bars.toFixed(2);
  };
  return `bars ${place(from)} to ${place(to)}`;
}

function chosenWords(score: Score, chosen: ReadonlySet<number>): string {
  if (chosen.size === 0) return '';
  const blocks = chosenBlocks(score, chosen);
  const hits = chosenHits(score, chosen);
  const [first] = blocks;
  if (blocks.length === 1 && hits.length === 0) {
    const { block, row } = first!;
    const stretch = stretchWords({ from: block.from, to: block.from + block.length }, score);
    return `${block.name} on ${score.tracks[row]!.name}, ${stretch}, ${counted(blockStrokes(block).length, 'stroke')}.`;
  }
  return [
    ...(blocks.length > 0 ? [counted(blocks.length, 'block')] : []),
    ...(hits.length > 0 ? [`${counted(hits.length, 'hit')} by hand`] : []),
  ].join(' and ').concat('.'); // prettier-ignore
}
