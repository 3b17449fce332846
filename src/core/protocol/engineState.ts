import type { LauncherData } from '../launch/launcher';

/** A list of numbers as plain data. */
export type Numbers = readonly number[];

/**
 * What an engine that rests knows beyond the document that it was told: where the song stands, what is launched and what waits for
 * hands. Taken over by a new engine with the same document, what comes next gives the same samples.
 */
export interface EngineState {
  transport: {
    tick: number;
    framesPerTick: number;
    recording: boolean;
    bpm: number;
    bend: number;
    fromTick: number;
    playedThrough: number;
    session: number;
  };
  launcher: LauncherData;
  /** Serial of the last recorded hit. */
  serial: number;
  repeater: { on: boolean; latch: boolean; lastOwnId: number; rates: readonly Numbers[] };
  /** Controls that hands hold, of each pad: their places in the table of Moves, and values. */
  turns: readonly { track: number; table: number; value: number }[];
}
