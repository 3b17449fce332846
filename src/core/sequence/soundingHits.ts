import { treatedVelocity } from '../document/loudness';
import { mod } from '../time/ticks';
import { placedTick } from '../quantize/place';
import { loudnessOf, snapOf } from '../document/treatments';
import type { Roll } from '../document/roll';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

/** A hit as it sounds in one pass of its pattern. */
export interface SoundingHit {
  /** Placed tick within the loop, with its fraction, 0 <= tick < pattern length. */
  tick: number;
  /** Struck tick on the same pass, as near `tick` as it was struck; may lie outside the loop. */
  struck: number;
  pad: number;
  /** As treated, 0..1. */
  velocity: number;
  length: number;
  id: number;
  /** Semitones. */
  pitch: number;
  /** 0..1 */
  odds: number;
  roll: Roll | null;
}

/** What one pass of a pattern holds. */
export interface Pass {
  /** What sounds, in order of time. */
  sounding: SoundingHit[];
  /** What would sound, but for another hit of its pad that holds the same tick. Kept, and back with a finer grid. */
  covered: SoundingHit[];
}

const passes = new WeakMap<Pattern, Pass>();

/**
 * What a pattern plays in one pass: the one rule for the engine, the exports and every picture.
 *
 * - Which bar a hit belongs to is told by the snap it was recorded with: one placed at or after the loop's length is
 *   silent (kept on the tape), one placed before the loop's start sounds at the loop's end, just before its start.
 * - Where in the loop it sounds is told by its Feel, round the loop's end: pulled onto the end, it sounds on the start.
 * - A nudge moves it from there.
 * - Where several hits of one pad share a tick the last recorded sounds; the others are covered.
 */
export function passOf(pattern: Pattern): Pass {
  let pass = passes.get(pattern);
  if (!pass) {
    pass = makePass(pattern);
    passes.set(pattern, pass);
  }
  return pass;
}

export function soundingHits(pattern: Pattern): SoundingHit[] {
  return passOf(pattern).sounding;
}

function makePass(pattern: Pattern): Pass {
  const placed: SoundingHit[] = [];
  for (const hit of pattern.hits) {
    const sounding = placedHit(hit, pattern);
    if (sounding) placed.push(sounding);
  }
  // Sorting keeps the order of what is equal: of several hits of a pad on one tick the last recorded comes last.
  placed.sort(inTime);
  const pass: Pass = { sounding: [], covered: [] };
  placed.forEach((hit, i) => {
    const next = placed[i + 1];
    const isCovered = next !== undefined && next.tick === hit.tick && next.pad === hit.pad;
    (isCovered ? pass.covered : pass.sounding).push(hit);
  });
  return pass;
}

/** What places and weighs a hit, and what came of it. */
interface Placed {
  length: number;
  feel: Pattern['feel'];
  loudness: Pattern['loudness'];
  lanes: Pattern['lanes'];
  sounding: SoundingHit | null;
}

/** Cache of each hit's placement, so that one more hit in a pattern does not place the others again. */
const lastPlaced = new WeakMap<Hit, Placed>();

function placedHit(hit: Hit, pattern: Pattern): SoundingHit | null {
  const { length, feel, loudness, lanes } = pattern;
  const last = lastPlaced.get(hit);
  const isSame =
    last && last.length === length && last.feel === feel && last.loudness === loudness && last.lanes === lanes;
  if (isSame) return last.sounding;
  const sounding = place(hit, pattern);
  lastPlaced.set(hit, { length, feel, loudness, lanes, sounding });
  return sounding;
}

const inTime = (a: SoundingHit, b: SoundingHit) => a.tick - b.tick || a.pad - b.pad;

/** Where a hit was recorded to: what tells its bar, and what edits move it by, so that it keeps how early or late it was. */
export function homeOf(hit: Hit): number {
  return placedTick(hit.tick, hit.snap);
}

/** Whether a hit lies within the loop as it is now, and not beyond its end. */
export function isInLoop(hit: Hit, length: number): boolean {
  return isHomeInLoop(homeOf(hit), length);
}

/** Whether what was recorded to a tick lies within a loop; one before its start sounds at its end. */
export function isHomeInLoop(home: number, length: number): boolean {
  return home < length && home >= -length;
}

function place(hit: Hit, pattern: Pattern): SoundingHit | null {
  const { length } = pattern;
  if (!isInLoop(hit, length)) return null;
  const placed = placedTick(hit.tick, snapOf(pattern, hit)) + (hit.nudge ?? 0);
  let tick = mod(placed, length);
  if (tick < 0 || tick >= length) tick = 0; // a hair before the start
  const velocity = treatedVelocity(hit.velocity, tick, loudnessOf(pattern, hit));
  const { pad, length: held, id, pitch = 0, odds = 1, roll = null } = hit;
  return { tick, struck: hit.tick + (tick - placed), pad, velocity, length: held, id, pitch, odds, roll };
}
