import type { Snap } from '../quantize/place';
import { flatPoints, moveTable } from '../document/moves';
import type { SoundingHit } from '../sequence/soundingHits';
import { laneFeel } from '../document/treatments';
import { PADS } from '../document/limits';
import type { Pattern } from '../document/pattern';

/** Where each number of a hit stands in its row. Rows are what the engine plays from: they cross to it without conversion. */
export const HIT = {
  /** Placed, in the pattern. */
  TICK: 0,
  STRUCK: 1,
  PAD: 2,
  VELOCITY: 3,
  ID: 4,
  /** Semitones. */
  PITCH: 5,
  ODDS: 6,
  /** Strokes of its roll, 0 for none, and the rest of it. */
  STROKES: 7,
  OVER: 8,
  SWELL: 9,
  GLIDE: 10,
  /** Ticks for which it is held: heard of notes. */
  LENGTH: 11,
} as const;
/** Numbers of a row. */
export const HIT_WIDTH = 12;

/** Writes a hit into a row of `rows`. */
export function writeHit(rows: Float64Array, row: number, hit: SoundingHit): void {
  const at = row * HIT_WIDTH;
  const { roll } = hit;
  rows[at + HIT.TICK] = hit.tick;
  rows[at + HIT.STRUCK] = hit.struck;
  rows[at + HIT.PAD] = hit.pad;
  rows[at + HIT.VELOCITY] = hit.velocity;
  rows[at + HIT.ID] = hit.id;
  rows[at + HIT.PITCH] = hit.pitch;
  rows[at + HIT.ODDS] = hit.odds;
  rows[at + HIT.STROKES] = roll?.strokes ?? 0;
  rows[at + HIT.OVER] = roll?.over ?? 0;
  rows[at + HIT.SWELL] = roll?.swell ?? 0;
  rows[at + HIT.GLIDE] = roll?.glide ?? 0;
  rows[at + HIT.LENGTH] = hit.length;
}

/** Hits as the engine takes them: a row each. */
export function hitRows(hits: readonly SoundingHit[]): Float64Array {
  const rows = new Float64Array(hits.length * HIT_WIDTH);
  hits.forEach((hit, row) => writeHit(rows, row, hit));
  return rows;
}

/** Numbers of one pad's Feel: grid (-1 = no Feel), strength, swing unit (0 = straight), swing ratio, spare. */
const FEEL = { GRID: 0, STRENGTH: 1, SWING_UNIT: 2, SWING_RATIO: 3, SPARE: 4 } as const;
const FEEL_WIDTH = 5;

/** The Feels of a pattern that place new strokes, a row a pad; null when no pad has one. */
export function feelRows(pattern: Pattern): Float64Array | null {
  if (!pattern.feel && !pattern.lanes?.some((lane) => lane.feel)) return null;
  const rows = new Float64Array(PADS * FEEL_WIDTH);
  for (let pad = 0; pad < PADS; pad++) {
    const at = pad * FEEL_WIDTH;
    const feel = laneFeel(pattern, pad);
    rows[at + FEEL.GRID] = feel?.grid ?? -1;
    rows[at + FEEL.STRENGTH] = feel?.strength ?? 0;
    rows[at + FEEL.SWING_UNIT] = feel?.swing?.unit ?? 0;
    rows[at + FEEL.SWING_RATIO] = feel?.swing?.ratio ?? 0;
    rows[at + FEEL.SPARE] = feel?.spare ?? 0;
  }
  return rows;
}

/** A pad's Feel out of `feelRows`, or null. */
export function readFeel(rows: Float64Array, pad: number): Snap | null {
  const at = pad * FEEL_WIDTH;
  const grid = rows[at + FEEL.GRID]!;
  if (grid < 0) return null;
  const unit = rows[at + FEEL.SWING_UNIT]!;
  return {
    grid,
    strength: rows[at + FEEL.STRENGTH]!,
    spare: rows[at + FEEL.SPARE]!,
    ...(unit > 0 && { swing: { unit, ratio: rows[at + FEEL.SWING_RATIO]! } }),
  };
}

/** A pattern's Moves as the engine takes them: table (see `moveTable`), number of points, then tick and value of each, over and over. */
export function moveRows(pattern: Pattern | null): Float64Array {
  const moves = (pattern?.moves ?? []).filter(({ points }) => points.length > 0);
  return Float64Array.from(moves.flatMap((move) => [moveTable(move), move.points.length, ...flatPoints(move.points)]));
}

/** Calls back with each Move out of `moveRows`: its table, and its points as `moveValue` reads them. */
export function readMoves(rows: Float64Array, take: (table: number, points: Float64Array) => void): void {
  for (let at = 0; at < rows.length;) {
    const end = at + 2 + rows[at + 1]! * 2;
    take(rows[at]!, rows.subarray(at + 2, end));
    at = end;
  }
}
