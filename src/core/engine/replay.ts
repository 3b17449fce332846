import { newPattern } from '../document/pattern';
import { tracksOf, type BeatSet } from '../document/set';
import { trackStage, type Stage } from '../document/stage';
import { at, type Command, type Instruction } from '../protocol/commands';
import { setChanges, trackChanges } from '../protocol/documentChanges';
import { slotInstructions } from '../protocol/fromDocument';
import { Engine } from './engine';

/** What a performance is heard again from. */
export interface Performed {
  /** The set and the stage as they were when the log began. */
  set: BeatSet;
  stage: Stage;
  /** Begins with a snapshot. The engine that is made from it takes its arrays. */
  log: readonly Command[];
  sampleRate: number;
}

/**
 * An engine that will play what was performed, sample by sample: it stands where the log begins.
 * @throws Error if the log does not begin with a snapshot
 */
export function replayEngine({ set, stage, log, sampleRate }: Performed): Engine {
  const [snapshot] = log;
  if (snapshot?.type !== 'snapshot') throw new Error('The log does not begin with a snapshot.');
  const { frame } = snapshot;
  const engine = new Engine(sampleRate, frame);
  for (const instruction of documentInstructions(set, stage)) engine.post(at(frame, instruction));
  for (const command of log) engine.post(command);
  return engine;
}

/** Renders what lies before a frame, of which nobody hears anything. */
export function skipTo(engine: Engine, frame: number): void {
  const [left, right] = [new Float32Array(SKIPPED), new Float32Array(SKIPPED)];
  while (engine.frame < frame) {
    engine.process(left, right, Math.min(SKIPPED, frame - engine.frame));
    engine.events.clear();
  }
}

/** Frames skipped at once. */
const SKIPPED = 4096;

/** All of a document, for an engine that knows nothing. */
function documentInstructions(set: BeatSet, stage: Stage): Instruction[] {
  const tracks = tracksOf(set).flatMap((track) => {
    // The empty slot that a track is on is an empty pattern: strokes find a place in it.
    const { slot: current } = trackStage(stage, track.id);
    const slots = track.patterns.flatMap((pattern, slot) => {
      const heard = pattern ?? (slot === current ? newPattern(slot, set.meter) : null);
      return heard ? slotInstructions({ track: track.id, slot }, heard) : [];
    });
    return [...trackChanges(undefined, track), ...slots];
  });
  return [...setChanges(null, set), ...tracks];
}
