import { isInLoop } from './soundingHits';
import { ticksToMs } from '../time/ticks';
import { nearestLine } from '../quantize/grid';
import { median, quantile } from '../statistics';
import { snapOf } from '../document/treatments';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

/** How early or late hits were struck, in ms from their grid lines: below 0 is early. */
export interface EarlyLate {
  count: number;
  median: number;
  /** Interquartile range: the spread of the middle half. */
  spread: number;
  /** Share within ±10 ms, 0..1. */
  close: number;
}

const CLOSE_MS = 10;

/**
 * Distance of each hit from the line it belongs to, in ms.
 * @param grid ticks: measures hits that nothing snaps
 * @param tempo BPM
 */
export function offsetsMs(pattern: Pattern, hits: readonly Hit[], grid: number, tempo: number): number[] {
  return hits
    .filter((hit) => isInLoop(hit, pattern.length))
    .map((hit) => {
      const snap = snapOf(pattern, hit);
      const line = snap && snap.grid > 0 ? nearestLine(hit.tick, snap.grid, snap.swing) : nearestLine(hit.tick, grid);
      return ticksToMs(hit.tick - line, tempo);
    });
}

/** Sums offsets (ms) up; null for none. */
export function earlyLate(offsets: readonly number[]): EarlyLate | null {
  if (offsets.length === 0) return null;
  return {
    count: offsets.length,
    median: median(offsets),
    spread: quantile(offsets, 0.75) - quantile(offsets, 0.25),
    close: offsets.filter((ms) => Math.abs(ms) <= CLOSE_MS).length / offsets.length,
  };
}

export const BIN_MS = 5;
const OUTERMOST_MS = 50;

/** Counts offsets in bins of BIN_MS around 0, from -50 to +50 ms; those beyond count in the outermost. */
export function histogram(offsets: readonly number[]): { ms: number; count: number }[] {
  const bins = new Map<number, number>();
  for (let ms = -OUTERMOST_MS; ms <= OUTERMOST_MS; ms += BIN_MS) bins.set(ms, 0);
  for (const offset of offsets) {
    const bin = Math.max(-OUTERMOST_MS, Math.min(OUTERMOST_MS, Math.round(offset / BIN_MS) * BIN_MS)) + 0;
    bins.set(bin, bins.get(bin)! + 1);
  }
  return [...bins].map(([ms, count]) => ({ ms, count }));
}

/** Smaller differences are inaudible, ms. */
const SAME_MS = 2;
const ON_TIME_MS = 2;

/** "8 ms early", "on time". */
export function offsetWords(ms: number): string {
  const whole = Math.round(ms);
  if (Math.abs(whole) < ON_TIME_MS) return 'on time';
  return `${Math.abs(whole)} ms ${whole < 0 ? 'early' : 'late'}`;
}

/** A take in words beside the one before it: "8 ms early, steadier than the last take". */
export function trendWords(now: EarlyLate, before: EarlyLate | null): string {
  const words = offsetWords(now.median);
  if (!before || before.count < 2 || now.count < 2) return words;
  const change = now.spread - before.spread;
  if (change < -SAME_MS) return `${words}, steadier than the last take`;
  if (change > SAME_MS) return `${words}, less steady than the last take`;
  return `${words}, as steady as the last take`;
}
