import type { Run } from '../document/run';
import { replayLog, type Performed } from '../engine/replay';
import { decodeEvents } from '../protocol/events';
import type { Score } from './score';
import { ScoreWriter } from './scoreWriter';

/** Frames that the engine goes at once; its queue of events holds what happens in them. */
const STRETCH = 4800;

/**
 * What sounded in a run, found by playing it again without making any sound.
 * @throws Error if the log does not begin with a snapshot
 */
export function readScore(performed: Performed, { from, to }: Pick<Run, 'from' | 'to'>): Score {
  const { log } = performed;
  const replay = replayLog(performed);
  const writer = new ScoreWriter(performed, from);
  let told = 0;
  // What begins at the last frame belongs to it.
  const end = to + 1;
  while (replay.frame < end) {
    replay.skim(Math.min(STRETCH, end - replay.frame));
    const events = decodeEvents(replay.engine.events.drain());
    // Commands come before what the engine did at their frame.
    for (const event of events) {
      for (; told < log.length && log[told]!.frame <= event.frame; told++) writer.command(log[told]!);
      writer.event(event);
    }
    for (; told < log.length && log[told]!.frame < replay.frame; told++) writer.command(log[told]!);
  }
  return { ...writer.score(to), ...(performed.samples && { samples: performed.samples }) };
}
