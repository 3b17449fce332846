import { beginScore } from './replayScore';
import type { Score } from './score';

/** Seconds after a stretch in which its sounds ring out: at least, and at most. */
const [LEAST, MOST] = [4, 30];
/** -60 dBFS: beneath music nobody hears what is softer (common practice; it is what a reverberation time is counted to, ISO 3382). */
const HEARD = 1e-3;
/** Seconds before the stretch's end in which what rings on there was struck. */
const STRUCK_WITHIN = 10;
/** Frames that are rendered at once. */
const PIECE = 4096;

/** Frames after a tick until what was struck before it is not heard any more, whatever it is: an echo, a recording, a note. */
export function tailFrames(score: Score, to: number, sampleRate: number): number {
  const { replay, start } = beginScore(score, sampleRate, { from: to, to }, STRUCK_WITHIN);
  replay.engine.hear({ track: null, limited: false });
  replay.skipTo(start);
  const [left, right] = [new Float32Array(PIECE), new Float32Array(PIECE)];
  let heard = 0;
  for (let done = 0; done < MOST * sampleRate; done += PIECE) {
    replay.process(left, right);
    replay.engine.events.clear();
    if (isHeard(left) || isHeard(right)) heard = done + PIECE;
  }
  return Math.min(MOST * sampleRate, Math.max(LEAST * sampleRate, heard));
}

function isHeard(samples: Float32Array): boolean {
  for (let i = 0; i < samples.length; i++) if (Math.abs(samples[i]!) >= HEARD) return true;
  return false;
}
