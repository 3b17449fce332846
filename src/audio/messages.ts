import type { Command, Instruction } from '@/core/engine/protocol';

/** From the page to the audio thread: an instruction to apply before the next sample, `heard` frames counted by the context's clock. */
export type ToWorklet = Instruction;

/** From the audio thread to the page. */
export interface FromWorklet {
  /** EVENT_FIELDS numbers an event, for `decodeEvents`. */
  events: Float64Array;
  /** Context frame of the engine's frame 0. */
  origin: number;
  /** Commands applied since the last message, stamped: played into a new engine they give the same sound. */
  applied: Command[];
}

/** From the page to the render worker. */
export interface RenderRequest {
  track: import('@/core/document/set').Track;
  tempo: number;
  sampleRate: number;
}

/** From the render worker to the page. */
export type RenderReply = { progress: number } | { wav: Uint8Array<ArrayBuffer> } | { error: string };
