import { PPQ } from '../time/ticks';
import { MOST_GLIDE, ROLL_STROKES, type Roll } from '../document/roll';
import { MOST_PITCH } from '../document/limits';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

/** What can be set of each hit. Swell and glide are those of its roll. */
export const VALUE_KINDS = ['velocity', 'pitch', 'odds', 'roll', 'swell', 'glide', 'nudge', 'length'] as const;
export type ValueKind = (typeof VALUE_KINDS)[number];

export interface ValueRange {
  min: number;
  max: number;
  /** Values lie this far apart. */
  step: number;
  /** What it is unless it was set. */
  neutral: number;
}

/** Velocity and odds 0..1; pitch and glide in semitones; roll in strokes; swell -1..1; nudge and length in ticks. */
export const VALUE_RANGES: Record<ValueKind, ValueRange> = {
  velocity: { min: 1 / 127, max: 1, step: 1 / 127, neutral: 100 / 127 },
  pitch: { min: -MOST_PITCH, max: MOST_PITCH, step: 0.01, neutral: 0 },
  odds: { min: 0, max: 1, step: 0.01, neutral: 1 },
  roll: { min: 1, max: 8, step: 1, neutral: 1 },
  swell: { min: -1, max: 1, step: 0.01, neutral: 0 },
  glide: { min: -MOST_GLIDE, max: MOST_GLIDE, step: 0.01, neutral: 0 },
  nudge: { min: -PPQ / 8, max: PPQ / 8, step: 0.1, neutral: 0 },
  length: { min: 1, max: 2 * PPQ, step: 1, neutral: PPQ / 8 },
};

/** Clamps a value to its range and rounds it to its step; a roll to the nearest number of strokes that is offered. */
export function tidyValue(kind: ValueKind, value: number): number {
  const { min, max, step } = VALUE_RANGES[kind];
  const inRange = Math.min(max, Math.max(min, value));
  if (kind !== 'roll') return Math.round(Math.round(inRange / step) * step * 1e9) / 1e9;
  return [1, ...ROLL_STROKES].reduce((best, n) => (Math.abs(n - inRange) < Math.abs(best - inRange) ? n : best));
}

/** What a hit's value is. */
export function valueOf(hit: Hit, kind: ValueKind): number {
  switch (kind) {
    case 'roll':
      return hit.roll?.strokes ?? 1;
    case 'swell':
    case 'glide':
      return hit.roll?.[kind] ?? 0;
    default:
      return hit[kind] ?? VALUE_RANGES[kind].neutral;
  }
}

/**
 * The hit with a value. What is neutral leaves no trace in it; swell and glide of a hit that does not roll change nothing.
 * @param over ticks that a new roll fills: the step
 */
export function withValue(hit: Hit, kind: ValueKind, value: number, over: number): Hit {
  const tidy = tidyValue(kind, value);
  switch (kind) {
    case 'velocity':
    case 'length':
      return { ...hit, [kind]: tidy };
    case 'roll':
      return without(hit, 'roll', tidy === 1 ? undefined : { over, swell: 0, glide: 0, ...hit.roll, strokes: tidy });
    case 'swell':
    case 'glide':
      return hit.roll ? { ...hit, roll: { ...hit.roll, [kind]: tidy } } : hit;
    default:
      return without(hit, kind, tidy === VALUE_RANGES[kind].neutral ? undefined : tidy);
  }
}

function without(hit: Hit, key: 'roll' | 'pitch' | 'odds' | 'nudge', value: Roll | number | undefined): Hit {
  const { [key]: _, ...rest } = hit;
  return value === undefined ? rest : { ...rest, [key]: value };
}

/** The pattern with one kind of value of some hits set, by their ids. */
export function withValues(
  pattern: Pattern,
  kind: ValueKind,
  values: ReadonlyMap<number, number>,
  over: number,
): Pattern {
  const hits = pattern.hits.map((hit) => {
    const value = values.get(hit.id);
    return value === undefined ? hit : withValue(hit, kind, value, over);
  });
  return { ...pattern, hits };
}

/** Moves values towards their mean by a share `amount` (0..1) of the distance. */
export function evenedOut(values: ReadonlyMap<number, number>, amount: number): Map<number, number> {
  const mean = [...values.values()].reduce((sum, value) => sum + value, 0) / Math.max(1, values.size);
  return new Map([...values].map(([id, value]) => [id, value + (mean - value) * amount]));
}

/**
 * Adds a random offset of at most ±`range` to each value.
 * @param random gives numbers 0..1
 */
export function scattered(
  values: ReadonlyMap<number, number>,
  range: number,
  random: () => number,
): Map<number, number> {
  return new Map([...values].map(([id, value]) => [id, value + (2 * random() - 1) * range]));
}

/** How a drawn stroke goes from where it began to where the finger is. */
export const STROKES = ['free', 'line', 'curve'] as const;
export type StrokeShape = (typeof STROKES)[number];

/** Share of the way up (0..1) at a share of the way along: straight, or slow to begin and to end. */
export function strokeCourse(shape: StrokeShape, along: number): number {
  return shape === 'curve' ? along * along * (3 - 2 * along) : along;
}
