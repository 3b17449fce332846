import { ticksPerBar, ticksPerBeat, type Meter } from './ticks';

/** Bar and beat of a song position, both counted from 1. A count-in lies in bar 0 and below. */
export function barAndBeat(songTick: number, meter: Meter): { bar: number; beat: number } {
  const bar = Math.floor(songTick / ticksPerBar(meter));
  const beat = Math.floor((songTick - bar * ticksPerBar(meter)) / ticksPerBeat(meter));
  return { bar: bar + 1, beat: beat + 1 };
}

/** A song position as the transport shows it: `3.2` is the second beat of the third bar. */
export function formatPosition(songTick: number, meter: Meter): string {
  const { bar, beat } = barAndBeat(songTick, meter);
  return `${bar}.${beat}`;
}

/** Whole beats from now until a song tick: what every countdown shows. */
export function beatsUntil(tick: number, now: number, meter: Meter): number {
  return Math.max(1, Math.ceil((tick - now) / ticksPerBeat(meter)));
}
