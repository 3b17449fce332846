import type { Block, Score, Step, Stroke } from '@/core/score/score';
import { RULER_PX, type ScorePicture } from './drawScore';

/** What lies under a finger. */
export type Touched =
  | { kind: 'name'; row: number }
  | { kind: 'ruler'; tick: number }
  | { kind: 'line'; tick: number; value: number }
  | { kind: 'hit'; row: number; tick: number; hit: Stroke }
  /** `edge`: near enough to one of its ends to take hold of it. */
  | { kind: 'block'; row: number; tick: number; block: Block; edge: 'from' | 'to' | null }
  | { kind: 'row'; row: number; tick: number };

type Seen = Pick<ScorePicture, 'plan' | 'from' | 'to' | 'line'> & { score: Score };

/** How near to a hit or a block's end a finger must be, px. */
const NEAR_PX = 12;

/** The tick at an x, px. */
export function tickAt({ plan, from, to }: Pick<Seen, 'plan' | 'from' | 'to'>, x: number): number {
  return from + ((x - plan.names) / (plan.width - plan.names)) * (to - from);
}

/** The value of the line at a y, px. */
export function valueAt({ plan, line }: Pick<Seen, 'plan' | 'line'>, y: number): number {
  const height = plan.height - plan.lineTop - 10;
  const share = Math.min(1, Math.max(0, 1 - (y - plan.lineTop - 3) / height));
  return line.min + share * (line.max - line.min);
}

/** What lies at a place of a score's picture, px from its left and top. */
export function touchedAt(seen: Seen, x: number, y: number): Touched {
  const { plan, score } = seen;
  const row = Math.floor((y - plan.rowsTop) / plan.rowHeight);
  const track = score.tracks[row];
  const tick = tickAt(seen, x);
  if (y >= plan.lineTop) return { kind: 'line', tick, value: valueAt(seen, y) };
  if (track && x < plan.names) return { kind: 'name', row };
  if (y < RULER_PX) return { kind: 'ruler', tick };
  if (!track) return { kind: 'row', row: -1, tick };
  const near = (NEAR_PX * (seen.to - seen.from)) / (plan.width - plan.names);
  // Hits lie in the lower half of a row, over its blocks.
  if (y > plan.rowsTop + (row + 0.5) * plan.rowHeight) {
    const hit = nearest(track.hits, tick, near);
    if (hit) return { kind: 'hit', row, tick, hit };
  }
  const block = track.blocks.find(({ from, length }) => tick >= from && tick < from + length);
  if (!block) return { kind: 'row', row, tick };
  const grip = Math.min(near, block.length / 4);
  const edge = tick - block.from < grip ? 'from' : block.from + block.length - tick < grip ? 'to' : null;
  return { kind: 'block', row, tick, block, edge };
}

function nearest(hits: readonly Stroke[], tick: number, within: number): Stroke | null {
  let found: Stroke | null = null;
  for (const hit of hits) {
    const away = Math.abs(hit.tick - tick);
    if (away <= within && (!found || away < Math.abs(found.tick - tick))) found = hit;
  }
  return found;
}

/**
 * A tick brought to a grid of `step` ticks; 0 leaves it.
 * @example snapped(1900, 960) // 1920
 */
export function snapped(tick: number, step: number): number {
  return step > 0 ? Math.round(tick / step) * step : tick;
}

/** The points of a drawn line: those of the finger, of which none lies before the one before. */
export function drawnTo(steps: readonly Step[], tick: number, value: number): Step[] {
  const last = steps.at(-1);
  const forth = !last || tick >= (steps[0]?.tick ?? 0);
  const kept = forth ? steps.filter((step) => step.tick < tick) : steps.filter((step) => step.tick > tick);
  return forth ? [...kept, { tick, value }] : [{ tick, value }, ...kept];
}
