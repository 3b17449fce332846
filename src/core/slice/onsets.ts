import type { Role } from '../quantize/barModel';
import type { SampleAudio } from '../sample/levels';
import { loudestOf } from '../sample/take';
import { HOP, noveltyOf, type Novelty } from './novelty';
import { riseNear } from './rise';

/** Where something begins to sound. */
export interface SoundOnset {
  frame: number;
  /** How much new there is, above what is usual around it: 2 is a soft stroke in a beat, 50 a stroke out of silence. */
  rise: number;
  /** How loud it becomes, 0..1 of the loudest. */
  level: number;
  /** What it may be, by where in the spectrum it begins. */
  role: Role;
}

/** Looks to each side among which an onset is the greatest: 25 ms. So two strokes of a flam are one. */
const APART = 5;
/** Looks to each side that say what is usual: 100 ms, without the onset itself. */
const AROUND = 20;
const ITSELF = 3;
/** How often what is usual an onset exceeds: noise trembles by about as much. */
const ABOVE_USUAL = 2.5;
/** Least rise of what is found at all, and how great it is at the middle sensitivity. */
const LEAST_RISE = 0.125;
const MIDDLE_RISE = 1.75;
/** At no sensitivity only what is so loud. */
const LOUD = 0.8;
/** Seconds after its beginning within which a stroke is loudest. */
const LOUDEST_WITHIN = 0.05;
/** Shares of what is new from which an onset is a bass drum's or a snare's. */
const MOSTLY_LOW = 0.3;
const MOSTLY_MIDDLE = 0.45;

/**
 * Finds where something begins to sound: where the novelty (see `novelty.ts`) is greater than around it and than a threshold that
 * follows the median around it; then the exact place where the sound's level rises.
 * @param rate frames per second
 * @returns in order, also what is hardly one: see `sensitiveTo`
 */
export function findOnsets(audio: SampleAudio, rate: number): SoundOnset[] {
  const mono = monoOf(audio);
  const novelty = noveltyOf(mono, rate);
  const height = novelty.all.map((v, i) => (novelty.all[i - 1] ?? 0) + v + (novelty.all[i + 1] ?? 0));
  const found: SoundOnset[] = [];
  for (let look = 0; look < height.length; look++) {
    if (!isGreatest(height, look)) continue;
    const rise = height[look]! - ABOVE_USUAL * usualAround(height, look);
    if (rise <= LEAST_RISE) continue;
    const frame = riseNear(mono, look * HOP, rate);
    found.push({ frame, rise, level: levelFrom(mono, frame, rate), role: roleAt(novelty, look) });
  }
  return found.sort((a, b) => a.frame - b.frame);
}

/**
 * The onsets that are distinct and loud enough.
 * @param sensitivity 0..1: at 0 only the loudest, in the middle all that is distinct, at 1 all that could be one
 */
export function sensitiveTo(onsets: readonly SoundOnset[], sensitivity: number): SoundOnset[] {
  const below = Math.max(0, 1 - 2 * sensitivity);
  const above = Math.max(0, 2 * sensitivity - 1);
  const leastRise = MIDDLE_RISE * (LEAST_RISE / MIDDLE_RISE) ** above;
  return onsets.filter(({ rise, level }) => rise > leastRise && level >= LOUD * below * below);
}

function levelFrom(mono: Float32Array, frame: number, rate: number): number {
  const stroke = mono.subarray(frame, frame + Math.ceil(LOUDEST_WITHIN * rate));
  return Math.min(
    1,
    stroke.reduce((most, v) => Math.max(most, Math.abs(v)), 0),
  );
}

/** Both channels as one, as loud as can be. Silence stays what it is. */
function monoOf(audio: SampleAudio): Float32Array {
  const [left, right] = audio.channels;
  const louder = 1 / (loudestOf(audio) || 1);
  return left!.map((v, i) => ((v + (right ?? left!)[i]!) / 2) * louder);
}

/** Of two that are the same, the first is the greatest. */
function isGreatest(height: Float64Array, look: number): boolean {
  const own = height[look]!;
  for (let k = 1; k <= APART; k++) {
    if ((height[look - k] ?? 0) >= own || (height[look + k] ?? 0) > own) return false;
  }
  return true;
}

function usualAround(height: Float64Array, look: number): number {
  const around: number[] = [];
  for (let k = ITSELF + 1; k <= AROUND; k++) {
    if (look - k >= 0) around.push(height[look - k]!);
    if (look + k < height.length) around.push(height[look + k]!);
  }
  around.sort((a, b) => a - b);
  return around[around.length >> 1] ?? 0;
}

function roleAt({ all, low, middle }: Novelty, look: number): Role {
  const around = (values: Float64Array) => (values[look - 1] ?? 0) + values[look]! + (values[look + 1] ?? 0);
  const sum = around(all);
  if (around(low) > MOSTLY_LOW * sum) return 'low';
  return around(middle) > MOSTLY_MIDDLE * sum ? 'back' : 'other';
}
