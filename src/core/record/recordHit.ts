import { isHomeInLoop } from '../sequence/soundingHits';
import { placedTick, type Snap } from '../quantize/place';

/** The loop that a stroke is recorded into, in ticks of its pattern. */
export interface RecordedLoop {
  /** Length of the pattern. */
  length: number;
  /** The stretch of it that goes round. */
  start: number;
  span: number;
}

/** A stroke that is to find its place. Ticks are song ticks counted from the pattern's tick 0. */
export interface StruckTick {
  tick: number;
  /** The snap that the hit keeps in the document: it tells which time round the loop the hit belongs to; null for none. */
  snap: Snap | null;
  /** What places the hit: its Feel, or the snap; null to leave it as struck. */
  placedBy: Snap | null;
  /** Step of the input grid in ticks, also when `snap` is null. */
  grid: number;
  /** Where the recording begins: the end of the count-in, or where the pattern takes over. */
  from: number;
}

/** Where a stroke belongs. Ticks of the pattern, but for `pass`. */
export interface RecordedPlace {
  /** Which time round the loop, from 0. */
  pass: number;
  /** As struck, on that pass: what the document keeps. */
  struck: number;
  /** Where it is placed; slightly outside the loop when it wraps round its end. */
  placed: number;
  /** False when no line of its snap lies within the loop for it: it is kept as it was struck. */
  keepsSnap: boolean;
}

/** Times round the loop at which a stroke may belong: the one it was struck in, the next, the one before. */
const PASSES = [0, 1, -1] as const;

/**
 * Finds the pass and the place of a stroke recorded into a loop: the first on which the document will let it sound. Lines are
 * counted from the pattern's tick 0, here as in the document, wherever its window begins.
 *
 * A stroke just before the loop's end whose line is the end belongs to the next pass. A stroke in the last half grid of a
 * count-in belongs to bar 1 beat 1, with input quantize on or off; an earlier one is practice.
 *
 * @param out filled in; nothing is allocated
 * @returns false when the stroke came too early to belong to the recording
 * @example 3830 of a loop of 3840 with a grid of 240 -> { pass: 1, struck: -10, placed: 0 }
 */
export function placeRecorded(stroke: StruckTick, loop: RecordedLoop, out: RecordedPlace): boolean {
  const { tick, snap, placedBy, grid, from } = stroke;
  if (tick < from - grid / 2) return false;
  const { start, span } = loop;
  const pass = Math.floor((Math.max(tick, from) - start) / span);
  const struck = tick - pass * span;
  out.keepsSnap = true;
  for (const later of PASSES) {
    out.pass = pass + later;
    out.struck = struck - later * span;
    out.placed = placedTick(out.struck, placedBy);
    if (willSound(placedTick(out.struck, snap), out.placed, loop)) return true;
  }
  out.pass = struck < start ? pass - 1 : pass;
  out.struck = struck < start ? struck + span : struck;
  out.placed = out.struck;
  out.keepsSnap = false;
  return true;
}

/** Whether a hit sounds in a loop: the rule of `soundingHits`, and of the window. A whole pattern wraps its hits round its end. */
function willSound(home: number, placed: number, { length, start, span }: RecordedLoop): boolean {
  if (!isHomeInLoop(home, length)) return false;
  return span === length || (placed >= start && placed < start + span);
}
