import { LIMITER_LATENCY } from '../sound/limiter';
import { currentPattern, isPadHeard, PADS, type Pattern, type Track } from '../document/set';
import { padNote, TONE_VOICES } from '../document/tones';
import { isWindowed, windowOf } from '../sequence/loopWindow';
import { CONTROLS, flatPoints } from '../sequence/moves';
import { soundingHits, type SoundingHit } from '../sequence/soundingHits';
import { FEEL_FIELDS, HIT, HIT_FIELDS } from '../sequence/trackPlayer';
import { laneFeel } from '../quantize/feel';
import { framesPerTick } from '../time/ticks';
import { Engine } from './engine';
import { at, type Command, type Instruction } from './protocol';

export interface Stereo {
  left: Float32Array;
  right: Float32Array;
}

/** Hits as the engine's `pattern` message takes them: HIT_FIELDS numbers each. */
export function hitNumbers(hits: readonly SoundingHit[]): Float64Array {
  const numbers = new Float64Array(hits.length * HIT_FIELDS);
  hits.forEach(({ tick, struck, pad, velocity, length, id, pitch, odds, roll }, i) => {
    const at = i * HIT_FIELDS;
    numbers[at + HIT.TICK] = tick;
    numbers[at + HIT.STRUCK] = struck;
    numbers[at + HIT.PAD] = pad;
    numbers[at + HIT.VELOCITY] = velocity;
    numbers[at + HIT.ID] = id;
    numbers[at + HIT.PITCH] = pitch;
    numbers[at + HIT.ODDS] = odds;
    numbers[at + HIT.LENGTH] = length;
    if (!roll) return;
    numbers[at + HIT.STROKES] = roll.strokes;
    numbers[at + HIT.OVER] = roll.over;
    numbers[at + HIT.SWELL] = roll.swell;
    numbers[at + HIT.GLIDE] = roll.glide;
  });
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

/** Tells an engine what lies in a slot. */
export function patternInstruction(track: number, slot: number, pattern: Pattern | null, seen: number): Instruction {
  if (!pattern) return ['pattern', track, slot, 0, seen, new Float64Array(0)];
  return ['pattern', track, slot, pattern.length, seen, hitNumbers(soundingHits(pattern)), feelNumbers(pattern)];
}

/**
 * Tells an engine the stretch of a pattern that goes round.
 * @param on step of song ticks at whose next line it takes over, 0 for at once
 */
export function windowInstruction(track: number, slot: number, pattern: Pattern | null, on = 0): Instruction {
  if (!pattern || !isWindowed(pattern)) return ['window', track, slot, 0, 0, on];
  const { start, length } = windowOf(pattern);
  return ['window', track, slot, start, length, on];
}

/** Tells an engine the Moves of a pattern. */
export function movesInstruction(track: number, slot: number, pattern: Pattern | null): Instruction {
  const moves = (pattern?.moves ?? []).filter(({ points }) => points.length > 0);
  const numbers = moves.flatMap(({ pad, control, points }) => [
    ...[CONTROLS.indexOf(control), pad, points.length],
    ...flatPoints(points),
  ]);
  return ['moves', track, slot, new Float64Array(numbers)];
}

/** All of a slot. An empty one needs no words to an engine that knows nothing of it yet. */
export function slotInstructions(track: number, slot: number, pattern: Pattern, seen = 0): Instruction[] {
  return [
    patternInstruction(track, slot, pattern, seen),
    ...(isWindowed(pattern) ? [windowInstruction(track, slot, pattern)] : []),
    ...(pattern.moves?.length ? [movesInstruction(track, slot, pattern)] : []),
  ];
}

/** Tells an engine which pads' pattern hits are heard. */
export function heardPadsInstruction(index: number, track: Track): Instruction {
  let bits = 0;
  for (let pad = 0; pad < PADS; pad++) if (isPadHeard(track, pad)) bits |= 1 << pad;
  return ['heardPads', index, bits];
}

/** Tells an engine which notes a track's pads play, if they play notes. */
export function tonesInstruction(index: number, { tones }: Track): Instruction {
  if (!tones) return ['tones', index, -1, new Float64Array(0), 0];
  const notes = Array.from({ length: PADS }, (_, pad) => padNote(tones, pad));
  return ['tones', index, TONE_VOICES.indexOf(tones.voice), new Float64Array(notes), tones.octave];
}

/** What an engine must be told about one track before it can play it, but for what it plays. */
export function trackInstructions(track: Track, index: number, seen = 0): Instruction[] {
  return [
    ['kit', index, track.kit],
    ...(track.tones ? [tonesInstruction(index, track)] : []),
    ['track', index, track.level],
    heardPadsInstruction(index, track),
    ...track.patterns.flatMap((pattern, slot) => (pattern ? slotInstructions(index, slot, pattern, seen) : [])),
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

/** Longest sound of the kits, in seconds, at its longest decay: what may still ring when a loop begins again. */
const LONGEST_TAIL = 10;

/**
 * Renders one pass of a track's loop as its window goes round, exactly as long as the loop, as it sounds once it has gone round long enough: what
 * rings over the loop's end is already there at its start, so the file loops without a seam.
 * @param tempo BPM
 */
export function renderLoop(
  track: Track,
  tempo: number,
  sampleRate: number,
  onProgress?: (done: number) => void,
): Stereo {
  const pattern = currentPattern(track);
  const { start, length } = pattern ? windowOf(pattern) : { start: 0, length: 0 };
  const loopFrames = length * framesPerTick(tempo, sampleRate);
  const frames = Math.round(loopFrames);
  if (frames === 0) return { left: new Float32Array(0), right: new Float32Array(0) };
  const passesBefore = Math.ceil((LONGEST_TAIL * sampleRate) / loopFrames);
  const from = Math.round(passesBefore * loopFrames) + LIMITER_LATENCY;
  const instructions: Instruction[] = [
    // By its own channel, by which odds and the grain of noise differ.
    ...trackInstructions({ ...track, patterns: [pattern] }, track.channel),
    ['launch', track.channel, 0, 0, false],
    ['tempo', tempo],
    ['play', start, 0],
  ];
  const commands = instructions.map((i) => at(0, i));
  const { left, right } = renderCommands(commands, sampleRate, from + frames, 4096, onProgress);
  return { left: left.slice(from), right: right.slice(from) };
}
