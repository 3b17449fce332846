import type { Fix } from '@/core/score/fix';
import type { Stretch } from '@/core/score/make';
import { stepAt, type Block, type Score, type ScoreTrack } from '@/core/score/score';
import { drawFix, lineOf, type Line } from './scoreLines';

/** By how much a line goes up or down at once: quarter notes per minute, and a share of a line's range. */
const TEMPO_STEP = 1;
const RANGE_STEP = 1 / 20;

/** The fixes that make blocks end later by some ticks, or earlier; those that would be nothing stay as they are. */
export function endFixes(blocks: readonly Block[], by: number): Fix[] {
  return blocks
    .filter(({ length }) => length + by > 0)
    .map(({ id, from, length }) => ({ type: 'boundBlock', block: id, from, length: length + by }));
}

/** The fix that moves a line within a stretch up (1) or down (-1) by a step, as it runs; null if there is nothing of it. */
export function lineFix(score: Score, track: ScoreTrack, line: Line, { from, to }: Stretch, way: 1 | -1): Fix | null {
  const { points, min, max } = lineOf(score, track, line);
  const by = way * (line === 'tempo' ? TEMPO_STEP : (max - min) * RANGE_STEP);
  const inside = points.filter(({ tick }) => tick >= from && tick < to);
  const held = inside[0]?.tick !== from ? [{ tick: from, value: stepAt(points, from) }] : [];
  if (line !== 'tempo' && line !== 'levels') {
    return inside.length > 0 ? { type: 'raiseStrokes', track: track.id, line, from, to, by } : null;
  }
  const steps = [...held, ...inside].map(({ tick, value }) => ({ tick, value: value + by }));
  return steps.length > 0 ? drawFix(line, track.id, from, to, steps) : null;
}
