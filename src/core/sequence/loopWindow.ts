import { SHORTEST_LOOP } from '../document/limits';
import { mod } from '../time/ticks';
import type { LoopWindow, Pattern } from '../document/pattern';

/** A window brought into a pattern of some length: as long as it was, if that fits. */
export function fitWindow(start: number, length: number, patternLength: number): LoopWindow {
  const fitted = Math.min(patternLength, Math.max(SHORTEST_LOOP, length));
  return { start: Math.min(patternLength - fitted, Math.max(0, start)), length: fitted };
}

/** The stretch of a pattern that goes round. */
export function windowOf({ window, length }: Pattern): LoopWindow {
  return window ? fitWindow(window.start, window.length, length) : { start: 0, length };
}

/** Whether less than the whole pattern goes round. */
export function isWindowed(pattern: Pattern): boolean {
  return windowOf(pattern).length < pattern.length;
}

/**
 * Where a loop is, in ticks of its pattern. Computed from the launch alone: whatever the window was meanwhile, the loop is
 * where it would have been.
 * @param sinceLaunch song ticks since the pattern was launched
 */
export function loopPosition({ start, length }: LoopWindow, sinceLaunch: number): number {
  return start + mod(sinceLaunch - start, length);
}
