import { random } from '../random';
import { ticksToMs } from '../time/ticks';
import { LANES, playLane } from './hands.testing';
import { suggestGrid } from './suggestGrid';
import type { GridName } from './grid';

const every = (step: number, length: number, from = 0) =>
  Array.from({ length: Math.floor((length - from - 1) / step) + 1 }, (_, i) => from + i * step);

interface Performance {
  what: string;
  lane: string;
  tempo: number;
  /** Ticks as meant. */
  meant: number[];
  /** Lean of the whole lane, ms. */
  lean?: number;
  /** Strokes stray evenly by up to this, ms. */
  spread: number;
  grid: GridName;
}

const BAR = 3840;
const PERFORMANCES: Performance[] = [
  { what: 'eighths with a sixteenth pickup', lane: 'Closed hat', tempo: 96, meant: [...every(480, 2 * BAR), 2 * BAR - 240], spread: 15, grid: '1/16' },
  { what: 'triplet hats over a straight kick', lane: 'Closed hat', tempo: 88, meant: every(320, 2 * BAR), spread: 15, grid: '1/8T' },
  { what: 'the straight kick under them', lane: 'Kick', tempo: 88, meant: every(960, 2 * BAR), spread: 15, grid: '1/4' },
  { what: 'a roll of thirty-seconds', lane: 'Snare', tempo: 90, meant: [960, 2880, ...every(120, BAR, 3360)], spread: 15, grid: '1/32' },
  { what: 'rushed eighths', lane: 'Ride', tempo: 120, meant: every(480, 2 * BAR), lean: -22, spread: 15, grid: '1/8' },
  { what: 'dragged sixteenths', lane: 'Shaker', tempo: 100, meant: every(240, 2 * BAR), lean: 20, spread: 15, grid: '1/16' },
  { what: 'a backbeat', lane: 'Snare', tempo: 112, meant: [960, 2880, 4800, 6720], spread: 15, grid: '1/4' },
  { what: 'a kick with an eighth before the bar', lane: 'Kick', tempo: 124, meant: [...every(960, 2 * BAR), 2 * BAR - 480], spread: 15, grid: '1/8' },
  { what: 'sixteenth triplets in a hat fill', lane: 'Closed hat', tempo: 80, meant: [...every(480, BAR), ...every(160, 2 * BAR, BAR + 2880)], spread: 12, grid: '1/16T' },
  { what: 'fast sixteenths', lane: 'Closed hat', tempo: 170, meant: every(240, 2 * BAR), spread: 12, grid: '1/16' },
  { what: 'fast eighth triplets', lane: 'Tambourine', tempo: 160, meant: every(320, 2 * BAR), spread: 12, grid: '1/8T' },
  { what: 'syncopated kicks on sixteenths', lane: 'Kick', tempo: 92, meant: [0, 720, 1440, 2640, 3840, 4560, 5520, 7440], spread: 15, grid: '1/16' },
]; // prettier-ignore

/** The performance as hands play it, struck ticks. */
function play({ meant, lean = 0, spread, tempo }: Performance, seed: number): number[] {
  const next = random(seed);
  return meant.map((tick) => tick + (lean + (2 * next() - 1) * spread) / ticksToMs(1, tempo));
}

test('of 12 made-up performances with known divisions at least 11 get their grid, and the reason names the lane', () => {
  // Not one lucky draw: twenty hands each play all twelve.
  for (let seed = 1; seed <= 20; seed++) {
    const found = PERFORMANCES.map((p, i) => suggestGrid(play(p, seed * 100 + i), ticksToMs(1, p.tempo), p.lane)!);
    const right = found.filter((s, i) => s.grid === PERFORMANCES[i]!.grid);
    const wrong = PERFORMANCES.map((p, i) => `${p.what}: ${found[i]!.grid}`).filter((_, i) => found[i]!.grid !== PERFORMANCES[i]!.grid); // prettier-ignore
    if (right.length < 11) throw new Error(`hand ${seed}: ${wrong.join('; ')}`);
    expect(found.every((s, i) => s.reason.includes(PERFORMANCES[i]!.lane))).toBe(true);
  }
});

describe('the grid of sixteen kinds of lane, sixty hands each', () => {
  const HANDS = 60;
  const shares = LANES.map((lane, l) => {
    let right = 0;
    for (let hand = 0; hand < HANDS; hand++) {
      const { ticks, msPerTick, grid } = playLane(lane, 1000 * l + hand + 1);
      if (suggestGrid(ticks, msPerTick, 'Snare')?.grid === grid) right++;
    }
    return { what: lane.what, right: right / HANDS };
  });

  test('right in at least 85 % of all', () => {
    expect(shares.reduce((sum, { right }) => sum + right, 0) / shares.length).toBeGreaterThanOrEqual(0.85);
  });

  test.each(shares.map(({ what, right }) => [what, right] as const))('%s', (_, right) => {
    expect(right).toBeGreaterThanOrEqual(0.7);
  });
});

test('one hit tells nothing', () => {
  expect(suggestGrid([5], 0.5, 'Kick')).toBeNull();
});
