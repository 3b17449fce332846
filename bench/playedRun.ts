import { SOUND, type Run } from '@/core/document/run';
import { writeSet } from '@/core/document/readSet';
import type { OpenSet } from '@/core/document/set';
import { Engine } from '@/core/engine/engine';
import { documentInstructions, type Performed } from '@/core/engine/replay';
import { at, type Command } from '@/core/protocol/commands';
import { logText } from '@/core/protocol/performedLog';

export const SR = 48000;
/** Until every level has arrived: the log begins here. */
export const BEGIN = 512;

/** What was played, and the run that it was captured as. */
export interface PlayedRun {
  performed: Performed;
  run: Run;
}

/**
 * Plays a set from rest, as it is captured.
 * @param frames to the end of the run
 * @param deeds in order of their frames
 * @param facts of the run: its id and name, where it begins, what was counted in it
 */
export function playedRun(
  { set, stage }: OpenSet,
  frames: number,
  deeds: readonly Command[],
  facts: Pick<Run, 'id' | 'name' | 'from' | 'hits' | 'launches' | 'tempo'>,
): PlayedRun {
  const engine = new Engine(SR);
  for (const instruction of documentInstructions(set, stage)) engine.post(at(0, instruction));
  for (const id of set.order) engine.post(at(0, { type: 'launch', track: id, slot: stage.tracks[id]!.slot, on: 0, inPlace: false })); // prettier-ignore
  engine.process(new Float32Array(BEGIN), new Float32Array(BEGIN));
  engine.log.keep(true);
  engine.post(at(BEGIN, { type: 'snapshot', id: 1, state: null }));
  for (const command of deeds) engine.post(command);
  engine.skim(frames - BEGIN);
  const run: Run = {
    ...facts,
    schema: 1,
    marked: false,
    at: new Date(0).toISOString(),
    log: facts.id,
    to: frames,
    sampleRate: SR,
    sound: SOUND,
    set: `version ${facts.id}`,
    stage,
    letters: 0,
  };
  return { performed: { set, stage, log: engine.log.drain(), sampleRate: SR }, run };
}

/** A run as it lies in the app's storage. */
export function runEntries({ performed: { set, stage, log }, run }: PlayedRun): Record<string, string> {
  return {
    [`run ${run.id}`]: JSON.stringify(run),
    [`log ${run.log} 0`]: logText(log),
    [run.set]: writeSet({ set, stage }),
    settings: JSON.stringify({ started: true }),
  };
}
