import type { Engine } from '../engine/engine';
import type { Stereo } from '../engine/offline';
import type { Replay } from '../engine/replay';
import { LIMITER_LATENCY } from '../sound/limiter';
import type { Stretch } from './make';
import { beginScore } from './replayScore';
import type { Score } from './score';
import { ScoreTime } from './scoreTime';

/** Seconds in which the end of a tail fades away: not all is silent by then. */
const FADE_SECONDS = 0.5;

/** Frames of one piece: what sixteen tracks sound like in it fits into a processor's cache. */
const PIECE = 4096;

export interface ScoreSound {
  /** Id of the only track that is heard; null: all of them. */
  track: number | null;
  /** Through the limiter; before it, the tracks add up to the mix. */
  limited: boolean;
  /** Frames after the stretch in which it rings on (see `tailFrames`); 0: none. */
  tail: number;
}

/** Frames of a stretch of a score, without its tail. */
export function stretchFrames(score: Score, { from, to }: Stretch, sampleRate: number): number {
  const time = new ScoreTime(score, sampleRate);
  return Math.round(time.frameAt(to)) - Math.round(time.frameAt(from));
}

/**
 * Renders a stretch of a score, piece by piece. All sounds of one stretch have the same length and lie sample on sample. Two renders of the
 * same are cut alike: the engine of one can read the tracks that the engine of the other has written (see `TrackTape`).
 */
export class ScoreRender {
  private readonly replay: Replay;
  /** Frames of the engine: the first that is rendered, the first that is wanted, and the one after the last. */
  private readonly begin: number;
  private readonly start: number;
  private readonly end: number;
  /** Frames of the fade at the end. */
  private readonly fade: number;

  constructor(score: Score, stretch: Stretch, sampleRate: number, sound: ScoreSound) {
    const { replay, start } = beginScore(score, sampleRate, stretch);
    this.replay = replay;
    this.begin = replay.frame;
    // From the first frame on: what rings into the stretch belongs to its own track, too.
    replay.engine.hear(sound);
    // The limiter tells of everything a little later.
    this.start = start + (sound.limited ? LIMITER_LATENCY : 0);
    this.end = this.start + stretchFrames(score, stretch, sampleRate) + sound.tail;
    this.fade = Math.min(sound.tail, FADE_SECONDS * sampleRate);
  }

  get engine(): Engine {
    return this.replay.engine;
  }

  get isDone(): boolean {
    return this.replay.frame >= this.end;
  }

  /** Whether it renders all frames that another one does. */
  spans(other: ScoreRender): boolean {
    return this.begin === other.begin && this.end >= other.end;
  }

  /** Renders the next piece. Null: it lies before the stretch, where something may ring that is heard in it. */
  next(): Stereo | null {
    const { replay, start } = this;
    const isWanted = replay.frame >= start;
    const frames = Math.min(PIECE, (isWanted ? this.end : start) - replay.frame);
    const audio = { left: new Float32Array(frames), right: new Float32Array(frames) };
    replay.process(audio.left, audio.right);
    replay.engine.events.clear();
    if (!isWanted) return null;
    this.fadeOut(audio);
    return audio;
  }

  /** Takes down what of a piece that was rendered just now lies in the fade. */
  private fadeOut({ left, right }: Stereo): void {
    const first = this.replay.frame - left.length;
    for (let i = Math.max(0, this.end - this.fade - first); i < left.length; i++) {
      const gain = (this.end - first - i) / this.fade;
      left[i]! *= gain;
      right[i]! *= gain;
    }
  }
}
