import { nearestLine } from '../quantize/grid';
import { placedTick, type Snap } from '../quantize/place';

/** Where a stroke of a recording belongs. */
export interface RecordedPlace {
  /** Which time round the loop, from 0. */
  pass: number;
  /** Struck tick within that pass; below 0 when struck just before the pass it belongs to. */
  struck: number;
  /** Placed tick within that pass: where it would sound next if it were not heard already. */
  placed: number;
}

/**
 * Finds the pass and the place of a stroke recorded into a loop.
 *
 * A stroke just before the loop's end that is placed on the next pass's first step belongs to that pass. A stroke in
 * the last half grid of a count-in belongs to bar 1 beat 1, with input quantize on or off; an earlier one is practice.
 *
 * @param tick struck song tick, counted from the launch of the pattern
 * @param loopLength ticks
 * @param snap the treatment of a new hit, or null to leave it as struck
 * @param grid step of the input grid in ticks, also when `snap` is null
 * @param from where the recording begins, counted from the launch: the end of the count-in
 * @param out filled in; nothing is allocated
 * @returns false when the stroke came too early to belong to the recording
 */
export function placeRecorded(
  tick: number,
  loopLength: number,
  snap: Snap | null,
  grid: number,
  from: number,
  out: RecordedPlace,
): boolean {
  if (nearestLine(tick, grid) < from) return false;
  let pass = Math.max(Math.floor(from / loopLength), Math.floor(tick / loopLength));
  let struck = tick - pass * loopLength;
  let placed = placedTick(struck, snap);
  if (placed >= loopLength) {
    pass++;
    struck -= loopLength;
    placed = placedTick(struck, snap);
  }
  out.pass = pass;
  out.struck = struck;
  out.placed = placed;
  return true;
}
