import { stepCount } from '@/core/edit/steps';

export const RULER_PX = 48;
/** Lanes are as high as a finger needs, and higher when there is room. */
const LANE_PX = 44;

/** Where steps and lanes lie on the screen, in px within the cells. */
export interface Geometry {
  width: number;
  height: number;
  /** How many lanes there are. */
  lanes: number;
  laneHeight: number;
  /** How far the lanes are scrolled, and the most that they can be. */
  y: number;
  mostY: number;
  /** Step size, ticks. */
  step: number;
  /** Steps of the pattern, the first in view, and how many are. */
  count: number;
  from: number;
  inView: number;
  /** First tick in view, ticks in view, px a tick. */
  start: number;
  span: number;
  scale: number;
}

interface Asked {
  width: number;
  height: number;
  lanes: number;
  /** Ticks of the pattern, of a step, and in view. */
  length: number;
  step: number;
  span: number;
  /** Ticks and px that are scrolled to, which may lie outside. */
  scrollX: number;
  scrollY: number;
}

export function geometryOf({ width, height, lanes, length, step, span, scrollX, scrollY }: Asked): Geometry {
  const shown = Math.min(span, length);
  const laneHeight = Math.max(LANE_PX, Math.floor(height / lanes));
  const mostY = Math.max(0, laneHeight * lanes - height);
  const count = stepCount(length, step);
  const inView = Math.min(count, Math.ceil(shown / step));
  // Time scrolls by whole steps, so that no cell is cut at the left.
  const from = Math.min(Math.max(0, Math.round(scrollX / step)), Math.max(0, count - inView));
  return {
    width,
    height,
    lanes,
    laneHeight,
    y: Math.round(Math.min(mostY, Math.max(0, scrollY))),
    mostY,
    step,
    count,
    from,
    inView,
    start: from * step,
    span: shown,
    scale: width / shown,
  };
}

/** x of a tick. */
export function xOf({ start, scale }: Geometry, tick: number): number {
  return (tick - start) * scale;
}

/** The lane (from the top) and the step at a place in the cells. */
export function cellAt(g: Geometry, x: number, y: number): { lane: number; index: number } {
  const lane = Math.floor((y + g.y) / g.laneHeight);
  const index = g.from + Math.floor(x / g.scale / g.step);
  return { lane: Math.min(g.lanes - 1, Math.max(0, lane)), index: Math.min(g.count - 1, Math.max(0, index)) };
}

/** Tick at a place in the cells. */
export function tickAtX({ start, scale }: Geometry, x: number): number {
  return start + x / scale;
}
