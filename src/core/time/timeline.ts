import { framesPerTick } from './ticks';

/**
 * A linear segment of the map from audio frames to song ticks. A tempo change begins a new segment at the present position, so
 * it changes the slope and never the position. Positions are computed from the anchor: summing steps would drift.
 */
export interface Anchor {
  /** Audio frame (an integer) from which this piece holds. */
  frame: number;
  /** Song tick at that frame; keeps its fraction. */
  tick: number;
  /** Frames one tick lasts. */
  framesPerTick: number;
  /** When false the song stands still at `tick`. */
  playing: boolean;
  /** Whether hits struck in this piece are recorded. */
  recording: boolean;
}

/**
 * Song tick (a float) at an audio frame.
 * @example tickAt({ frame: 0, tick: 0, framesPerTick: 25, playing: true, recording: false }, 24000) // 960
 */
export function tickAt(anchor: Anchor, frame: number): number {
  return anchor.playing ? anchor.tick + (frame - anchor.frame) / anchor.framesPerTick : anchor.tick;
}

/**
 * Audio frame (an integer) at which a song tick sounds. Meaningful only while playing.
 * @example frameAt({ frame: 0, tick: 0, framesPerTick: 25, playing: true, recording: false }, 960) // 24000
 */
export function frameAt(anchor: Anchor, tick: number): number {
  return Math.round(anchor.frame + (tick - anchor.tick) * anchor.framesPerTick);
}

/**
 * An anchor like another but for some fields. All anchors of a timeline are made here, so that they have one hidden class: code
 * that was compiled for one shape of them is thrown away when it meets a second one.
 * @example anchorLike(anchor, { playing: true }) // the same place, playing
 */
export function anchorLike(other: Anchor, changed: Partial<Anchor>): Anchor {
  return {
    frame: changed.frame ?? other.frame,
    tick: changed.tick ?? other.tick,
    framesPerTick: changed.framesPerTick ?? other.framesPerTick,
    playing: changed.playing ?? other.playing,
    recording: changed.recording ?? other.recording,
  };
}

/**
 * The anchor that goes on from `anchor` at `frame` with another tempo.
 * @example atTempo(anchor, 24000, 60, 48000) // at frame 24000 the same tick, then 50 frames a tick
 */
export function atTempo(anchor: Anchor, frame: number, tempo: number, sampleRate: number): Anchor {
  return anchorLike(anchor, { frame, tick: tickAt(anchor, frame), framesPerTick: framesPerTick(tempo, sampleRate) });
}

/** How many pieces a timeline remembers: more than any tempo drag lays within one output latency. */
const PIECES_KEPT = 256;

/**
 * The recent pieces of the song's time, newest last. A hit is mapped with the piece in force when it was *heard*,
 * which may be older than the piece that plays now.
 */
export class Timeline {
  private readonly pieces: Anchor[];

  constructor(first: Anchor) {
    this.pieces = [anchorLike(first, {})];
  }

  get now(): Anchor {
    return this.pieces[this.pieces.length - 1]!;
  }

  push(anchor: Anchor): void {
    if (this.now.frame === anchor.frame) this.pieces.pop();
    this.pieces.push(anchor);
    if (this.pieces.length > PIECES_KEPT) this.pieces.shift();
  }

  /** The piece in force at `frame`; the oldest one for a frame before all of them. */
  at(frame: number): Anchor {
    for (let i = this.pieces.length - 1; i > 0; i--) {
      if (this.pieces[i]!.frame <= frame) return this.pieces[i]!;
    }
    return this.pieces[0]!;
  }

  /** Frame at which a song tick sounds, by the piece in force there; NaN while the song stands still. */
  frameOf(tick: number): number {
    const { pieces, now } = this;
    if (!now.playing) return NaN;
    let piece = now;
    // Ticks before the last change of tempo went at the one before; those of an earlier start are others.
    for (let i = pieces.length - 2; i >= 0 && piece.tick > tick && pieces[i]!.playing; i--) piece = pieces[i]!;
    return frameAt(piece, tick);
  }

  /** Song tick at `frame`, by the piece in force there. */
  tickAt(frame: number): number {
    return tickAt(this.at(frame), frame);
  }
}
