import { PPQ } from '../time/ticks';

/** The grids of input quantize, coarsest first: the name a musician reads and the length of its step in ticks. */
export const GRIDS = [
  { name: '1/4', ticks: PPQ },
  { name: '1/8', ticks: PPQ / 2 },
  { name: '1/8T', ticks: PPQ / 3 },
  { name: '1/16', ticks: PPQ / 4 },
  { name: '1/16T', ticks: PPQ / 6 },
  { name: '1/32', ticks: PPQ / 8 },
] as const;

export type GridName = (typeof GRIDS)[number]['name'];

export const GRID_NAMES: readonly GridName[] = GRIDS.map((g) => g.name);

/** Ticks of one step of the named grid. */
export function gridTicks(name: GridName): number {
  return GRIDS.find((g) => g.name === name)!.ticks;
}

/** The nearest line of the grid, in ticks. Exactly halfway goes to the later line, as one rounds in print. */
export function nearestLine(tick: number, grid: number): number {
  return Math.floor(tick / grid + 0.5) * grid;
}
