import { ticksPerBar, ticksPerBeat, type Meter } from './ticks';

/**
 * Bar and beat of a song position, both counted from 1. A count-in lies in bar 0 and below.
 * @example barAndBeat(4800, { beats: 4, unit: 4 }) // { bar: 2, beat: 2 }
 */
export function barAndBeat(songTick: number, meter: Meter): { bar: number; beat: number } {
  const bar = Math.floor(songTick / ticksPerBar(meter));
  const beat = Math.floor((songTick - bar * ticksPerBar(meter)) / ticksPerBeat(meter));
  return { bar: bar + 1, beat: beat + 1 };
}

/**
 * A song position as the transport shows it.
 * @example formatPosition(8640, { beats: 4, unit: 4 }) // '3.2', the second beat of the third bar
 */
export function formatPosition(songTick: number, meter: Meter): string {
  const { bar, beat } = barAndBeat(songTick, meter);
  return `${bar}.${beat}`;
}

/**
 * Whole beats from now until a song tick, at least 1: what every countdown shows.
 * @example beatsUntil(3840, 1000, { beats: 4, unit: 4 }) // 3
 */
export function beatsUntil(tick: number, now: number, meter: Meter): number {
  return Math.max(1, Math.ceil((tick - now) / ticksPerBeat(meter)));
}
