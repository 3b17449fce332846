import { hitsInStep, stepCount, stepWords } from './steps';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

const hit = (id: number, tick: number, more: Partial<Hit> = {}): Hit => ({
  id,
  pad: 0,
  tick,
  length: 1,
  velocity: 1,
  snap: null,
  ...more,
});
const pattern = (hits: Hit[]): Pattern => ({ name: 'p', length: 3840, hits });
const four = { beats: 4, unit: 4 };

test('a step holds what is placed in it, wherever it was struck, and what is covered there', () => {
  const p = pattern([
    hit(1, -20, { snap: { grid: 240, strength: 1 } }),
    hit(2, 10, { snap: { grid: 240, strength: 1 } }),
    hit(3, 250),
    hit(4, 250, { pad: 1 }),
  ]);
  const ids = (tick: number) => hitsInStep(p, { lane: ({ pad }) => pad === 0, tick, length: 240 }).map((h) => h.id);
  expect([ids(0), ids(240), ids(480)]).toEqual([[2, 1], [3], []]);
});

test('steps are named by bar, beat and step within the beat', () => {
  expect(stepWords(0, 240, four)).toBe('bar 1 beat 1 step 1');
  expect(stepWords(3840 + 960 + 480, 240, four)).toBe('bar 2 beat 2 step 3');
  expect(stepWords(640, 320, four)).toBe('bar 1 beat 1 step 3');
  expect(stepWords(2880, 480, { beats: 6, unit: 8 })).toBe('bar 2 beat 1 step 1');
});

test('a loop that no whole number of steps fills has a last one that is cut short', () => {
  expect([stepCount(3840, 240), stepCount(3360, 960), stepCount(10, 240)]).toEqual([16, 4, 1]);
});
