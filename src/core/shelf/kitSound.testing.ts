import type { Kit } from '../document/kit';
import type { Pattern } from '../document/pattern';
import { Engine } from '../engine/engine';
import type { Stereo } from '../engine/offline';
import { LoudnessMeter, type Loudness } from '../measure/loudness';
import { energyBetween, spectrumOf, thirdsOf, type Spectrum } from '../measure/spectrum';
import { at, type Command } from '../protocol/commands';
import { soundingHits } from '../sequence/soundingHits';
import { framesPerTick } from '../time/ticks';

export const RATE = 48000;

/** How a kit is to be heard. */
interface Hearing {
  /** Frames per second. */
  rate?: number;
  /** Through the limiter, as it leaves the app; else as it comes to it. */
  limited?: boolean;
}

function render(
  kit: Kit,
  strokes: readonly Command[],
  frames: number,
  { rate = RATE, limited = false }: Hearing,
): Stereo {
  const engine = new Engine(rate);
  engine.hear({ track: null, limited });
  for (const command of [
    at(0, { type: 'kit', track: 0, kit }),
    at(0, { type: 'trackLevel', track: 0, level: 1 }),
    ...strokes,
  ])
    engine.post(command);
  const sound = { left: new Float32Array(frames), right: new Float32Array(frames) };
  engine.process(sound.left, sound.right, frames);
  return sound;
}

function padDown(frame: number, pad: number, velocity: number, id: number): Command {
  return at(frame, { type: 'padDown', track: 0, pad, velocity, heard: 0, id });
}

/**
 * One stroke of a pad, with its share of the room, at full track level.
 * @param frame at which it is struck: of it chance is drawn; the sound begins there
 */
export function strokeOf(
  kit: Kit,
  pad: number,
  {
    velocity = 0.8,
    frame = 0,
    seconds = 1.5,
    ...hearing
  }: Hearing & { velocity?: number; frame?: number; seconds?: number } = {},
): Stereo {
  const frames = frame + Math.round(seconds * (hearing.rate ?? RATE));
  const { left, right } = render(kit, [padDown(frame, pad, velocity, 1)], frames, hearing);
  return { left: left.subarray(frame), right: right.subarray(frame) };
}

/**
 * A pattern of a kit, once round.
 * @param only the pads that play; absent: all
 */
export function beatSound(
  kit: Kit,
  { pattern, tempo }: { pattern: Pattern; tempo: number },
  { only, ...hearing }: Hearing & { only?: number } = {},
): Stereo {
  const perTick = framesPerTick(tempo, hearing.rate ?? RATE);
  const hits = soundingHits(pattern).filter(({ pad }) => only === undefined || pad === only);
  const strokes = hits.map(({ pad, tick, velocity }, i) => padDown(Math.round(tick * perTick), pad, velocity, 1 + i));
  return render(
    kit,
    strokes.sort((a, b) => a.frame - b.frame),
    Math.round(pattern.length * perTick),
    hearing,
  );
}

/** @param leadIn seconds of silence before it, so that a sound shorter than a reading is measured whole */
export function loudnessOf({ left, right }: Stereo, rate = RATE, leadIn = 0.3): Loudness {
  const meter = new LoudnessMeter(rate);
  const silence = new Float32Array(Math.round(leadIn * rate));
  meter.add(silence, silence);
  meter.add(left, right);
  return meter.result;
}

/** Both channels together. */
export function monoOf({ left, right }: Stereo): Float32Array {
  return left.map((sample, i) => (sample + right[i]!) / 2);
}

export function energyOf(sound: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < sound.length; i++) sum += sound[i]! * sound[i]!;
  return sum;
}

export const dB = (ratio: number) => 10 * Math.log10(ratio);

/** Frames at which the parts of an envelope end: as the ear does, ever longer ones. */
const PARTS_MS = [2, 5, 10, 20, 35, 60, 100, 160, 250, 400];
/** What is softer than the whole, or than the loudest part, by this much says nothing about a sound. */
const FLOOR_DB = { thirds: -30, parts: -40 };

/** What a sound is like, whatever its loudness: its thirds of an octave, and its course, in dB. */
export interface Features {
  thirds: number[];
  parts: number[];
}

/** The features of some strokes of one sound together: what chance does to one of them evens out. */
export function featuresOf(strokes: readonly Stereo[]): Features {
  const monos = strokes.map(monoOf);
  const thirds = summed(monos.map((mono) => thirdsOf(spectrumOf(mono, RATE))));
  const parts = summed(
    monos.map((mono) =>
      PARTS_MS.map((end, p) => {
        const [from, to] = [(PARTS_MS[p - 1] ?? 0) * 48, end * 48];
        return energyOf(mono.subarray(from, to)) / (to - from);
      }),
    ),
  );
  const whole = thirds.reduce((sum, third) => sum + third, 0);
  const loudest = Math.max(...parts);
  return {
    thirds: thirds.map((third) => Math.max(FLOOR_DB.thirds, dB(third / whole))),
    parts: parts.map((part) => Math.max(FLOOR_DB.parts, dB(part / loudest))),
  };
}

function summed(rows: readonly number[][]): number[] {
  return rows[0]!.map((_, i) => rows.reduce((sum, row) => sum + row[i]!, 0));
}

/** How far two sounds are apart: the mean difference of their thirds and that of their courses, dB. */
export function distance(a: Features, b: Features): number {
  const mean = (one: number[], other: number[]) =>
    one.reduce((sum, value, i) => sum + Math.abs(value - other[i]!), 0) / one.length;
  return mean(a.thirds, b.thirds) + mean(a.parts, b.parts);
}

/** Energy from each of these frequencies to the next, in dB of the whole. */
export function bandsOf(spectrum: Spectrum, edges: readonly number[]): number[] {
  const whole = energyBetween(spectrum, edges[0]!, edges[edges.length - 1]!);
  return edges.slice(1).map((high, i) => dB(energyBetween(spectrum, edges[i]!, high) / whole));
}
