import { newPattern } from '../document/pattern';
import { tracksOf, type BeatSet } from '../document/set';
import { trackStage, type Stage } from '../document/stage';
import { at, type Command, type Instruction } from '../protocol/commands';
import { setChanges, trackChanges } from '../protocol/documentChanges';
import { slotInstructions } from '../protocol/fromDocument';
import type { PreparedSample } from '../sample/levels';
import { Engine } from './engine';

/** What a performance is heard again from. */
export interface Performed {
  /** The set and the stage as they were when the log began. */
  set: BeatSet;
  stage: Stage;
  /** Begins with a snapshot. The engine that is made from it takes its arrays. */
  log: readonly Command[];
  sampleRate: number;
  /** The samples that its sounds name. Engines only read them: one list does for many. */
  samples?: readonly PreparedSample[];
}

/** Plays commands, each at its frame, as fast as it is asked to. */
export class Replay {
  private next = 0;

  /** @param commands in order of their frames; the engine takes their arrays */
  constructor(
    readonly engine: Engine,
    private readonly commands: readonly Command[],
  ) {}

  /** The next frame to be rendered. */
  get frame(): number {
    return this.engine.frame;
  }

  /** Renders the next samples, as `Engine.process` does. */
  process(left: Float32Array, right: Float32Array, frames = left.length, offset = 0): void {
    this.post(frames);
    this.engine.process(left, right, frames, offset);
  }

  /** Goes on without sound (see `Engine.skim`). */
  skim(frames: number): void {
    this.post(frames);
    this.engine.skim(frames);
  }

  /** Renders what lies before a frame, of which nobody hears anything. */
  skipTo(frame: number): void {
    const [left, right] = [new Float32Array(SKIPPED), new Float32Array(SKIPPED)];
    while (this.frame < frame) {
      this.process(left, right, Math.min(SKIPPED, frame - this.frame));
      this.engine.events.clear();
    }
  }

  /** Only what is due soon: an engine finds its place in a long list slowly. */
  private post(frames: number): void {
    const end = this.frame + frames;
    for (; this.next < this.commands.length && this.commands[this.next]!.frame < end; this.next++) {
      this.engine.post(this.commands[this.next]!);
    }
  }
}

/**
 * Plays what was performed again, sample by sample, from where the log begins.
 * @throws Error if the log does not begin with a snapshot
 */
export function replayLog({ set, stage, log, sampleRate, samples = [] }: Performed): Replay {
  const [snapshot] = log;
  if (snapshot?.type !== 'snapshot') throw new Error('The log does not begin with a snapshot.');
  const { frame } = snapshot;
  const engine = new Engine(sampleRate, frame);
  const byId = new Map(samples.map((sample) => [sample.id, sample]));
  // What came while it was played comes then, and all others are there from the beginning.
  const whole = log.map((command) =>
    command.type === 'sample' ? { ...command, sample: byId.get(command.sample.id) ?? command.sample } : command,
  );
  for (const command of log) if (command.type === 'sample') byId.delete(command.sample.id);
  for (const instruction of sampleInstructions([...byId.values()])) engine.post(at(frame, instruction));
  for (const instruction of documentInstructions(set, stage)) engine.post(at(frame, instruction));
  return new Replay(engine, whole);
}

/** Gives an engine samples. */
export function sampleInstructions(samples: readonly PreparedSample[] = []): Instruction[] {
  return samples.map((sample) => ({ type: 'sample', sample }));
}

/** Frames skipped at once. */
const SKIPPED = 4096;

/** All of a document, for an engine that knows nothing. */
export function documentInstructions(set: BeatSet, stage: Stage): Instruction[] {
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
