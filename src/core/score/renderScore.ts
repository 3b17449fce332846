import type { Stereo } from '../engine/offline';
import { LIMITER_LATENCY } from '../sound/limiter';
import type { Stretch } from './make';
import { replayScore } from './replayScore';
import type { Score } from './score';
import { ScoreTime } from './scoreTime';

/** Seconds after a stretch in which its sounds ring out. */
export const TAIL_SECONDS = 4;

export interface ScoreSound {
  /** Id of the only track that is heard; null: all of them. */
  track: number | null;
  /** Through the limiter; before it, the tracks add up to the mix. */
  limited: boolean;
  /** What rings on after the stretch, too. */
  tail: boolean;
}

/** Frames of a stretch of a score. */
export function stretchFrames(score: Score, { from, to }: Stretch, sampleRate: number, tail: boolean): number {
  const time = new ScoreTime(score, sampleRate);
  const frames = Math.round(time.frameAt(to)) - Math.round(time.frameAt(from));
  return frames + (tail ? TAIL_SECONDS * sampleRate : 0);
}

/**
 * Renders a stretch of a score, piece by piece. All sounds of one stretch have the same length and lie sample on sample.
 * @param piece frames of one piece
 */
export function* renderScore(
  score: Score,
  stretch: Stretch,
  sampleRate: number,
  { track, limited, tail }: ScoreSound,
  piece = 16384,
): Generator<Stereo> {
  const replay = replayScore(score, sampleRate, stretch.from);
  // The limiter tells of everything a little later.
  if (limited) replay.skipTo(replay.frame + LIMITER_LATENCY);
  replay.engine.hear({ track, limited });
  let left = stretchFrames(score, stretch, sampleRate, tail);
  while (left > 0) {
    const frames = Math.min(piece, left);
    const audio = { left: new Float32Array(frames), right: new Float32Array(frames) };
    replay.process(audio.left, audio.right);
    replay.engine.events.clear();
    left -= frames;
    yield audio;
  }
}
