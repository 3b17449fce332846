import { PPQ } from '../time/ticks';
import type { Beat } from '../quantize/estimateBeat';
import { nearestLine } from '../quantize/grid';
import type { Snap } from '../quantize/place';
import type { PlayedStroke } from './justPlayed';
import type { Hit } from '../document/hit';

/** A stroke in musical time: ticks from any bar line. */
export interface PlacedStroke {
  stroke: PlayedStroke;
  tick: number;
}

/** The strokes played with the song, by its ticks. */
export function onSong(strokes: readonly PlayedStroke[]): PlacedStroke[] {
  return strokes.map((stroke) => ({ stroke, tick: stroke.songTick ?? 0 }));
}

/** Free strokes by an estimated beat. */
export function onBeat(strokes: readonly PlayedStroke[], beat: Beat): PlacedStroke[] {
  const ticksPerMs = (beat.tempo * PPQ) / 60000;
  return strokes.map((stroke) => ({ stroke, tick: (stroke.ms - beat.firstBeatMs) * ticksPerMs }));
}

/** Which bars are wanted. Ticks. */
export interface BarsWanted {
  bars: number;
  /** Length of a bar, and of a beat. */
  bar: number;
  beat: number;
  /** A stroke within half of it before a bar line belongs to that bar, quantized or not. */
  grid: number;
  /** Song tick, or null when nothing plays. */
  now: number | null;
}

/**
 * The bars to keep: the last `bars` that were played whole.
 * - While the song goes on and the player with it, the last bar that is over, or in its last beat, is the last one kept.
 * - Else it is the bar of the last stroke; a last stroke on a bar's first step closes the bar before.
 * @returns tick of the first bar's start; the strokes decide how early it may lie, never before the first one's bar
 */
export function keptFrom(placed: readonly PlacedStroke[], { bars, bar, beat, grid, now }: BarsWanted): number {
  const last = placed[placed.length - 1];
  const first = placed[0];
  if (!last || !first) return 0;
  const barOf = (tick: number) => barStart(tick, bar, grid);
  const firstBar = barOf(first.tick);
  let end: number;
  if (now !== null && now - last.tick < bar) {
    end = Math.floor((now + beat) / bar) * bar;
  } else {
    const lastBar = barOf(last.tick);
    const closes = placed.every(({ tick }) => barOf(tick) < lastBar || nearestLine(tick - lastBar, grid) === 0);
    end = closes ? lastBar : lastBar + bar;
  }
  end = Math.max(end, firstBar + bar);
  return Math.max(end - bars * bar, firstBar);
}

/**
 * Start of the bar to which a stroke belongs, in ticks. Lines are counted from each bar's start, also where the grid does not
 * fit the bar (quarters in 7/8): a stroke that is nearer to the next bar line than to the last line before it is that bar's.
 * @example barStart(10070, 3360, 960) -> 10080
 */
export function barStart(tick: number, barTicks: number, grid: number): number {
  const bar = Math.floor(tick / barTicks) * barTicks;
  const lastLine = (Math.ceil(barTicks / grid) - 1) * grid;
  return tick - bar >= (lastLine + barTicks) / 2 ? bar + barTicks : bar;
}

/** A stretch of playing that becomes hits. Ticks. */
export interface Stretch {
  /** Its first bar's start, and its length. */
  from: number;
  length: number;
  /** What new hits are quantized with, or null. */
  snap: Snap | null;
  /** As of `BarsWanted`. */
  grid: number;
  ticksPerMs: number;
}

/**
 * The hits of a stretch of playing.
 * @param newId called for the id of each hit
 */
export function keptHits(
  placed: readonly PlacedStroke[],
  { from, length, snap, grid, ticksPerMs }: Stretch,
  newId: () => number,
): Hit[] {
  return placed
    .filter(({ tick }) => {
      const home = nearestLine(tick - from, grid);
      return home >= 0 && home < length;
    })
    .map(({ stroke, tick }) => ({
      id: newId(),
      pad: stroke.pad,
      tick: tick - from,
      length: Math.min(length, Math.max(1, Math.round(stroke.heldMs * ticksPerMs))),
      velocity: stroke.velocity,
      snap,
      ...(stroke.pitch && { pitch: stroke.pitch }),
    }));
}
