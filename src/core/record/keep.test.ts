import { JustPlayed, type PlayedStroke } from './justPlayed';
import { barStart, keptFrom, keptHits, onBeat, onSong } from './keep';

const BAR = 3840;
const BEAT = 960;

const stroke = (id: number, songTick: number | null, ms = 0): PlayedStroke => ({
  id,
  track: 0,
  pad: id % 16,
  velocity: 0.5,
  ms,
  songTick,
  heldMs: 100,
});

describe('what was just played', () => {
  test('64 bars with the song are remembered, older ones are not', () => {
    const memory = new JustPlayed();
    for (let bar = 0; bar < 80; bar++) for (let i = 0; i < 4; i++) memory.add(stroke(bar * 4 + i, bar * BAR + i * BEAT), BAR); // prettier-ignore
    const kept = memory.lastStretch(0);
    expect(kept).toHaveLength(64 * 4 + 1);
    expect(kept[0]!.songTick).toBe(79 * BAR + 3 * BEAT - 64 * BAR);
  });

  test('4 minutes of free playing are remembered', () => {
    const memory = new JustPlayed();
    for (let s = 0; s < 400; s++) memory.add(stroke(s, null, s * 1000), BAR);
    expect(memory.lastStretch(0)[0]!.ms).toBe(399_000 - 240_000);
  });

  test('playing with the song and free playing are not mixed, nor two tracks, nor two runs of the song', () => {
    const memory = new JustPlayed();
    memory.add(stroke(1, 5000), BAR);
    memory.add(stroke(2, null, 10), BAR);
    memory.add({ ...stroke(3, null, 20), track: 1 }, BAR);
    expect(memory.lastStretch(0).map((s) => s.id)).toEqual([2]);
    memory.add(stroke(4, 9000), BAR);
    memory.add(stroke(5, 10), BAR);
    expect(memory.lastStretch(0).map((s) => s.id)).toEqual([5]);
    memory.release(5, 77);
    expect(memory.lastStretch(0)[0]!.heldMs).toBe(77);
  });
});

describe('which bars are kept', () => {
  const played = (...ticks: number[]) => onSong(ticks.map((tick, i) => stroke(i + 1, tick)));
  const from = (ticks: number[], bars: number, now: number | null) => keptFrom(played(...ticks), { bars, bar: BAR, beat: BEAT, grid: 240, now }) / BAR; // prettier-ignore
  const through = (bars: number) => Array.from({ length: bars * 4 }, (_, i) => i * BEAT);

  test('still playing, the last ones that are over', () => {
    expect(from(through(9), 2, 9 * BAR + 200)).toBe(7);
    expect(from([...through(9), 9 * BAR], 4, 9 * BAR + 1200)).toBe(5);
  });

  test('in the last beat of a bar, that bar too', () => expect(from(through(8), 2, 8 * BAR - 300)).toBe(6));

  test('after the playing, those of the last stroke; a closing one is not a bar', () => {
    expect(from(through(4), 2, 12 * BAR)).toBe(2);
    expect(from([...through(4), 4 * BAR - 20], 2, 12 * BAR)).toBe(2);
    expect(from(through(4), 2, null)).toBe(2);
  });

  test('no further back than the playing', () => expect(from(through(3).map((t) => t + 5 * BAR), 8, null)).toBe(5)); // prettier-ignore
});

test('kept hits lie where they were struck, an early one before the first step', () => {
  const beat = { tempo: 120, firstBeatMs: 1000 };
  const strokes = [stroke(1, null, 990), stroke(2, null, 1500), stroke(3, null, 2995), stroke(4, null, 600)];
  let id = 0;
  const snap = { grid: 240, strength: 1 };
  const hits = keptHits(onBeat(strokes, beat), { from: 0, length: BAR, snap, grid: 240, ticksPerMs: 1.92 }, () => ++id);
  expect(hits.map((h) => [h.pad, h.tick])).toEqual([
    [1, expect.closeTo(-19.2, 9)],
    [2, expect.closeTo(960, 9)],
  ]);
  expect(hits[0]).toMatchObject({ length: 192, velocity: 0.5, snap });
});

test('a grid that does not fit the bar is counted from each bar: quarters in 7/8', () => {
  const bar = 3360;
  expect(barStart(10070, bar, 960)).toBe(10080); // a hair before bar 4, on which it was meant
  expect(barStart(10000, bar, 960)).toBe(10080);
  expect(barStart(9700, bar, 960)).toBe(6720); // nearer to the last quarter of bar 3
  expect(barStart(10090, bar, 960)).toBe(10080);
  // Where it fits it is as ever: half a step before the line.
  expect([3719, 3720].map((tick) => barStart(tick, 3840, 240))).toEqual([0, 3840]);
});
