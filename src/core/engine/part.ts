import type { Handlers } from '../protocol/commands';

/**
 * One concept of the engine: it has its own state and its own commands (`commands`, which `Engine` puts together into one
 * exhaustive table), and never reaches into another's fields: what it needs is given to it when it is made.
 *
 * What the parts must know of each other's time they are told through these hooks, in the order of the engine's list.
 */
export interface Part {
  readonly commands?: Partial<Handlers>;
  /** The song begins to play at `fromTick`, after a count-in that begins at `startTick`. The transport still stands. */
  songStarts?(startTick: number, fromTick: number): void;
  /** The song stops at a tick. The transport still plays. */
  songStops?(tick: number): void;
  /** Commands are about to be applied: what lies before this moment was played, and is not made up for. */
  passBy?(): void;
  /** Another slot is about to take over on a track, or the same one from another tick on. */
  trackChanges?(track: number): void;
  /** A track's sounds are about to be others. */
  soundsChange?(track: number): void;
  /** A track is no more. */
  trackRemoved?(track: number): void;
}

/** A part that acts at song ticks. */
export interface TickPart extends Part {
  /** The next song tick at which it acts; Infinity for none. */
  nextTick(): number;
  /** It acts: `tick` is what `nextTick` gave. */
  playTick(tick: number): void;
}

/** A part that acts at frames. */
export interface FramePart extends Part {
  /** The next frame at which it acts; Infinity for none. */
  nextFrame(): number;
  /** It acts: `nextFrame` has come. */
  playFrame(): void;
}
