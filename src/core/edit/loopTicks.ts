import { ticksPerBar, type Meter } from '../time/ticks';
import { LOOP_BARS } from '../document/limits';

/** The loop length, of those offered, that is nearest to `bars`. */
export function nearestLoopBars(bars: number): number {
  return LOOP_BARS.reduce<number>((best, b) => (Math.abs(b - bars) < Math.abs(best - bars) ? b : best), LOOP_BARS[0]);
}

/** Length in ticks of the loop length nearest to `bars` that is offered. Hits beyond a shorter loop are kept and silent (see `soundingHits`). */
export function loopTicks(bars: number, meter: Meter): number {
  return nearestLoopBars(bars) * ticksPerBar(meter);
}
