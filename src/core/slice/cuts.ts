import { MOST_CUTS } from '../document/sample';
import type { Sound } from '../document/sound';
import type { SampleAudio } from '../sample/levels';

/** From one frame of a sample up to another, without that. */
export interface Piece {
  from: number;
  to: number;
}

/** Shortest piece, frames at 48 kHz: 5 ms. */
export const SHORTEST_PIECE = 240;

/** The part of its sample that a sound plays. */
export function playedPart({ start = 0, end = 1 }: Sound['settings'], frames: number): Piece {
  const [from, to] = [Math.min(start, end), Math.max(start, end)].map((share) => Math.round(share * frames)) as [number, number]; // prettier-ignore
  return { from, to: Math.max(to, from + 1) };
}

/**
 * The pieces into which cuts divide a part; cuts outside of it divide nothing.
 * @example piecesOf([100, 500], { from: 200, to: 900 }) // [{ from: 200, to: 500 }, { from: 500, to: 900 }]
 */
export function piecesOf(cuts: readonly number[], { from, to }: Piece): Piece[] {
  const within = cuts.filter((cut) => cut > from && cut < to);
  const edges = [from, ...within, to];
  return edges.slice(0, -1).map((edge, i) => ({ from: edge, to: edges[i + 1]! }));
}

/**
 * Frames in the form that cuts have: whole numbers in order, no piece shorter than SHORTEST_PIECE, at most MOST_CUTS. Of two that are
 * too near each other the first stays.
 */
export function asCuts(frames: readonly number[], part: Piece): number[] {
  const cuts: number[] = [];
  for (const frame of frames.map(Math.round).sort((a, b) => a - b)) {
    const last = cuts.at(-1) ?? part.from;
    if (frame - last >= SHORTEST_PIECE && part.to - frame >= SHORTEST_PIECE && cuts.length < MOST_CUTS)
      cuts.push(frame);
  }
  return cuts;
}

/** Cuts that divide a part in so many pieces of the same length. */
export function equalCuts(part: Piece, pieces: number): number[] {
  const length = (part.to - part.from) / pieces;
  return asCuts(Array.from({ length: pieces - 1 }, (_, i) => part.from + (i + 1) * length), part); // prettier-ignore
}

/** Cuts at every so many frames from the beginning of a part. */
export function evenCuts(part: Piece, every: number): number[] {
  const count = Math.min(MOST_CUTS, Math.ceil((part.to - part.from) / every) - 1);
  return asCuts(Array.from({ length: Math.max(0, count) }, (_, i) => part.from + (i + 1) * every), part); // prettier-ignore
}

/** The cuts with one that is moved, between those beside it. */
export function withCutMoved(cuts: readonly number[], index: number, frame: number, part: Piece): number[] {
  const least = Math.max(part.from, cuts[index - 1] ?? 0) + SHORTEST_PIECE;
  const most = Math.min(part.to, cuts[index + 1] ?? Infinity) - SHORTEST_PIECE;
  const moved = Math.round(Math.max(least, Math.min(most, frame)));
  return least > most ? [...cuts] : cuts.map((cut, i) => (i === index ? moved : cut));
}

/** Frames within which a cut finds its crossing: 5 ms. */
const REACH = 240;

/**
 * The frame nearest to this one at which the sound crosses zero: it is not louder than this frame's neighbour on the other side of the
 * crossing. Both channels count, as their sum. Where it crosses nowhere near, the frame itself.
 */
export function nearestCrossing({ channels }: SampleAudio, frame: number): number {
  const value = (i: number) => channels.reduce((sum, channel) => sum + (channel[i] ?? 0), 0);
  const crosses = (i: number) => value(i - 1) * value(i) <= 0;
  const frames = channels[0]!.length;
  for (let off = 0; off <= REACH; off++) {
    for (const at of [frame - off, frame + off]) if (at > 0 && at < frames && crosses(at)) return at;
  }
  return frame;
}
