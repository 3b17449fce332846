import { Engine } from '../engine/engine';
import { Replay, sampleInstructions } from '../engine/replay';
import { at, type Command, type Instruction } from '../protocol/commands';
import { notesInstruction } from '../protocol/fromDocument';
import { blockStrokes, stepAt, type Score, type ScoreTrack, type Stroke } from './score';
import { SAME_TICKS } from '../time/ticks';
import type { Stretch } from './make';
import { ScoreTime } from './scoreTime';

/**
 * Seconds that are played unheard before what is wanted: what was struck in them still rings, and levels are where they are to be. Long echoes,
 * notes that are held and recordings ring for longer than is worth waiting for where somebody listens.
 */
export const BEFORE = { exact: 30, quick: 1 } as const;

/**
 * Plays a score from a tick on. What rings there from before is heard.
 * @param sampleRate frames per second
 * @param before seconds that are played unheard
 */
export function replayScore(score: Score, sampleRate: number, from = 0, before: number = BEFORE.exact): Replay {
  const { replay, start } = beginScore(score, sampleRate, { from, to: Infinity }, before);
  replay.skipTo(start);
  return replay;
}

/**
 * As `replayScore`, but what is unheard is still to be played: up to frame `start`. From the stretch's end on all stays as it is there:
 * notes are let go, and nothing is struck any more.
 */
export function beginScore(
  score: Score,
  sampleRate: number,
  { from, to }: Stretch,
  before: number = BEFORE.exact,
): { replay: Replay; start: number } {
  const time = new ScoreTime(score, sampleRate);
  const start = Math.round(time.frameAt(from));
  // Nothing sounds before the score.
  const played = start - time.frameAt(0) + BEFORE.quick * sampleRate;
  const begin = start - Math.round(Math.min(before * sampleRate, played));
  const engine = new Engine(sampleRate, begin);
  const tick = time.tickAt(begin);
  // The song plays, with nothing launched: slow waves go by it.
  const song: Instruction[] = [
    ...sampleInstructions(score.samples),
    { type: 'tempo', bpm: stepAt(score.tempo, tick) },
    { type: 'play', startTick: score.songTick + tick, countInTicks: 0 },
  ];
  for (const instruction of song) engine.post(at(begin, instruction));
  for (const track of score.tracks) {
    for (const instruction of beginning(track, tick)) engine.post(at(begin, instruction));
  }
  for (const { tick: at_, told } of score.turned) if (at_ < tick) engine.post(at(begin, told));
  return { replay: new Replay(engine, commandsOf(score, time, begin, to)), start };
}

function beginning({ id: track, kit, tones, levels }: ScoreTrack, tick: number): Instruction[] {
  return [
    { type: 'kit', track, kit },
    ...(tones ? [notesInstruction(track, tones)] : []),
    { type: 'trackLevel', track, level: stepAt(levels, tick) },
  ];
}

/** All that a score tells an engine from a frame on, up to a tick, in order. */
function commandsOf(score: Score, time: ScoreTime, begin: number, to: number): Command[] {
  const commands: Command[] = [];
  const first = time.tickAt(begin) - 1;
  const add = (tick: number, instruction: () => Instruction) => {
    // What lies on the end is after it.
    if (tick < first || tick > to - SAME_TICKS) return;
    const frame = Math.round(time.frameAt(tick));
    if (frame >= begin) commands.push(at(frame, instruction()));
  };
  for (const { tick, value } of score.tempo) add(tick, () => ({ type: 'tempo', bpm: value }));
  // What lies before is told at the beginning.
  const begins = time.tickAt(begin);
  for (const { tick, told } of score.turned) if (tick >= begins) add(tick, () => told);
  for (const { id: track, levels } of score.tracks) {
    for (const { tick, value } of levels) add(tick, () => ({ type: 'trackLevel', track, level: value }));
  }
  // At one frame hands come before patterns, and tracks in their order, as in the engine.
  const strike = (track: number, stroke: Stroke) =>
    add(stroke.tick, () => strikeOf(track, { ...stroke, length: Math.min(stroke.length, to - stroke.tick) }, time));
  for (const { id, hits } of score.tracks) for (const stroke of hits) strike(id, stroke);
  for (const { id, blocks } of score.tracks) {
    for (const block of blocks) {
      if (block.from + block.length >= first) for (const stroke of blockStrokes(block)) strike(id, stroke);
    }
  }
  return commands.sort((a, b) => a.frame - b.frame);
}

function strikeOf(track: number, stroke: Stroke, time: ScoreTime): Instruction<'strike'> {
  const { tick, pad, velocity, length, pitch, filter, decay, level, pan, drive = 0, room = 0, resonance = 0, start = 0, pressure = 0, bright = 0 } = stroke; // prettier-ignore
  const frames = Math.round(time.frameAt(tick + length)) - Math.round(time.frameAt(tick));
  return { type: 'strike', track, pad, velocity, frames, pitch, filter, decay, level, pan, drive, room, resonance, start, pressure, bright }; // prettier-ignore
}
