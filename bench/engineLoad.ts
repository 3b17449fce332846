import { POLISHED_FLOOR } from '@/core/document/kits';
import { Engine } from '@/core/engine/engine';
import type { Kit } from '@/core/document/kit';
import { FIRST_LFO, type Lfo } from '@/core/document/lfo';
import { MAX_TRACKS } from '@/core/document/limits';
import { CHAIN } from '@/core/launch/launchState';
import { at, NOW, type Instruction } from '@/core/protocol/commands';
import { random } from '@/core/random';
import { prepareSample, type Sample } from '@/core/sample/levels';
import { hitRows } from '@/core/sequence/hitRows';
import { fullMix } from './fullMix';

const RATE = 48000;
const QUANTUM = 128;
const SECONDS = 10;
const TRACKS = 4;

/** Pads that ring for long among all sixteen: with short ones alone no sensible playing keeps 64 voices ringing. */
const PADS = [10, 11, 9, 8, 7, 2, 6, 11, 10, 13, 0, 11, 3, 10, 4, 11, 12, 1, 14, 5, 15];

/**
 * Plays until about `voices` ring and keeps them ringing, with at most one stroke a quantum.
 * @param each called with the ms that each quantum took
 * @param kit of every other track, whose voices are kept to half of those that ring
 * @param told before all else
 * @returns how many voices rang on average
 */
function load(
  voices: number,
  seconds: number,
  each: (ms: number) => void,
  { kit, tracks = TRACKS, told = [] }: { kit?: Kit; tracks?: number; told?: readonly Instruction[] } = {},
): number {
  const engine = new Engine(RATE);
  const left = new Float32Array(QUANTUM);
  const right = new Float32Array(QUANTUM);
  let strokes = 0;
  let rang = 0;
  let quanta = 0;
  engine.post(at(NOW, { type: 'sample', sample: SAMPLE }));
  for (const instruction of told) engine.post(at(NOW, instruction));
  for (let t = 0; t < tracks; t++) engine.post(at(NOW, { type: 'kit', track: t, kit: (t % 2 === 1 && kit) || POLISHED_FLOOR })); // prettier-ignore
  const ringingOn = (...tracks: number[]) => tracks.reduce((sum, track) => sum + engine.ringingOn(track), 0);
  const struck = [0, 0];
  for (let done = 0; done < seconds * RATE; done += QUANTUM) {
    if (engine.ringing < voices) {
      const side = kit ? Number(ringingOn(1, 3) < ringingOn(0, 2)) : strokes % 2;
      const turn = kit ? struck[side]!++ : strokes;
      const track = side + 2 * (Math.floor(kit ? turn : turn / 2) % (tracks / 2));
      engine.post(at(NOW, { type: 'padDown', track, pad: PADS[turn % PADS.length]!, velocity: 0.8, heard: 0, id: ++strokes })); // prettier-ignore
    }
    const start = performance.now();
    engine.process(left, right, QUANTUM);
    each(performance.now() - start);
    rang += engine.ringing;
    quanta++;
    engine.events.drain();
  }
  return rang / quanta;
}

/** One run of the renderer: times real time, voices that rang, and the speed of plain arithmetic in the same process. */
export interface RenderRun {
  speed: number;
  rang: number;
  calibration: number;
}

/** Millions of steps of plain arithmetic a ms: what the speed of this machine, in this process, is measured by. */
export function calibrate(): number {
  const STEPS = 30e6;
  let x = 0.5;
  const step = () => {
    for (let i = 0; i < STEPS; i++) x = x * 0.999 + 0.0007 - x * x * 1e-6;
  };
  step();
  const start = performance.now();
  step();
  const ms = performance.now() - start;
  return STEPS / 1e6 / ms + (x > 1e9 ? 1 : 0);
}

/** How many times faster than real time the whole graph renders with about that many voices, and how many rang. */
export function renderSpeed(voices: number): Omit<RenderRun, 'calibration'> {
  let ms = 0;
  const rang = load(voices, SECONDS, (quantum) => (ms += quantum));
  return { speed: (SECONDS * 1000) / ms, rang };
}

/** Three seconds of noise that dies away. */
function noiseSample(): Sample {
  const frames = 3 * RATE;
  const next = random(5);
  const channel = Float32Array.from({ length: frames }, (_, i) => (next() - 0.5) * (1 - i / frames));
  return { id: 'a'.repeat(32), channels: [channel] };
}
const SAMPLE = prepareSample(noiseSample());

/** What half of the voices are, beside plain made sounds. */
export type Half = { sampled: boolean; waves: 1 | 2 };

/** All sounds at an odd pitch, through a filter, and moved by waves; made, or samples. */
function shapedKit({ sampled, waves }: Half): Kit {
  const lfos: Lfo[] = [
    { ...FIRST_LFO, moves: 'pitch' },
    { ...FIRST_LFO, moves: 'filter', shape: 'sawDown', low: -2, high: 0 },
  ];
  const source = { sample: SAMPLE.id, frames: SAMPLE.frames };
  const shaped = { pitch: 0.37, filter: 'low', cutoff: 5000, lfos: lfos.slice(0, waves) } as const;
  const pads = POLISHED_FLOOR.pads.map((pad) => {
    const { sound } = pad;
    return { ...pad, sound: { ...sound, ...(sampled && { source }), settings: { ...sound.settings, ...shaped } } };
  });
  return { ...POLISHED_FLOOR, pads } as Kit;
}

/** Speed of rendering 64 voices on sixteen tracks with everything of the mix on, as a share of the speed of the dry mix. */
export function mixShare(): number {
  const speed = (told: readonly Instruction[]) => {
    let ms = 0;
    load(64, SECONDS / 4, (quantum) => (ms += quantum), { tracks: MAX_TRACKS, told });
    return 1 / ms;
  };
  const shares = Array.from({ length: 9 }, () => speed(fullMix()) / speed([]));
  return shares.sort((a, b) => a - b)[4]!;
}

/** Speed of rendering about that many voices, half of them shaped, as a share of the speed without: the median of alternating runs. */
export function shapedShare(voices: number, half: Half): number {
  const shaped = shapedKit(half);
  const speed = (of: Kit) => {
    let ms = 0;
    load(voices, SECONDS / 4, (quantum) => (ms += quantum), { kit: of });
    return 1 / ms;
  };
  const shares = Array.from({ length: 9 }, () => speed(shaped) / speed(POLISHED_FLOOR));
  return shares.sort((a, b) => a - b)[4]!;
}

/** Share of the quantum's time (in %) that a dense song costs: 32 voices; or 64 on sixteen tracks with everything of the mix on. */
export function quantumCost(isMixed = false): { p50: number; p99: number } {
  const costs: number[] = [];
  if (isMixed) load(64, SECONDS, (ms) => costs.push(ms), { tracks: MAX_TRACKS, told: fullMix() });
  else load(32, SECONDS, (ms) => costs.push(ms));
  const sorted = costs.slice(500).sort((a, b) => a - b);
  const share = (p: number) => (100 * sorted[Math.floor(sorted.length * p)]! * RATE) / (QUANTUM * 1000);
  return { p50: share(0.5), p99: share(0.99) };
}

/**
 * Bytes of garbage that `process()` makes a quantum with everything on: patterns with rolls, odds and
 * Moves in a loop window, note repeat that is recorded, chains, launches, Lift.
 */
export function allocation(): number {
  const engine = new Engine(RATE);
  const left = new Float32Array(QUANTUM);
  const right = new Float32Array(QUANTUM);
  const roll = { strokes: 4, over: 240, swell: 0.5, glide: -3 };
  const hits = Array.from({ length: 16 }, (_, i) => {
    const more = i % 4 === 3 ? { roll, odds: 0.7, pitch: 2 } : { roll: null, odds: 1, pitch: 0 };
    return { tick: i * 240, struck: i * 240, pad: i % 4, velocity: 0.8, length: 120, id: i + 1, ...more };
  });
  const tell = (...instructions: Instruction[]) => {
    for (const instruction of instructions) engine.post(at(NOW, instruction));
  };
  for (let track = 0; track < TRACKS; track++) {
    for (let slot = 0; slot < 2; slot++) {
      tell({ type: 'pattern', track, slot, revision: 0, length: 3840, seen: 0, hits: hitRows(hits), feels: null });
    }
    tell({ type: 'loopWindow', track, slot: 0, start: 960, length: 1920, on: 0 });
    tell({ type: 'moves', track, slot: 0, revision: 0, points: new Float64Array([1, 2, 0, -2, 3840, 0]) });
    // The launcher changes patterns by itself, so that no command is needed to keep it busy.
    const links = [{ slot: 0, times: 1 }, { slot: 1, times: 1 }]; // prettier-ignore
    tell({ type: 'chain', track, chain: { links, again: true } });
    tell({ type: 'launch', track, slot: CHAIN, on: 0, inPlace: false });
  }
  tell({ type: 'record', on: true, session: 1 }, { type: 'noteRepeat', on: true, latch: true });
  tell({ type: 'play', startTick: 0, countInTicks: 0 }, { type: 'lift', held: true, on: 0 });
  for (let pad = 8; pad < 12; pad++)
    tell({ type: 'padDown', track: 0, pad, velocity: 0.8, heard: NaN, id: 2 * pad + 1 });
  const run = (quanta: number) => {
    for (let i = 0; i < quanta; i++) {
      engine.process(left, right, QUANTUM);
      engine.events.clear(); // to hand them over takes one array a message
    }
  };
  const collect = (globalThis as { gc?: () => void }).gc ?? (() => undefined);
  run(20000); // until everything is compiled
  collect();
  const QUANTA = 1000;
  const windows = Array.from({ length: 15 }, () => {
    const before = process.memoryUsage();
    run(QUANTA);
    const after = process.memoryUsage();
    return (after.heapUsed - before.heapUsed + after.arrayBuffers - before.arrayBuffers) / QUANTA;
  });
  // The median: a collection within a window makes it negative.
  return windows.sort((a, b) => a - b)[windows.length >> 1]!;
}
