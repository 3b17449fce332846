import { demoSet } from '../document/demo';
import { tracksOf } from '../document/set';
import { Engine } from '../engine/engine';
import { documentInstructions, type Performed } from '../engine/replay';
import { at, type Command } from '../protocol/commands';
import { decodeEvents } from '../protocol/events';
import type { Stereo } from '../engine/offline';
import type { Stretch } from './make';
import type { Score } from './score';
import { ScoreRender, type ScoreSound } from './scoreRender';

/** Of Node, which the core's own library knows nothing of. */
declare function structuredClone<T>(value: T): T;

export const SR = 48000;
const SETTLED = 512;

export type RunOf = Performed & { from: number; to: number };

/** Plays a set, the demo if none is given, from a state of rest, and keeps the log as it is captured. */
export function performed(deeds: readonly Command[], frames: number, { set, stage } = demoSet()): RunOf {
  const engine = new Engine(SR);
  for (const instruction of documentInstructions(set, stage)) engine.post(at(0, instruction));
  for (const { id } of tracksOf(set)) {
    engine.post(at(0, { type: 'launch', track: id, slot: stage.tracks[id]!.slot, on: 0, inPlace: false }));
  }
  // Until every level has arrived.
  engine.process(new Float32Array(SETTLED), new Float32Array(SETTLED));
  engine.events.clear();
  engine.log.keep(true);
  engine.post(at(SETTLED, { type: 'snapshot', id: 1, state: null }));
  for (const deed of deeds) engine.post(deed);
  let from = Infinity;
  while (engine.frame < frames) {
    engine.skim(1280);
    for (const { kind, frame } of decodeEvents(engine.events.drain()))
      if (kind === 'sounded') from = Math.min(from, frame);
  }
  return { set, stage, log: engine.log.drain(), sampleRate: SR, from, to: frames };
}

/** Renders what is heard, piece by piece, and joins it. */
export function rendered(score: Score, stretch: Stretch, sound: ScoreSound): Stereo {
  const pieces: Stereo[] = [];
  const render = new ScoreRender(score, stretch, SR, sound);
  while (!render.isDone) {
    const audio = render.next();
    if (audio) pieces.push(audio);
  }
  const joined = (side: keyof Stereo) => Float32Array.from(pieces.flatMap((piece) => [...piece[side]]));
  return { left: joined('left'), right: joined('right') };
}

export function loudest(samples: Float32Array): number {
  return samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
}

export const copied = (run: RunOf): RunOf => ({ ...run, log: structuredClone([...run.log]) });
export const play = (frame: number) => at(frame, { type: 'play', startTick: 0, countInTicks: 0 });
export const strike = (frame: number, track: number, pad: number, id: number) =>
  at(frame, { type: 'padDown', track, pad, velocity: 0.8, heard: frame, id });
