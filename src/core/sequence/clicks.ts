import { mod, ticksPerBar, ticksPerBeat, ticksPerPulse, type Meter } from '../time/ticks';

/** How strong a click is: first of the bar, first of a group (6/8 is two threes), a beat, or between the beats. */
export const CLICK = { BAR: 0, GROUP: 1, BEAT: 2, BETWEEN: 3 } as const;

/** The first song tick after `songTick` that has a click. `between`: ticks of the clicks between beats, 0 for none. */
export function nextClick(songTick: number, meter: Meter, between: number): number {
  const beat = ticksPerBeat(meter);
  const next = (Math.floor(songTick / beat) + 1) * beat;
  if (between <= 0 || between >= beat) return next;
  // Counted from the beat, so that triplets and sixteenths alike begin on it.
  const start = next - beat;
  return Math.min(next, start + (Math.floor((songTick - start) / between) + 1) * between);
}

/** Strength of the click at a song tick. */
export function clickStrength(songTick: number, meter: Meter): number {
  const beat = ticksPerBeat(meter);
  const within = mod(songTick, ticksPerBar(meter));
  if (within === 0) return CLICK.BAR;
  if (within % beat !== 0) return CLICK.BETWEEN;
  const pulse = ticksPerPulse(meter);
  return pulse > beat && within % pulse === 0 ? CLICK.GROUP : CLICK.BEAT;
}
