import type { PreparedSample } from '../sample/levels';
import { windowOf } from '../sequence/loopWindow';
import { LIMITER_LATENCY } from '../sound/limiter';
import { framesPerTick } from '../time/ticks';
import { Engine } from './engine';
import { sampleInstructions } from './replay';
import { at, type Command, type Instruction } from '../protocol/commands';
import { slotInstructions, trackInstructions } from '../protocol/fromDocument';
import type { Track } from '../document/track';
import type { Pattern } from '../document/pattern';

export interface Stereo {
  left: Float32Array;
  right: Float32Array;
}

/**
 * Renders commands with a fresh engine.
 * @param frames how many to render, from frame 0
 * @param blockSize frames asked of the engine at once; the samples do not depend on it
 * @param onProgress called now and then with the share that is done, 0..1
 */
export function renderCommands(
  commands: readonly Command[],
  sampleRate: number,
  frames: number,
  blockSize = 4096,
  onProgress?: (done: number) => void,
): Stereo {
  const engine = new Engine(sampleRate);
  for (const command of commands) engine.post(command);
  const left = new Float32Array(frames);
  const right = new Float32Array(frames);
  for (let done = 0; done < frames; done += blockSize) {
    engine.process(left, right, Math.min(blockSize, frames - done), done);
    engine.events.drain();
    onProgress?.(Math.min(1, (done + blockSize) / frames));
  }
  return { left, right };
}

/** Longest sound of the kits, in seconds, at its longest decay: what may still ring when a loop begins again. */
const LONGEST_TAIL = 10;

/** What of a track goes round. */
export interface Loop {
  track: Track;
  pattern: Pattern;
  /** BPM */
  tempo: number;
  sampleRate: number;
  /** What its sounds name. */
  samples?: readonly PreparedSample[];
}

/**
 * Renders one pass of a track's loop as its window goes round, exactly as long as the loop, as it sounds once it has gone round long enough: what
 * rings over the loop's end is already there at its start, so the file loops without a seam.
 */
export function renderLoop(
  { track, pattern, tempo, sampleRate, samples }: Loop,
  onProgress?: (done: number) => void,
): Stereo {
  const id = track.id;
  const { start, length } = windowOf(pattern);
  const loopFrames = length * framesPerTick(tempo, sampleRate);
  const frames = Math.round(loopFrames);
  const passesBefore = Math.ceil((LONGEST_TAIL * sampleRate) / loopFrames);
  const from = Math.round(passesBefore * loopFrames) + LIMITER_LATENCY;
  const instructions: Instruction[] = [
    ...sampleInstructions(samples),
    // By its own id, by which odds and the grain of noise differ.
    ...trackInstructions(id, track),
    ...slotInstructions({ track: id, slot: 0 }, pattern),
    { type: 'launch', track: id, slot: 0, on: 0, inPlace: false },
    { type: 'tempo', bpm: tempo },
    { type: 'play', startTick: start, countInTicks: 0 },
  ];
  const commands = instructions.map((i) => at(0, i));
  const { left, right } = renderCommands(commands, sampleRate, from + frames, 4096, onProgress);
  return { left: left.slice(from), right: right.slice(from) };
}
