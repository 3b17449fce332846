import { GRIDS, nearestLine, type GridName } from './grid';
import { counted } from '../counted';
import { median } from '../statistics';

/** The grids that are suggested, coarsest first. Dotted grids are chosen, never suggested. */
const CANDIDATES = GRIDS.filter((grid) => !grid.name.endsWith('D'));

/** How far hands stray from the line they mean (standard deviation, ms): the least that is believed, and the most. */
const STEADIEST_MS = 4;
const LOOSEST_MS = 18;
/**
 * A stroke further than this from its line, once the lane's own lateness is taken away, means another line: ms, and times the
 * spread for hands that are looser.
 */
const FURTHEST_MS = 42;
const FURTHEST_SPREADS = 3.2;
/** How early or late a whole lane may lean, ms, and (softly) does. */
const LEAN_MS = 30;
const USUAL_LEAN_MS = 18;
/** A pair of strokes of a pad nearer than this is a flam or a bounce of the stick, and meant as one. */
const BOUNCE_MS = 36;
/** Straight grids are met more often than triplets; in the units of a log likelihood. */
const TRIPLET_PENALTY = 1.5;

export interface GridSuggestion {
  grid: GridName;
  ticks: number;
  /** In words, with the lane's name. */
  reason: string;
}

/**
 * The coarsest grid that keeps every hit of a lane apart and near its place: the smallest division that was played
 * (the rule of the trade, common practice).
 *
 * Each candidate is judged by how likely it makes the strokes: they stray around its lines by a normal spread and a
 * common lean, both fitted within what hands do, and a fine grid, to which anything is near, pays for its many lines.
 *
 * @param ticks struck ticks of the lane's hits
 * @param msPerTick at the tempo played
 * @param lane its name, for the reason
 * @returns null for fewer than two hits, or when no grid keeps them apart
 * @example suggestGrid([0, 480, 960, 1450], 0.52, 'Kick') // { grid: '1/8', ticks: 480, reason: ... }
 */
export function suggestGrid(ticks: readonly number[], msPerTick: number, lane: string): GridSuggestion | null {
  const meant = withoutBounces(ticks, msPerTick);
  if (meant.length < 2) return null;
  let best: { grid: (typeof CANDIDATES)[number]; score: number } | null = null;
  for (const grid of CANDIDATES) {
    const score = judge(meant, grid.ticks, msPerTick) - (grid.name.endsWith('T') ? TRIPLET_PENALTY : 0);
    if (score > (best?.score ?? -Infinity)) best = { grid, score };
  }
  if (!best) return null;
  const { name, ticks: step } = best.grid;
  return { grid: name, ticks: step, reason: reasonFor(meant, step, name, lane) };
}

/** Without the second stroke of each pair that is a flam or a bounce. Three and more that near are a roll, and stay. */
function withoutBounces(ticks: readonly number[], msPerTick: number): number[] {
  const sorted = [...ticks].sort((a, b) => a - b);
  const isNear = (i: number) => (sorted[i]! - sorted[i - 1]!) * msPerTick < BOUNCE_MS;
  return sorted.filter((_, i) => !isNear(i) || isNear(i - 1) || isNear(i + 1));
}

/** Log likelihood of the strokes on a grid; -Infinity when it does not keep them apart and near. */
function judge(ticks: readonly number[], grid: number, msPerTick: number): number {
  const step = grid * msPerTick;
  let best = -Infinity;
  // The lean that centres the strokes is looked for around several starts: near half a step the residuals wrap round.
  for (const start of [0, -10, 10, -20, 20]) {
    let lean = start;
    for (let i = 0; i < 3; i++) lean = median(residuals(ticks, grid, msPerTick, lean).map((ms) => ms + lean));
    if (Math.abs(lean) > LEAN_MS) continue;
    const off = residuals(ticks, grid, msPerTick, lean);
    const meanSquare = off.reduce((sum, ms) => sum + ms * ms, 0) / off.length;
    const spread = Math.min(LOOSEST_MS, Math.max(STEADIEST_MS, Math.sqrt(meanSquare)));
    const furthest = Math.max(FURTHEST_MS, FURTHEST_SPREADS * spread);
    if (off.some((ms) => Math.abs(ms) > furthest)) continue;
    if (!keepsApart(ticks, grid, msPerTick, lean)) continue;
    const fit = off.reduce((sum, ms) => sum - (ms * ms) / (2 * spread * spread) - Math.log(spread) + Math.log(step), 0);
    const leaning = -(lean * lean) / (2 * USUAL_LEAN_MS * USUAL_LEAN_MS);
    if (fit + leaning > best) best = fit + leaning;
  }
  return best;
}

/** Distance of each stroke from its line in ms, with the common lean taken away. */
function residuals(ticks: readonly number[], grid: number, msPerTick: number, leanMs: number): number[] {
  return ticks.map((tick) => {
    const upright = tick - leanMs / msPerTick;
    return (upright - nearestLine(upright, grid)) * msPerTick;
  });
}

function keepsApart(ticks: readonly number[], grid: number, msPerTick: number, leanMs: number): boolean {
  return new Set(ticks.map((tick) => nearestLine(tick - leanMs / msPerTick, grid))).size === ticks.length;
}

function reasonFor(ticks: readonly number[], step: number, name: GridName, lane: string): string {
  const coarser = CANDIDATES.filter((grid) => grid.ticks > step && grid.ticks % step === 0).pop();
  if (!coarser) return `${lane} keeps to ${name}: nothing shorter was played.`;
  const lines = ticks.map((tick) => nearestLine(tick, step));
  const between = lines.filter((line) => line % coarser.ticks !== 0).length;
  const together = ticks.length - new Set(ticks.map((tick) => nearestLine(tick, coarser.ticks))).size;
  if (between === 0) return `${lane} fits ${name} best.`;
  const hits = counted(between, 'hit');
  const meet =
    together > 0 ? `; ${together === 1 ? 'one would meet another' : `${together} would meet others`} on it` : '';
  return `${lane} has ${hits} between the lines of ${coarser.name}${meet}: ${name} is the smallest division played.`;
}
