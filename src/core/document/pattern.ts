import type { Feel } from '../quantize/feel';
import { ticksPerBar, type Meter } from '../time/ticks';
import type { Loudness } from './loudness';
import type { Move } from './moves';
import type { Hit } from './hit';

/** Treatments of all hits of one pad. */
export interface Lane {
  pad: number;
  feel?: Feel;
  loudness?: Loudness;
}

/** The stretch of a pattern that goes round, in ticks of the pattern. */
export interface LoopWindow {
  start: number;
  length: number;
}

export interface Pattern {
  name: string;
  /** Index of a feather tone; absent: the track's. */
  colour?: number;
  /** The loop's length in ticks: hits placed at or after it are kept and silent. */
  length: number;
  hits: Hit[];
  /** Absent: the whole pattern goes round. Read it by `windowOf`. */
  window?: LoopWindow;
  moves?: Move[];
  /** Treatments of the whole pattern, and of lanes: the narrowest holds. */
  feel?: Feel;
  loudness?: Loudness;
  lanes?: Lane[];
}

/** Where a pattern lies: the id of its track, and its slot. */
export interface PatternPlace {
  track: number;
  slot: number;
}

/** An empty pattern of one bar. */
export function emptyPattern(name: string, meter: Meter): Pattern {
  return { name, length: ticksPerBar(meter), hits: [] };
}

/** A new, empty pattern for a slot. */
export function newPattern(slot: number, meter: Meter): Pattern {
  return emptyPattern(`Pattern ${slot + 1}`, meter);
}

/** Length of a pattern in bars of the meter. */
export function loopBars(pattern: Pattern, meter: Meter): number {
  return pattern.length / ticksPerBar(meter);
}
