import type { Stage } from './stage';

/**
 * One captured performance of a set, from its first sound to its last. What was heard comes back from the set as it was, the stage,
 * and the log of commands (see `core/protocol/performedLog`).
 */
export interface Run {
  schema: 1;
  id: string;
  name: string;
  /** What the player wrote about it. */
  note?: string;
  /** Drawn when it was first looked at. */
  picture?: RunPicture;
  /** It stays, however many come after it. */
  marked: boolean;
  /** When it began, as ISO 8601. */
  at: string;
  /** Names the log that it is a part of: runs between which nothing came to rest share one. */
  log: string;
  /** Frames of the engine at which it begins and ends. */
  from: number;
  to: number;
  /** Frames per second. */
  sampleRate: number;
  /** The sound engine that made it (see `SOUND`): another one may sound different. */
  sound: number;
  /** Key of the stored version of the set as it was where the log begins. */
  set: string;
  stage: Stage;
  /** Letters of its log, which is what it takes of the storage. */
  letters: number;
  hits: number;
  launches: number;
  /** Quarter notes per minute. */
  tempo: { least: number; most: number };
}

/** A run in small: in which stretches of it each track played. */
export interface RunPicture {
  /** Ticks. */
  length: number;
  rows: { colour: number; stretches: { from: number; length: number }[] }[];
}

/** A run as it is captured: not stored yet. */
export type CapturedRun = Omit<Run, 'set' | 'stage' | 'letters' | 'marked'>;

/** Raised whenever the same commands give other samples than before: `performances.reference.json` is written anew then. */
export const SOUND = 6;
