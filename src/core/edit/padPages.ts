import { ticksPerBar, type Meter } from '../time/ticks';
import { PADS } from '../document/limits';

/** A page of steps on the pads: no more than a bar, and no more than there are pads. */
export interface PadPage {
  /** Tick of its first step. */
  start: number;
  steps: number;
  /** Bar of the pattern, from 0. */
  bar: number;
}

/** The pages of a pattern: each bar's steps, sixteen at a time. `step` and `length` in ticks. */
export function padPages(length: number, step: number, meter: Meter): PadPage[] {
  const barTicks = ticksPerBar(meter);
  const pages: PadPage[] = [];
  for (let bar = 0; bar * barTicks < length; bar++) {
    const end = Math.min(length, (bar + 1) * barTicks);
    for (let start = bar * barTicks; start < end; start += PADS * step) {
      pages.push({ start, steps: Math.min(PADS, Math.ceil((end - start) / step)), bar });
    }
  }
  return pages;
}
