import { PPQ } from '../time/ticks';
import { swungTick, swings, unswungTick, type Swing } from './swing';

/**
 * The grids, coarsest first: the name a musician reads and the length of its step in ticks. T is a triplet (three in
 * the time of two), D is dotted (one and a half).
 */
export const GRIDS = [
  { name: '1/4D', ticks: (PPQ * 3) / 2 },
  { name: '1/4', ticks: PPQ },
  { name: '1/8D', ticks: (PPQ * 3) / 4 },
  { name: '1/4T', ticks: (PPQ * 2) / 3 },
  { name: '1/8', ticks: PPQ / 2 },
  { name: '1/16D', ticks: (PPQ * 3) / 8 },
  { name: '1/8T', ticks: PPQ / 3 },
  { name: '1/16', ticks: PPQ / 4 },
  { name: '1/32D', ticks: (PPQ * 3) / 16 },
  { name: '1/16T', ticks: PPQ / 6 },
  { name: '1/32', ticks: PPQ / 8 },
  { name: '1/64D', ticks: (PPQ * 3) / 32 },
  { name: '1/32T', ticks: PPQ / 12 },
  { name: '1/64', ticks: PPQ / 16 },
  { name: '1/64T', ticks: PPQ / 24 },
] as const;

export type GridName = (typeof GRIDS)[number]['name'];

export const GRID_NAMES: readonly GridName[] = GRIDS.map((g) => g.name);

/** The grids that hands are quantized to on the way in, coarsest first. */
export const INPUT_GRIDS = ['1/4', '1/8', '1/8T', '1/16', '1/16T', '1/32'] as const satisfies readonly GridName[];

/**
 * Ticks of one step of the named grid.
 * @example gridTicks('1/8T') // 320
 */
export function gridTicks(name: GridName): number {
  return GRIDS.find((g) => g.name === name)!.ticks;
}

/** The rates of note repeat, slowest first: 1/4 to 1/64, straight, triplet and dotted. */
export const REPEAT_RATES: readonly GridName[] = GRIDS.map((grid) => grid.name).filter((name) => name !== '1/4D');

/**
 * The nearest line of the grid, in ticks; swung lines keep their fraction. Exactly halfway goes to the later line, as
 * one rounds in print.
 * @example nearestLine(119, 240) // 0; nearestLine(120, 240) // 240
 */
export function nearestLine(tick: number, grid: number, swing?: Swing): number {
  if (!swing || !swings(grid, swing)) return Math.floor(tick / grid + 0.5) * grid;
  // Between two swung lines the middle is not the straight middle swung.
  const k = Math.floor(unswungTick(tick, swing) / grid);
  let best = swungTick((k - 1) * grid, swing);
  for (const candidate of [swungTick(k * grid, swing), swungTick((k + 1) * grid, swing)]) {
    if (Math.abs(candidate - tick) <= Math.abs(best - tick)) best = candidate;
  }
  return best;
}

/**
 * The first line of the grid after `tick`.
 * @example nextLine(240, 240) // 480
 */
export function nextLine(tick: number, grid: number, swing?: Swing): number {
  const swung = swing !== undefined && swings(grid, swing);
  // One early: arithmetic may put a tick on a line a hair to either side of it.
  let k = Math.floor((swung ? unswungTick(tick, swing) : tick) / grid) - 1;
  for (;;) {
    const line = swung ? swungTick(k * grid, swing) : k * grid;
    if (line > tick) return line;
    k++;
  }
}
