import { Engine } from '@/core/engine/engine';
import { at, NOW } from '@/core/protocol/commands';
import { hitRows } from '@/core/sequence/hitRows';

const RATE = 48000;
const QUANTUM = 128;
const SECONDS = 10;
const TRACKS = 4;

/** Pads that ring for long among all sixteen: with short ones alone no sensible playing keeps 64 voices ringing. */
const PADS = [10, 11, 9, 8, 7, 2, 6, 11, 10, 13, 0, 11, 3, 10, 4, 11, 12, 1, 14, 5, 15];

/**
 * Plays until about `voices` ring and keeps them ringing, with at most one stroke a quantum.
 * @param each called with the ms that each quantum took
 * @returns how many voices rang on average
 */
function load(voices: number, seconds: number, each: (ms: number) => void): number {
  const engine = new Engine(RATE);
  const left = new Float32Array(QUANTUM);
  const right = new Float32Array(QUANTUM);
  let strokes = 0;
  let rang = 0;
  let quanta = 0;
  for (let t = 0; t < TRACKS; t++) engine.post(at(NOW, { type: 'kit', track: t, kit: 'polished-floor' }));
  for (let done = 0; done < seconds * RATE; done += QUANTUM) {
    if (engine.ringing < voices) {
      const pad = PADS[strokes % PADS.length]!;
      engine.post(at(NOW, { type: 'padDown', track: strokes % TRACKS, pad, velocity: 0.8, heard: 0, id: ++strokes }));
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

/** How many times faster than real time the whole graph renders with about that many voices, and how many rang. */
export function renderSpeed(voices: number): { speed: number; rang: number } {
  let ms = 0;
  const rang = load(voices, SECONDS, (quantum) => (ms += quantum));
  return { speed: (SECONDS * 1000) / ms, rang };
}

/** Share of the quantum's time (in %) that a dense song costs: 32 voices. */
export function quantumCost(): { p50: number; p99: number } {
  const costs: number[] = [];
  load(32, SECONDS, (ms) => costs.push(ms));
  const sorted = costs.slice(500).sort((a, b) => a - b);
  const share = (p: number) => (100 * sorted[Math.floor(sorted.length * p)]! * RATE) / (QUANTUM * 1000);
  return { p50: share(0.5), p99: share(0.99) };
}

/** Bytes of garbage a quantum while a loop plays and its events are handed over as the audio thread does. */
export function allocation(): number {
  const engine = new Engine(RATE);
  const left = new Float32Array(QUANTUM);
  const right = new Float32Array(QUANTUM);
  // Rolls and odds among them, in a loop window.
  const roll = { strokes: 4, over: 240, swell: 0.5, glide: -3 };
  const hits = Array.from({ length: 16 }, (_, i) => {
    const more = i % 4 === 3 ? { roll, odds: 0.7, pitch: 2 } : { roll: null, odds: 1, pitch: 0 };
    return { tick: i * 240, struck: i * 240, pad: i % 4, velocity: 0.8, length: 120, id: i + 1, ...more };
  });
  engine.post(
    at(NOW, {
      type: 'pattern',
      track: 0,
      slot: 0,
      revision: 0,
      length: 3840,
      seen: 0,
      hits: hitRows(hits),
      feels: null,
    }),
  );
  engine.post(at(NOW, { type: 'loopWindow', track: 0, slot: 0, start: 960, length: 1920, on: 0 }));
  engine.post(
    at(NOW, { type: 'moves', track: 0, slot: 0, revision: 0, points: new Float64Array([1, 2, 0, -2, 3840, 0]) }),
  );
  engine.post(at(NOW, { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }));
  engine.post(at(NOW, { type: 'play', startTick: 0, countInTicks: 0 }));
  const run = (quanta: number) => {
    for (let i = 0; i < quanta; i++) {
      engine.process(left, right, QUANTUM);
      if (engine.events.length > 0) engine.events.drain();
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
