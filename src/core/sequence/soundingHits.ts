import { difference, ListCopy } from '../difference';
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

/** The last pattern whose tape began with a hit, and its pass. */
const lastPasses = new WeakMap<Hit, { of: Pattern; pass: Pass }>();

function makePass(pattern: Pattern): Pass {
  const first = pattern.hits[0];
  if (!first) return { sounding: [], covered: [] };
  const last = lastPasses.get(first);
  const pass = (last && withOtherEnd(last.of, last.pass, pattern)) ?? passAnew(pattern);
  lastPasses.set(first, { of: pattern, pass });
  return pass;
}

function passAnew(pattern: Pattern): Pass {
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
    (next && inTime(hit, next) === 0 ? pass.covered : pass.sounding).push(hit);
  });
  return pass;
}

/** So many hits at a tape's end are put in one by one; with more, sorting all is as fast. */
const MOST_AT_END = 64;

/** Recording changes only the tape's end: thousands of hits before it need not be looked at again. Null where more has changed. */
function withOtherEnd(old: Pattern, pass: Pass, pattern: Pattern): Pass | null {
  if (!isTreatedAlike(old, pattern)) return null;
  const { start, oldEnd, end } = difference(old.hits, pattern.hits);
  // What comes to the end of the tape comes after its equals.
  if (end < pattern.hits.length || oldEnd - start > MOST_AT_END || end - start > MOST_AT_END) return null;
  const now: Edited = { sounding: new ListCopy(pass.sounding), covered: new ListCopy(pass.covered) };
  for (let i = oldEnd - 1; i >= start; i--) {
    const gone = placedHit(old.hits[i]!, old);
    // It may have been placed otherwise meanwhile, for another pattern that shares it.
    if (gone && !takeOut(now, gone)) return null;
  }
  for (let i = start; i < end; i++) {
    const come = placedHit(pattern.hits[i]!, pattern);
    if (come) putIn(now, come);
  }
  return { sounding: now.sounding.done(), covered: now.covered.done() };
}

type Edited = Record<keyof Pass, ListCopy<SoundingHit>>;

/** Takes out the hit that came last; what it covered sounds again. Returns whether it was there. */
function takeOut({ sounding, covered }: Edited, hit: SoundingHit): boolean {
  const at = firstAfter(sounding.list, hit) - 1;
  if (sounding.list[at] !== hit) return false;
  const beneath = firstAfter(covered.list, hit) - 1;
  const isCovering = beneath >= 0 && inTime(covered.list[beneath]!, hit) === 0;
  sounding.splice(at, 1, isCovering ? covered.splice(beneath, 1, []) : []);
  return true;
}

/** Puts in a hit that comes last; its equal is covered from now on. */
function putIn({ sounding, covered }: Edited, hit: SoundingHit): void {
  const at = firstAfter(sounding.list, hit);
  const before = sounding.list[at - 1];
  if (before && inTime(before, hit) === 0) {
    covered.splice(firstAfter(covered.list, before), 0, [before]);
    sounding.splice(at - 1, 1, [hit]);
  } else sounding.splice(at, 0, [hit]);
}

/** Index of the first of the hits that comes after one in time. */
function firstAfter(hits: readonly SoundingHit[], hit: Place): number {
  let low = 0;
  let high = hits.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (inTime(hits[middle]!, hit) > 0) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The hit of a pad that sounds on a tick, if there is one. */
export function hitAt(sounding: readonly SoundingHit[], tick: number, pad: number): SoundingHit | undefined {
  const hit = sounding[firstAfter(sounding, { tick, pad }) - 1];
  return hit?.tick === tick && hit.pad === pad ? hit : undefined;
}

/** What decides how a pattern's hits are placed and weighed. */
type Treatment = Pick<Pattern, 'length' | 'feel' | 'loudness' | 'lanes'>;

/** Whether two patterns are of one length, and place and weigh their hits alike. */
export function isTreatedAlike(a: Treatment, b: Treatment): boolean {
  return a.length === b.length && a.feel === b.feel && a.loudness === b.loudness && a.lanes === b.lanes;
}

/** Cache of each hit's placement, so that one more hit in a pattern does not place the others again. */
const lastPlaced = new WeakMap<Hit, { under: Treatment; sounding: SoundingHit | null }>();

function placedHit(hit: Hit, pattern: Pattern): SoundingHit | null {
  const last = lastPlaced.get(hit);
  if (last && isTreatedAlike(last.under, pattern)) return last.sounding;
  const { length, feel, loudness, lanes } = pattern;
  const sounding = place(hit, pattern);
  lastPlaced.set(hit, { under: { length, feel, loudness, lanes }, sounding });
  return sounding;
}

type Place = Pick<SoundingHit, 'tick' | 'pad'>;

const inTime = (a: Place, b: Place) => a.tick - b.tick || a.pad - b.pad;

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
