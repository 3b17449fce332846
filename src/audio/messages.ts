import type { Pattern } from '@/core/document/pattern';
import type { Track } from '@/core/document/track';
import type { Performed } from '@/core/engine/replay';
import type { Command, Instruction } from '@/core/protocol/commands';

/** From the page to the audio thread. */
export type ToWorklet =
  /** To be applied before the next sample, all at one frame. `heard` counts the context's frames. */
  | { instructions: readonly Instruction[] }
  /** Whether the commands that are applied are to be sent back: for a test, or for whoever records the performance. */
  | { keepLog: boolean };

/** From the audio thread to the page. */
export interface FromWorklet {
  /** Packed, for `decodeEvents`. */
  events: Float64Array;
  /** Context frame of the engine's frame 0. */
  origin: number;
  /** Commands applied since the last message, when the log is kept (see `CommandLog`). */
  log: Command[];
}

/** From the page to the render worker. */
export interface RenderRequest {
  track: Track;
  pattern: Pattern;
  tempo: number;
  sampleRate: number;
}

/** From the render worker to the page. */
export type RenderReply = { progress: number } | { wav: Uint8Array<ArrayBuffer> } | { error: string };

/** From the page to the worker that plays a run again: what to play, then how many frames are wanted next. */
export type ReplayRequest = { performed: Performed; from: number; to: number } | { frames: number };

/** From that worker to the page: the next samples, none at the end. */
export type ReplayReply = { left: Float32Array<ArrayBuffer>; right: Float32Array<ArrayBuffer> } | { error: string };
