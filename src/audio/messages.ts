import type { Run } from '@/core/document/run';
import type { Fix } from '@/core/score/fix';
import type { WavFormat } from '@/core/formats/wav';
import type { Loudness } from '@/core/measure/loudness';
import type { PackedScore } from '@/core/score/packScore';
import type { Loop } from '@/core/engine/offline';
import type { Performed } from '@/core/engine/replay';
import type { Sample } from '@/core/sample/levels';
import type { Command, Sent } from '@/core/protocol/commands';

/** From the page to the audio thread. */
export type ToWorklet =
  /** To be applied before the next sample, all at one frame, unless they say how much later. `heard` counts the context's frames. */
  | { instructions: readonly Sent[] }
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

/** What a worker is to play: it prepares the samples itself. */
export type WithAudio<T> = Omit<T, 'samples'> & { samples: readonly Sample[] };

/** From the microphone's audio thread to the page: the next frames, in one or two channels. */
export interface FromRecorder {
  frame: number;
  channels: Float32Array<ArrayBuffer>[];
}

/** From the page to the render worker. */
export type RenderRequest = WithAudio<Loop>;

/** From the render worker to the page. */
export type RenderReply = { progress: number } | { wav: Uint8Array<ArrayBuffer> } | { error: string };

/** What of a run is to be heard. */
export interface Listening {
  /** What was put right in it; null: as it was played, from its log. */
  fixes: readonly Fix[] | null;
  /** Ticks of the score: where to begin, and what goes round. */
  from: number;
  loop: { from: number; to: number } | null;
}

/** From the page to the worker that plays a run again: which run, what of it is wanted (named by a number), and how much of it next. */
export type ReplayRequest =
  | { performed: WithAudio<Performed>; run: Pick<Run, 'from' | 'to'> }
  | { listening: Listening; id: number }
  | { frames: number; id: number };

/** Files of sound that can be made. */
export type AudioFormat = WavFormat | 'flac' | 'mp3';

/** The run that files are made of. */
export interface CarriedRun {
  performed: WithAudio<Performed>;
  run: Pick<Run, 'from' | 'to'>;
  /** What was put right in it. */
  fixes: readonly Fix[];
}

/** What of a run is to become a file, and how. */
export interface CarryWanted {
  /** Ticks of the score, or all of it. */
  stretch: { from: number; to: number } | null;
  /** One file of the mix, or a zip with a file of each track. */
  what: 'mix' | 'stems';
  format: AudioFormat;
  /** What rings on after the stretch is a part of the file. */
  tail: boolean;
}

/** From the page to the worker that makes files of a run. */
export interface CarryRequest extends CarriedRun, CarryWanted {
  /** On which another worker renders its tracks; null: there is none. */
  tracksFrom: MessagePort | null;
}

/** From the page to a worker that renders the tracks for another one. */
export interface TracksRequest extends CarriedRun {
  tracksTo: MessagePort;
}

/** From those workers to the page: the file piece by piece, and how loud the mix is. */
export type CarryReply =
  | { bytes: Uint8Array<ArrayBuffer> }
  | { progress: number }
  | { done: true; loudness: Loudness | null }
  | { error: string };

/** From that worker to the page. `frame`: of the engine's, where the samples begin; the last ones have `ended`. */
export type ReplayReply =
  | { packed: PackedScore }
  | { left: Float32Array<ArrayBuffer>; right: Float32Array<ArrayBuffer>; frame: number; ended: boolean; id: number }
  | { error: string };
