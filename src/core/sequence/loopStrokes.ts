import { mod } from '../time/ticks';
import { windowOf } from './loopWindow';
import { isLucky } from './odds';
import { rollPitch, rollVelocity } from './rollStrokes';
import { soundingHits } from './soundingHits';
import type { Pattern } from '../document/pattern';
import { isPadHeard, type Track } from '../document/track';

/** One stroke of a loop as it is heard, rolls written out. */
export interface LoopStroke {
  /** From the loop's start, 0 <= tick < its length. */
  tick: number;
  pad: number;
  /** 0..1 */
  velocity: number;
  /** Semitones. */
  pitch: number;
  length: number;
}

/** What a pattern plays in its first time round, in order of time: what a file of notes holds. */
export function loopStrokes(pattern: Pattern, track: Track): LoopStroke[] {
  const { start, length } = windowOf(pattern);
  const strokes: LoopStroke[] = [];
  for (const hit of soundingHits(pattern)) {
    const { tick, pad, velocity, pitch, roll } = hit;
    if (tick < start || tick >= start + length || !isPadHeard(track, pad)) continue;
    if (!isLucky(hit.odds, track.id, pad, tick)) continue;
    const count = roll?.strokes ?? 1;
    for (let i = 0; i < count; i++) {
      const each = roll ? roll.over / count : 0;
      strokes.push({
        // A roll goes on over the loop's end.
        tick: mod(tick - start + i * each, length),
        pad,
        velocity: roll ? rollVelocity(velocity, i, count, roll.swell) : velocity,
        pitch: pitch + (roll ? rollPitch(i, count, roll.glide) : 0),
        length: roll ? Math.min(hit.length, each) : hit.length,
      });
    }
  }
  return strokes.sort((a, b) => a.tick - b.tick || a.pad - b.pad);
}
