import { demoSet } from '@/core/document/demo';
import { SOUND, type Run } from '@/core/document/run';
import type { Pattern } from '@/core/document/pattern';
import { tracksOf, type BeatSet } from '@/core/document/set';
import { Engine } from '@/core/engine/engine';
import { documentInstructions, type Performed } from '@/core/engine/replay';
import { at, type Command, type Instruction } from '@/core/protocol/commands';
import { random } from '@/core/random';

const SR = 48000;
const BEGIN = 512;
const POINTS = 5000;
const MOVED = ['filter', 'pitch', 'pan', 'decay'] as const;

/**
 * A run of the demo whose patterns have 5,000 points of Moves: 3,000 hits, 400 launches, Lift, 20 changes of tempo and 5,000 turns of
 * controls in twenty minutes.
 */
export function longRun(minutes = 20): { performed: Performed; run: Run } {
  const { set: demo, stage } = demoSet();
  const set = withMoves(demo);
  const engine = new Engine(SR);
  for (const instruction of documentInstructions(set, stage)) engine.post(at(0, instruction));
  for (const { id } of tracksOf(set)) engine.post(at(0, { type: 'launch', track: id, slot: stage.tracks[id]!.slot, on: 0, inPlace: false })); // prettier-ignore
  engine.process(new Float32Array(BEGIN), new Float32Array(BEGIN));
  engine.log.keep(true);
  engine.post(at(BEGIN, { type: 'snapshot', id: 1, state: null }));
  const frames = minutes * 60 * SR;
  for (const command of deeds(frames)) engine.post(command);
  engine.skim(frames - BEGIN);
  const log = engine.log.drain();
  const run: Run = {
    schema: 1,
    id: 'long',
    name: 'Twenty minutes',
    marked: false,
    at: new Date(0).toISOString(),
    log: 'long',
    from: 1000,
    to: frames,
    sampleRate: SR,
    sound: SOUND,
    set: 'version long',
    stage,
    letters: 0,
    hits: 3000,
    launches: 400,
    tempo: { least: 100, most: 140 },
  };
  return { performed: { set, stage, log, sampleRate: SR }, run };
}

/** The points are shared out among the patterns, and the first four pads of each. */
function withMoves(set: BeatSet): BeatSet {
  const patterns = tracksOf(set).flatMap((track) => track.patterns.filter((pattern) => pattern !== null));
  const each = Math.ceil(POINTS / patterns.length / MOVED.length);
  const moving = (pattern: Pattern | null) =>
    pattern && {
      ...pattern,
      moves: MOVED.map((control, pad) => ({
        pad,
        control,
        points: Array.from({ length: each }, (_, i) => ({ tick: (i / each) * pattern.length, value: Math.sin(i) / 2 })),
      })),
    };
  const tracks = tracksOf(set).map((track) => [track.id, { ...track, patterns: track.patterns.map(moving) }] as const);
  return { ...set, tracks: Object.fromEntries(tracks) };
}

function deeds(frames: number): Command[] {
  const next = random(5);
  const whole = (below: number) => Math.floor(next() * below);
  const commands: Command[] = [at(1000, { type: 'play', startTick: 0, countInTicks: 0 })];
  const add = (count: number, make: (frame: number, i: number) => Instruction) => {
    for (let i = 0; i < count; i++) {
      const frame = 2000 + whole(frames - 2 * SR);
      commands.push(at(frame, make(frame, i)));
    }
  };
  add(3000, (frame, i) => ({ type: 'padDown', track: whole(4), pad: whole(16), velocity: next(), heard: frame - 500, id: 2 * i + 1 })); // prettier-ignore
  add(400, () => ({ type: 'launch', track: whole(4), slot: whole(3), on: 3840, inPlace: false }));
  add(5000, () => ({ type: 'turn', track: whole(4), pad: whole(16), control: MOVED[whole(4)]!, value: next() - 0.5 })); // prettier-ignore
  add(20, () => ({ type: 'tempo', bpm: 100 + whole(40) }));
  add(40, (_, i) => ({ type: 'lift', held: i % 2 === 0, on: 3840 }));
  return commands.sort((a, b) => a.frame - b.frame);
}
