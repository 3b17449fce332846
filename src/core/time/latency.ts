import { median } from '../statistics';

/** Taps needed for a reading. */
export const TAPS_NEEDED = 5;
/** The first clicks only give the tempo. */
export const LEAD_IN_CLICKS = 2;
/** Clicks that are tapped along with. */
export const CHECK_CLICKS = 8;

export interface LatencyReading {
  /** Median of tap minus click, ms: how much later the device tells of a touch than it happened. */
  offsetMs: number;
  /** Half of the middle half of the taps lies within this of the median, ms. */
  steadyMs: number;
  taps: number;
}

/**
 * Reads the delay of an input device from taps along with clicks. Each tap belongs to the click it is nearest to; a tap
 * further than half a click's distance from any, or the second one of a click, is none.
 * @param clicks times at which clicks were heard, ms
 * @param taps times of the taps on the same clock, ms
 * @returns null for fewer than TAPS_NEEDED taps
 */
export function readLatency(clicks: readonly number[], taps: readonly number[]): LatencyReading | null {
  const counted = clicks.slice(LEAD_IN_CLICKS);
  if (counted.length < 2) return null;
  const half = (counted[1]! - counted[0]!) / 2;
  const nearest = new Map<number, number>();
  for (const tap of taps) {
    for (const click of counted) {
      const offset = tap - click;
      if (Math.abs(offset) > half) continue;
      const before = nearest.get(click);
      if (before === undefined || Math.abs(offset) < Math.abs(before)) nearest.set(click, offset);
    }
  }
  const offsets = [...nearest.values()];
  if (offsets.length < TAPS_NEEDED) return null;
  const offsetMs = median(offsets);
  return { offsetMs, steadyMs: median(offsets.map((o) => Math.abs(o - offsetMs))), taps: offsets.length };
}
