import type { OpenSet } from '../document/set';
import { Engine } from '../engine/engine';
import { documentInstructions, type Performed } from '../engine/replay';
import { roundTicks } from '../launch/plans';
import { CHAIN } from '../launch/launchState';
import { at, type Instruction } from '../protocol/commands';
import { windowOf } from '../sequence/loopWindow';
import type { PatternPlace } from '../document/pattern';
import { patternAt, tracksOf } from '../document/set';
import { framesPerTick } from '../time/ticks';

/** A performance that nobody gave: a set as it plays by itself from the top. */
export interface PlayedThrough {
  performed: Performed;
  /** Frames at which it begins and ends. */
  run: { from: number; to: number };
}

/** Frames after which every level of a new engine has arrived. */
const SETTLED = 512;

/** Plays a pattern once. */
export function playPattern(open: OpenSet, place: PatternPlace, sampleRate: number): PlayedThrough {
  const pattern = patternAt(open.set, place)!;
  const { start, length } = windowOf(pattern);
  const launch: Instruction = { type: 'launch', track: place.track, slot: place.slot, on: 0, inPlace: false };
  return playThrough(open, [launch], { start, length }, sampleRate);
}

/** Plays a section as many rounds as it has. */
export function playSection(open: OpenSet, id: number, sampleRate: number): PlayedThrough {
  const section = open.set.sections.find((one) => one.id === id)!;
  const length = roundTicks(open.set, section) * section.rounds;
  const launch: Instruction = { type: 'launchSection', section: id, on: 0, inPlace: false };
  return playThrough(open, [launch], { start: 0, length }, sampleRate);
}

/** Plays all tracks from the top: each its chain, or else the pattern that it is on. */
export function playTracks(open: OpenSet, ticks: number, sampleRate: number): PlayedThrough {
  const launches = tracksOf(open.set).map(({ id, chain }): Instruction => {
    const slot = chain ? CHAIN : (open.stage.tracks[id]?.slot ?? 0);
    return { type: 'launch', track: id, slot, on: 0, inPlace: false };
  });
  return playThrough(open, launches, { start: 0, length: ticks }, sampleRate);
}

/** @param launches what is launched before it plays */
function playThrough(
  { set, stage }: OpenSet,
  launches: readonly Instruction[],
  { start, length }: { start: number; length: number },
  sampleRate: number,
): PlayedThrough {
  const engine = new Engine(sampleRate);
  for (const instruction of documentInstructions(set, stage)) engine.post(at(0, instruction));
  engine.process(new Float32Array(SETTLED), new Float32Array(SETTLED));
  engine.events.clear();
  engine.log.keep(true);
  engine.post(at(SETTLED, { type: 'snapshot', id: 1, state: null }));
  engine.process(new Float32Array(1), new Float32Array(1));
  const [snapshot] = engine.log.drain();
  const from = SETTLED + 1;
  // Not a frame too late: what begins the next round is not played.
  const to = from + Math.floor(length * framesPerTick(set.tempo, sampleRate));
  const play: Instruction = { type: 'play', startTick: start, countInTicks: 0 };
  const log = [
    snapshot!,
    ...[...launches, play].map((deed) => at(from, deed)),
    at(to, { type: 'stop' } as Instruction),
  ];
  return { performed: { set, stage, log, sampleRate }, run: { from, to } };
}
