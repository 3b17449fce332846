import { POLISHED_FLOOR } from '../document/kits';
import { random } from '../random';
import { ticksPerBar } from '../time/ticks';
import { fixesText, readFixes } from './fixSchema';
import { fixed, lineRange, lineValue, type Dropped, type Fix, type StrokeLine } from './fix';
import { blockStrokes, stepAt, trackStrokes, type Block, type Score, type ScoreTrack, type Stroke } from './score';

const BAR = 3840;

function stroke(id: number, tick: number, change: Partial<Stroke> = {}): Stroke {
  return { id, tick, late: 0, pad: id % 16, velocity: 0.7, length: 120, pitch: 0, filter: 0, decay: 0, level: 1, pan: 0, ...change }; // prettier-ignore
}

function block(id: number, name: string, from: number, length: number): Block {
  const strokes = Array.from({ length: Math.ceil(length / 480) }, (_, i) => stroke(1000 * id + i, i * 480));
  return { id, name, colour: 1, from, length, into: 0, content: { length, loop: BAR, strokes } };
}

function track(id: number, blocks: readonly Block[], hits: readonly Stroke[]): ScoreTrack {
  return { id, name: `Track ${id}`, colour: id, kit: POLISHED_FLOOR, blocks, hits, levels: [{ tick: 0, value: 0.8 }, { tick: 9000, value: 0 }, { tick: 12000, value: 0.8 }] }; // prettier-ignore
}

/** Eight bars on three tracks. */
function score(): Score {
  return {
    meter: { beats: 4, unit: 4 },
    length: 8 * BAR,
    tempo: [{ tick: 0, value: 112 }, { tick: 4 * BAR, value: 120 }],
    turned: [],
    marks: [{ tick: 0, section: 1, name: 'First Laps', colour: 0 }, { tick: 4 * BAR, section: 2, name: 'Fast Laps', colour: 1 }],
    frame: 48000,
    songTick: 0,
    tracks: [
      track(0, [block(1, 'A', 0, 4 * BAR), block(2, 'B', 4 * BAR, 4 * BAR)], [stroke(11, 1000), stroke(12, 20000, { late: 30 })]),
      track(3, [block(3, 'C', BAR, 2 * BAR)], []),
      track(5, [], [stroke(13, 5000)]),
    ],
  }; // prettier-ignore
}

const blocksOf = (one: Score, row = 0) => one.tracks[row]!.blocks.map(({ name, from, length, into }) => [name, from / BAR, length / BAR, into / BAR]); // prettier-ignore
const heard = (one: Score) => one.tracks.map((each) => trackStrokes(each).map(({ tick, pad }) => [tick, pad]));

test('a block that is moved over others cuts them, and may go to another track', () => {
  const moved = fixed(score(), { type: 'moveBlocks', blocks: [2], by: -3 * BAR, rows: 0 });
  expect(blocksOf(moved)).toEqual([['A', 0, 1, 0], ['B', 1, 4, 0]]); // prettier-ignore
  const within = fixed(score(), { type: 'moveBlocks', blocks: [3], by: 0, rows: -1 });
  expect(blocksOf(within)).toEqual([['A', 0, 1, 0], ['C', 1, 2, 0], ['A', 3, 1, 3], ['B', 4, 4, 0]]); // prettier-ignore
  expect(blocksOf(within, 1)).toEqual([]);
  expect(blocksOf(fixed(score(), { type: 'moveBlocks', blocks: [1], by: -99 * BAR, rows: -9 }))).toEqual(blocksOf(score())); // prettier-ignore
});

test('a block is stretched by going round, and shortened without losing what it hides', () => {
  const long = fixed(score(), { type: 'boundBlock', block: 3, from: 0, length: 6 * BAR });
  expect(blocksOf(long, 1)).toEqual([['C', 0, 6, -1]]);
  expect(blockStrokes(long.tracks[1]!.blocks[0]!)).toHaveLength(48);
  const short = fixed(long, { type: 'boundBlock', block: 3, from: BAR, length: BAR });
  const back = fixed(short, { type: 'boundBlock', block: 3, from: BAR, length: 2 * BAR });
  expect(heard(back)).toEqual(heard(score()));
});

test('copies lie where they are put; the score grows with them', () => {
  const copy = fixed(score(), { type: 'copyBlocks', blocks: [2], by: 4 * BAR });
  expect(blocksOf(copy)).toEqual([['A', 0, 4, 0], ['B', 4, 4, 0], ['B', 8, 4, 0]]); // prettier-ignore
  expect(copy.length).toBe(12 * BAR);
  expect(new Set(copy.tracks[0]!.blocks.map(({ id }) => id)).size).toBe(3);
});

test('a stretch that is closed takes its blocks, hits, lines and marks along; what follows comes forward', () => {
  const closed = fixed(score(), { type: 'closeStretch', from: 2 * BAR, to: 5 * BAR });
  expect(blocksOf(closed)).toEqual([['A', 0, 2, 0], ['B', 2, 3, 1]]); // prettier-ignore
  expect(closed.length).toBe(5 * BAR);
  expect(closed.tempo).toEqual([{ tick: 0, value: 112 }, { tick: 2 * BAR, value: 120 }]); // prettier-ignore
  expect(closed.marks.map(({ name }) => name)).toEqual(['First Laps']);
  expect(closed.tracks[0]!.hits.map(({ tick }) => tick)).toEqual([1000, 20000 - 3 * BAR]);
  expect(stepAt(closed.tracks[0]!.levels, 8000)).toBe(0.8);
});

test('hits are placed from where they were struck, and can be brought back to it', () => {
  const straight = fixed(score(), { type: 'placeHits', hits: [12], feel: { grid: 240, strength: 1 } });
  expect(straight.tracks[0]!.hits[1]).toMatchObject({ tick: 19920, late: -50 }); // struck at 19970
  const asStruck = fixed(straight, { type: 'placeHits', hits: [12], feel: { grid: 0, strength: 1 } });
  expect(asStruck.tracks[0]!.hits[1]).toMatchObject({ tick: 19970, late: 0 });
});

test('a line that is drawn holds in its stretch; strokes follow it between its points', () => {
  const drawn = fixed(score(), { type: 'drawLevels', track: 0, from: BAR, to: 2 * BAR, steps: [{ tick: BAR, value: 0.5 }, { tick: 6000, value: 7 }] }); // prettier-ignore
  expect(drawn.tracks[0]!.levels.slice(0, 4)).toEqual([{ tick: 0, value: 0.8 }, { tick: BAR, value: 0.5 }, { tick: 6000, value: 1 }, { tick: 2 * BAR, value: 0.8 }]); // prettier-ignore
  const filtered = fixed(score(), { type: 'drawStrokes', track: 0, line: 'filter', from: 0, to: 960, steps: [{ tick: 0, value: -4 }, { tick: 960, value: 0 }] }); // prettier-ignore
  expect(trackStrokes(filtered.tracks[0]!).slice(0, 3).map(({ tick, filter }) => [tick, filter])).toEqual([[0, -4], [480, -2], [960, 0]]); // prettier-ignore
});

test('room that is made and closed again leaves everything as it was heard', () => {
  for (const at of [0, 1000, BAR, 2.5 * BAR, 8 * BAR]) {
    const open = fixed(score(), { type: 'openStretch', at, ticks: 2 * BAR });
    expect(open.length).toBe(10 * BAR);
    const closed = fixed(open, { type: 'closeStretch', from: at, to: at + 2 * BAR });
    expect([at, heard(closed)]).toEqual([at, heard(score())]);
    expect(closed.tempo).toEqual(score().tempo);
  }
});

// --- whatever is done ---------------------------------------------------------------------------------------------

const LINES: readonly StrokeLine[] = ['pitch', 'filter', 'decay', 'level', 'pan', 'velocity'];

function newBlock(from: number): Dropped['block'] {
  const { id: _, ...rest } = block(1, 'New', from, BAR);
  return rest;
}

/** One thing that a hand could do next. */
function chanceFix(next: () => number, one: Score): Fix {
  const whole = (below: number) => Math.floor(next() * below);
  const of = <T>(list: readonly T[]): T => list[whole(list.length)]!;
  const tick = () => of([whole(16) * BAR, whole(64) * 960, next() * one.length]);
  const ids = (list: readonly { id: number }[]) => list.filter(() => next() < 0.3).map(({ id }) => id);
  const blocks = () => ids(one.tracks.flatMap((each) => each.blocks));
  const hits = () => ids(one.tracks.flatMap((each) => each.hits));
  const steps = (from: number, to: number) => Array.from({ length: whole(5) }, () => ({ tick: from + next() * (to - from), value: next() * 400 - 100 })); // prettier-ignore
  const stretch = () => {
    const from = tick();
    return { from, to: from + 1 + next() * 3 * BAR };
  };
  const makers: (() => Fix)[] = [
    () => ({ type: 'moveBlocks', blocks: blocks(), by: tick() - tick(), rows: whole(5) - 2 }),
    () => ({ type: 'boundBlock', block: blocks()[0] ?? 1, from: tick(), length: next() * 6 * BAR }),
    () => ({ type: 'copyBlocks', blocks: blocks(), by: tick() }),
    () => ({ type: 'removeBlocks', blocks: blocks().slice(0, 1) }),
    () => ({ type: 'dropBlocks', dropped: [{ track: of([0, 3, 5]), block: newBlock(tick()) }] }),
    () => ({ type: 'closeStretch', ...stretch() }),
    () => ({ type: 'openStretch', at: tick(), ticks: next() * 4 * BAR }),
    () => ({ type: 'removeHits', hits: hits().slice(0, 2) }),
    () => ({ type: 'moveHits', hits: hits(), by: tick() - tick() }),
    () => ({ type: 'placeHits', hits: hits(), feel: { grid: of([0, 240, 960]), strength: next() } }),
    () => ({ type: 'dropHit', track: of([0, 3, 5]), hit: stroke(0, tick()) }),
    () => { const s = stretch(); return { type: 'drawLevels', track: of([0, 3, 5]), ...s, steps: steps(s.from, s.to) }; },
    () => { const s = stretch(); return { type: 'drawTempo', ...s, steps: steps(s.from, s.to) }; },
    () => ({ type: 'raiseStrokes', track: of([0, 3, 5]), line: of(LINES), ...stretch(), by: of([-30, -0.1, 0.1, 30]) }),
    () => { const s = stretch(); return { type: 'drawStrokes', track: of([0, 3, 5]), line: of(LINES), ...s, steps: steps(s.from, s.to) }; },
  ]; // prettier-ignore
  return of(makers)();
}

/** What holds of every score. */
function expectRight(one: Score, name: string): void {
  const wrong: string[] = [];
  const check = (right: boolean, what: string) => void (right || wrong.push(what));
  const ids = one.tracks.flatMap(({ blocks, hits }) => [...blocks, ...hits].map(({ id }) => id));
  check(new Set(ids).size === ids.length, 'two of one id');
  check(one.length > 0 && one.length % ticksPerBar(one.meter) === 0, 'no whole bars');
  const rising = (steps: readonly { tick: number }[]) => steps.every(({ tick }, i) => (i === 0 ? tick === 0 : tick > steps[i - 1]!.tick)); // prettier-ignore
  check(rising(one.tempo) && one.tempo.every(({ value }) => value >= 20 && value <= 300), 'tempo');
  for (const { blocks, hits, levels } of one.tracks) {
    check(rising(levels) && levels.every(({ value }) => value >= 0 && value <= 1), 'levels');
    check(
      hits.every(({ tick }, i) => tick >= (hits[i - 1]?.tick ?? 0) && tick < one.length),
      'hits',
    );
    check(
      blocks.every(({ length }) => length > 0),
      'an empty block',
    );
    check(blocks.every(({ from }, i) => from >= (i === 0 ? 0 : blocks[i - 1]!.from + blocks[i - 1]!.length - 1e-6)), 'blocks over each other'); // prettier-ignore
    check(
      blocks.every(({ from, length }) => from + length <= one.length + 1e-6),
      'a block beyond the end',
    );
    for (const each of [...hits, ...blocks.flatMap(blockStrokes)]) {
      const inBounds = LINES.every(
        (line) => lineValue(each, line) >= lineRange(line).min && lineValue(each, line) <= lineRange(line).max,
      );
      check(inBounds && Number.isFinite(each.tick), 'a stroke out of bounds');
    }
  }
  expect([name, wrong]).toEqual([name, []]);
}

test('whatever is put right leaves a score that is right, and what was played as it was', () => {
  const count = Number(process.env.FIXES ?? 300);
  for (let seed = 1; seed <= count; seed++) {
    const next = random(seed);
    const asPlayed = score();
    const before = JSON.stringify(asPlayed);
    let one = asPlayed;
    for (let i = 0; i < 12; i++) {
      // Stored and read again, a fix does the same.
      const fix = JSON.parse(JSON.stringify(chanceFix(next, one))) as Fix;
      const was = JSON.stringify(one);
      const fixedOne = fixed(one, fix);
      expect(JSON.stringify(one)).toBe(was);
      expectRight(fixedOne, `seed ${seed}, fix ${i}: ${fix.type}`);
      one = fixedOne;
    }
    expect(JSON.stringify(asPlayed)).toBe(before);
  }
});

test('what was put right is stored and read again; a mutated record is read, or says what is wrong and where', () => {
  const next = random(11);
  const one = score();
  const fixes = Array.from({ length: 60 }, () => chanceFix(next, one));
  const text = fixesText({ fixes, done: 40 });
  expect(readFixes(text)).toEqual({ value: { fixes: JSON.parse(JSON.stringify(fixes)) as Fix[], done: 40 } });
  let refused = 0;
  for (let i = 0; i < 500; i++) {
    const at = Math.floor(next() * text.length);
    const mutated = [
      text.slice(0, at),
      text.slice(0, at) + String.fromCharCode(32 + next() * 90) + text.slice(at + 1),
      text.slice(0, at) + text.slice(at + 1 + next() * 20),
      text.replace(/-?\d+(\.\d+)?/, '1e300'),
    ][i % 4]!;
    const read = readFixes(mutated);
    if ('problem' in read) {
      expect(read.problem).toMatch(/^(At |It is )/);
      refused++;
    } else expectRight(read.value.fixes.slice(0, read.value.done).reduce(fixed, one), `mutated ${i}`);
  }
  expect(refused).toBeGreaterThan(250);
});
