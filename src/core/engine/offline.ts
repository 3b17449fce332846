import { LIMITER_LATENCY } from '../dsp/limiter';
import { currentPattern, PADS, type Pattern, type Track } from '../model/set';
import { soundingHits } from '../sequence/soundingHits';
import { FEEL_FIELDS, HIT_FIELDS } from '../sequence/trackPlayer';
import { laneFeel } from '../timing/feel';
import { framesPerTick } from '../time/ticks';
import { Engine } from './engine';
import { at, type Command, type Instruction } from './protocol';

export interface Stereo {
  left: Float32Array;
  right: Float32Array;
}

/** A pattern as the engine's `pattern` message takes it: HIT_FIELDS numbers a sounding hit. */
function patternNumbers(pattern: Pattern): Float64Array {
  const hits = soundingHits(pattern);
  const numbers = new Float64Array(hits.length * HIT_FIELDS);
  hits.forEach((hit, i) => numbers.set([hit.tick, hit.struck, hit.pad, hit.velocity, hit.id], i * HIT_FIELDS));
  return numbers;
}

/** The Feels that place new strokes, FEEL_FIELDS numbers a pad; nothing when no pad has one. */
function feelNumbers(pattern: Pattern): Float64Array | undefined {
  if (!pattern.feel && !pattern.lanes?.some((lane) => lane.feel)) return undefined;
  const numbers = new Float64Array(PADS * FEEL_FIELDS);
  for (let pad = 0; pad < PADS; pad++) {
    const feel = laneFeel(pattern, pad);
    const swing = feel?.swing;
    numbers.set(
      [feel?.grid ?? -1, feel?.strength ?? 0, swing?.unit ?? 0, swing?.ratio ?? 0, feel?.spare ?? 0],
      pad * FEEL_FIELDS,
    );
  }
  return numbers;
}

/** Tells an engine the pattern that a track plays. */
export function patternInstruction(track: number, pattern: Pattern | null, seen: number): Instruction {
  if (!pattern) return ['pattern', track, 0, seen, new Float64Array(0)];
  return ['pattern', track, pattern.length, seen, patternNumbers(pattern), feelNumbers(pattern)];
}

/** What an engine must be told about one track before it can play it. */
export function trackInstructions(track: Track, index: number, seen = 0): Instruction[] {
  return [
    ['kit', index, track.kit],
    ['track', index, track.level, track.mute],
    patternInstruction(index, currentPattern(track), seen),
  ];
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

/** Longest sound of the kits, in seconds: what may still ring when a loop begins again. */
const LONGEST_TAIL = 5;

/**
 * Renders one pass of a track's loop, exactly as long as the loop, as it sounds once it has gone round long enough: what
 * rings over the loop's end is already there at its start, so the file loops without a seam.
 * @param tempo BPM
 */
export function renderLoop(
  track: Track,
  tempo: number,
  sampleRate: number,
  onProgress?: (done: number) => void,
): Stereo {
  const length = currentPattern(track)?.length ?? 0;
  const loopFrames = length * framesPerTick(tempo, sampleRate);
  const frames = Math.round(loopFrames);
  if (frames === 0) return { left: new Float32Array(0), right: new Float32Array(0) };
  const passesBefore = Math.ceil((LONGEST_TAIL * sampleRate) / loopFrames);
  const from = Math.round(passesBefore * loopFrames) + LIMITER_LATENCY;
  const instructions: Instruction[] = [...trackInstructions(track, 0), ['tempo', tempo], ['play', 0, 0]];
  const commands = instructions.map((i) => at(0, i));
  const { left, right } = renderCommands(commands, sampleRate, from + frames, 4096, onProgress);
  return { left: left.slice(from), right: right.slice(from) };
}
