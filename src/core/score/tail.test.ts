import { FIRST_ECHO } from '../document/mix';
import { echoInstruction } from '../protocol/mixInstructions';
import { at, type Command } from '../protocol/commands';
import { SAME_TICKS, ticksPerBar } from '../time/ticks';
import { readScore } from './readScore';
import type { Score } from './score';
import { loudest, performed, play, rendered, SR } from './score.testing';
import { tailFrames } from './tail';

/** Three bars of the demo. */
function demoScore(deeds: readonly Command[] = []): Score {
  const run = performed([...deeds, play(1000)], 7 * SR);
  return readScore(run, run);
}

/** All of it to an echo of quarters that comes back with that gain each time. */
function echoing(gain: number): Score {
  const sends = [0, 1].map((channel) => at(600, { type: 'channel', channel, control: 'echo', value: 1 }));
  return demoScore([...sends, at(600, echoInstruction({ ...FIRST_ECHO, time: '1/4', feedback: gain / MOST_FEEDBACK, tone: 1 }))]); // prettier-ignore
}
/** What comes back of an echo whose feedback stands at its end. */
const MOST_FEEDBACK = 0.95;

/** What rings on after a tick, or the first two bars. */
function tailOf(score: Score, to = 2 * ticksPerBar(score.meter)): Float32Array {
  return rendered(score, { from: to, to }, { track: null, limited: false, tail: tailFrames(score, to, SR) }).left;
}

test('short sounds have the least tail, and are silent long before its end', () => {
  const tail = tailOf(demoScore());
  expect(tail.length).toBe(4 * SR);
  expect(loudest(tail.subarray(0, SR))).toBeGreaterThan(0.01);
  expect(loudest(tail.subarray(3 * SR))).toBeLessThan(1e-3);
});

test('an echo rings on until it is 60 dB below full scale, as long as that takes by its gain', () => {
  const tail = tailOf(echoing(0.8));
  const quarter = (60 / 112) * SR;
  // Each time it is 0.8 times as loud, and its highs, which make its peaks, are less: from what it is at first to a thousandth.
  const times = Math.log(loudest(tail.subarray(0, quarter)) / 1e-3) / Math.log(1 / 0.8);
  expect(tail.length / quarter).toBeLessThan(times + 1);
  expect(tail.length / quarter).toBeGreaterThan(0.7 * times);
  // It ends where it is that soft, and no sooner.
  expect(loudest(tail.subarray(tail.length - 2 * quarter))).toBeLessThan(2e-3);
  expect(loudest(tail.subarray(tail.length - 4 * quarter, tail.length - 2 * quarter))).toBeGreaterThan(1e-3);
  expect(tail.length).toBeGreaterThan(6 * SR);
});

test('what hardly dies away ends after half a minute, in a fade', () => {
  const tail = tailOf(echoing(MOST_FEEDBACK));
  expect(tail.length).toBe(30 * SR);
  const half = tail.length - SR / 2;
  const before = loudest(tail.subarray(half - SR, half));
  expect(before).toBeGreaterThan(1e-3);
  expect(loudest(tail.subarray(tail.length - 64))).toBeLessThan(before / 100);
});

test('what is struck on the end is not a part of it, though it lies before that by a rounding', () => {
  const score = demoScore();
  const to = 2 * ticksPerBar(score.meter);
  const plain = tailOf(score, to);
  expect(tailOf(score, to + SAME_TICKS / 10).findIndex((x, i) => x !== plain[i])).toBe(-1);
});
