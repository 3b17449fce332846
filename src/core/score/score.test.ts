import { demoSet } from '../document/demo';
import { FIRST_ECHO, type Mix } from '../document/mix';
import type { Move } from '../document/moves';
import { randomDeeds } from '../engine/performances.testing';
import { replayLog } from '../engine/replay';
import { at, type CommandType } from '../protocol/commands';
import { packScore, unpackScore } from './packScore';
import { readScore } from './readScore';
import { replayScore } from './replayScore';
import { copied, performed, play, SR, strike } from './score.testing';
import { blockStrokes, foldedTick, type Block, type Stroke } from './score';

/** What hands do that a score tells of; clicks and changed patterns or kits are not in it. */
const HANDS = new Set<CommandType>(['padDown', 'padUp', 'padPress', 'launch', 'launchSection', 'turn', 'trackLevel', 'tempo', 'muteSolo', 'lift', 'noteRepeat', 'repeatRate']); // prettier-ignore

function samples(replay: ReturnType<typeof replayLog>, from: number, frames: number): Float32Array[] {
  replay.skipTo(from);
  const out = [new Float32Array(frames), new Float32Array(frames)] as const;
  replay.process(...out);
  return [...out];
}

test('what a score plays is what was heard: nearly always to the bit, and never further off than one sample of a note’s end', () => {
  const count = Number(process.env.SCORES ?? 12);
  let exact = 0;
  for (let seed = 1; seed <= count; seed++) {
    const deeds = randomDeeds(seed, 1000, 3 * SR, 40).filter(({ type }) => HANDS.has(type));
    const run = performed([play(1000), ...structuredClone(deeds)], 4 * SR);
    const frames = run.to - run.from;
    const heard = samples(replayLog(copied(run)), run.from, frames);
    const again = samples(replayScore(readScore(copied(run), run), SR), run.from, frames);
    let worst = 0;
    for (let i = 0; i < frames; i++) {
      for (const side of [0, 1]) worst = Math.max(worst, Math.abs(heard[side]![i]! - again[side]![i]!));
    }
    expect({ seed, close: worst < 1e-3 }).toEqual({ seed, close: true });
    if (worst === 0) exact++;
  }
  expect(exact / count).toBeGreaterThan(0.8);
}, 120_000);

test('a score crosses to another thread as it is', () => {
  const deeds = randomDeeds(3, 1000, 3 * SR, 60).filter(({ type }) => HANDS.has(type));
  const run = performed([play(1000), ...deeds], 4 * SR);
  const score = readScore(copied(run), run);
  expect(unpackScore(structuredClone(packScore(score)))).toEqual(score);
});

test('blocks begin and end on the lines on which patterns were launched; bars are those of the song', () => {
  const bar = 4 * 960;
  const perTick = (SR * 60) / (112 * 960);
  const start = 1000;
  const after = (bars: number) => Math.round(start + bars * bar * perTick);
  const run = performed(
    [
      play(start),
      at(after(0.5), { type: 'launch', track: 0, slot: 1, on: bar, inPlace: false }),
      at(after(1.5), { type: 'muteSolo', track: 1, mute: 1, solo: 0, on: bar }),
      strike(after(2.25), 0, 10, 1),
      at(after(2.5), { type: 'tempo', bpm: 100 }),
      at(after(3), { type: 'stop' }),
    ],
    after(3) + SR,
  );
  const score = readScore(copied(run), run);
  const [wheels, rails] = score.tracks;
  const near = (tick: number) => expect.closeTo(tick, 1) as number;
  expect(wheels!.blocks.map(({ name, from, length }) => [name, from, length])).toEqual([
    [run.set.tracks[0]!.patterns[0]!.name, 0, bar],
    [run.set.tracks[0]!.patterns[1]!.name, bar, near(1.5 * bar + ((after(3) - after(2.5)) / perTick) * (100 / 112))],
  ]);
  expect(wheels!.hits.map(({ pad, tick }) => [pad, tick])).toEqual([[10, near(2.25 * bar)]]);
  expect(score.tempo).toEqual([{ tick: 0, value: 112 }, { tick: near(2.5 * bar), value: 100 }]); // prettier-ignore
  // To the last digit: where a section's mark is, there begins its block.
  expect(wheels!.blocks[1]!.from).toBe(bar);
  expect(rails!.levels.map(({ tick, value }) => [tick, value])).toEqual([[0, run.set.tracks[1]!.level], [near(2 * bar), 0]]); // prettier-ignore
  expect(score.length).toBe(3 * bar);
});

const course = (...points: [tick: number, value: number][]) => points.map(([tick, value]) => ({ tick, value }));

test('a score plays the mix that was heard, what was turned meanwhile, too', () => {
  const { set, stage } = demoSet();
  const tracks = { ...set.tracks };
  tracks[0] = {
    ...tracks[0]!,
    goesTo: 1,
    padsTo: [{ pad: 0, group: 0 }],
    channel: { low: 4, ratio: 3, threshold: -24 },
  };
  const { patterns } = tracks[3]!;
  const moves: Move[] = [
    { pad: 4, control: 'pressure', points: course([0, 0], [1900, 1], [3840, 0.2]) },
    { pad: 4, control: 'bright', points: course([0, -0.5], [3000, 0.8]) },
    { on: 'track', control: 'pan', points: course([0, -1], [7000, 1]) },
    { on: 'track', control: 'level', points: course([0, 1], [3000, 0.2], [5000, 0.9]) },
    { on: 'group', control: 'room', points: course([0, 0.5]) },
    { on: 'whole', control: 'filter', points: course([0, -0.5], [3840, 0]) },
    { on: 'room', control: 'size', points: course([0, 0.4], [3840, 2]) },
    { on: 'echo', control: 'feedback', points: course([0, 0.2], [3840, 0.8]) },
    { on: 'echo', control: 'time', points: course([0, 3], [1920, 5]) },
  ];
  tracks[3] = {
    ...tracks[3]!,
    channel: { echo: 0.4, filter: -0.3, pan: 0.4 },
    patterns: patterns.map((pattern) => pattern && { ...pattern, moves }),
  };
  const groups = [
    { id: 0, name: 'Skates', colour: 1, level: 0.9 },
    { id: 1, name: 'Drums', colour: 2, level: 0.7 },
  ];
  const mix: Mix = { echo: { ...FIRST_ECHO, time: '1/8' }, groups };
  const turns = [
    at(40000, { type: 'channel', channel: 3, control: 'filter', value: -0.8 } as const),
    // Of what is moved meanwhile the setting alone changes; a hand has it as long as it holds it.
    at(50000, { type: 'channel', channel: 3, control: 'pan', value: 0.1 } as const),
    at(60000, { type: 'ride', channel: 3, control: 'echo', value: 1 } as const),
    at(70000, { type: 'goesTo', channel: 3, group: 1 } as const),
    at(72000, { type: 'padGoesTo', track: 0, pad: 4, group: 0 } as const),
    at(75000, { type: 'room', size: 1.5, damping: 0.2, width: 0.5, preDelay: 25 } as const),
    at(78000, { type: 'rideReturn', on: 'echo', control: 'tone', value: 0.9 } as const),
    at(80000, { type: 'ride', channel: 3, control: 'echo', value: NaN } as const),
    at(95000, { type: 'rideReturn', on: 'echo', control: 'tone', value: NaN } as const),
    at(90000, { type: 'goesTo', channel: 0, group: -1 } as const),
    at(100000, { type: 'echo', ticks: 240, ms: 0, feedback: 0.5, tone: 0.5, width: 0 } as const),
  ];
  const run = performed([play(1000), ...turns], 4 * SR, { set: { ...set, tracks, mix }, stage });
  const score = readScore(copied(run), run);
  expect(score.turned.map(({ told }) => told.type)).toEqual(
    expect.arrayContaining(['channel', 'goesTo', 'padGoesTo', 'echo', 'room', 'turn']),
  );
  const frames = run.to - run.from;
  const heard = samples(replayLog(copied(run)), run.from, frames);
  const again = samples(replayScore(score, SR), run.from, frames);
  // A note may end a sample apart.
  for (const side of [0, 1]) expect(heard[side]!.findIndex((x, i) => Math.abs(x - again[side]![i]!) > 1e-5)).toBe(-1);
});

test('a run that begins with its song begins with bar 1, wherever the first frame lies', () => {
  for (let start = 20_000; start < 20_400; start += 7) {
    const launch = at(start + SR, { type: 'launchSection', section: 2, on: 3840, inPlace: false } as const);
    const run = performed([play(start), launch], start + 3 * SR);
    const { tracks, marks } = readScore(copied(run), run);
    const [first, second] = tracks[0]!.blocks;
    expect([start, first!.from]).toEqual([start, expect.closeTo(0, 1)]);
    // What is launched with a section begins where its mark is, to the last digit.
    expect([start, second!.from, marks.at(-1)!.tick]).toEqual([start, 3840, 3840]);
  }
});

test('a run begun without the song has its bars from its first stroke on', () => {
  const run = performed([strike(2000, 0, 0, 1), strike(26000, 0, 2, 3)], 60000);
  const score = readScore(copied(run), run);
  expect(score.tracks[0]!.hits.map(({ pad }) => pad)).toEqual([0, 2]);
  expect(score.tracks[0]!.hits[0]!.tick).toBeLessThan(0.1);
  expect(score.tracks.every(({ blocks }) => blocks.length === 0)).toBe(true);
});

const plain = { late: 0, pad: 0, velocity: 1, length: 1, pitch: 0, filter: 0, decay: 0, level: 1, pan: 0 };
const block = (change: Partial<Block>): Block => {
  const strokes = [0, 100, 450].map((tick, id): Stroke => ({ ...plain, id, tick }));
  return { id: 1, name: 'A', colour: 0, from: 1000, length: 480, into: 0, content: { length: 480, loop: 240, strokes }, ...change }; // prettier-ignore
};
const ticks = (one: Block) => blockStrokes(one).map(({ tick }) => tick);

test('a block that is longer than what was heard goes round; one that begins later leaves out', () => {
  expect(ticks(block({}))).toEqual([1000, 1100, 1450]);
  expect(ticks(block({ length: 200 }))).toEqual([1000, 1100]);
  expect(ticks(block({ into: 100, length: 380 }))).toEqual([1000, 1350]);
  expect(ticks(block({ length: 960 }))).toEqual([1000, 1100, 1450, 1690, 1930]);
  expect(ticks(block({ into: -240, length: 480 }))).toEqual([1000, 1100, 1240, 1340]);
  expect(foldedTick(block({}).content, 500)).toBe(260);
});
