import { demoSet } from '@/core/document/demo';
import type { Pattern } from '@/core/document/pattern';
import { tracksOf, type BeatSet } from '@/core/document/set';
import { at, type Command, type Instruction } from '@/core/protocol/commands';
import { random } from '@/core/random';
import { playedRun, SR, type PlayedRun } from './playedRun';

const POINTS = 5000;
const MOVED = ['filter', 'pitch', 'pan', 'decay'] as const;

/**
 * A run of the demo whose patterns have 5,000 points of Moves: 3,000 hits, 400 launches, Lift, 20 changes of tempo and 5,000 turns of
 * controls in twenty minutes.
 */
export function longRun(minutes = 20): PlayedRun {
  const { set, stage } = demoSet();
  const frames = minutes * 60 * SR;
  const facts = { id: 'long', name: 'Twenty minutes', from: 1000, hits: 3000, launches: 400, tempo: { least: 100, most: 140 } }; // prettier-ignore
  return playedRun({ set: withMoves(set), stage }, frames, deeds(frames), facts);
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
