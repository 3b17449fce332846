import { framesPerTick } from '../time/ticks';
import type { Score } from './score';

interface Piece {
  tick: number;
  frame: number;
  framesPerTick: number;
}

/** The time of a score: from its ticks to engine frames and back, through its tempo line. */
export class ScoreTime {
  private readonly pieces: Piece[] = [];

  constructor({ tempo, frame }: Pick<Score, 'tempo' | 'frame'>, sampleRate: number) {
    for (const { tick, value } of tempo) {
      const at = this.pieces.length > 0 ? this.frameAt(tick) : frame;
      this.pieces.push({ tick, frame: at, framesPerTick: framesPerTick(value, sampleRate) });
    }
  }

  /** The last piece that has begun, or the first. */
  private pieceWhere(hasBegun: (piece: Piece) => boolean): Piece {
    let [low, high] = [0, this.pieces.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (hasBegun(this.pieces[middle]!)) low = middle;
      else high = middle - 1;
    }
    return this.pieces[low]!;
  }

  /** Frame (a float) at which a tick sounds. */
  frameAt(tick: number): number {
    const piece = this.pieceWhere((other) => other.tick <= tick);
    return piece.frame + (tick - piece.tick) * piece.framesPerTick;
  }

  /** Tick (a float) at a frame. */
  tickAt(frame: number): number {
    const piece = this.pieceWhere((other) => other.frame <= frame);
    return piece.tick + (frame - piece.frame) / piece.framesPerTick;
  }
}
