import fc from 'fast-check';
import { random } from '../random';
import { ClockEstimate, CLOCKS_PER_QUARTER } from './clockEstimate';
import { CLOCK_TICKS, ClockOut } from './clockOut';
import type { MidiMessage } from './message';
import { NoteKeeper } from './noteKeeper';

/** ms from one clock to the next: 24 to a quarter (MIDI 1.0). */
const interval = (bpm: number) => 60000 / bpm / CLOCKS_PER_QUARTER;
const TWO_BARS = 2 * 4 * CLOCKS_PER_QUARTER;

/** Clocks at a tempo from a time on, each off by up to `jitter` ms, some of them lost. */
function clocks(bpm: number, count: number, from: number, { jitter = 2, lost = 0.01, seed = 1 } = {}) {
  const chance = random(seed);
  return Array.from({ length: count }, (_, i) => ({ i, at: from + i * interval(bpm) + (2 * chance() - 1) * jitter, gone: chance() < lost })); // prettier-ignore
}

test('the intervals that the standard gives', () => {
  // At 60, 120, 125 and 140 BPM, ms; computed from 24 to the quarter.
  expect([60, 120, 125, 140].map((bpm) => interval(bpm).toFixed(4))).toEqual(['41.6667', '20.8333', '20.0000', '17.8571']); // prettier-ignore
});

test('a clock that jitters by 2 ms and loses one in a hundred: after two bars within 0.1 BPM and 2 ms, after a jump of 10 BPM again', () => {
  fc.assert(
    fc.property(fc.integer({ min: 90, max: 174 }), fc.nat(), fc.constantFrom(-10, 10), (bpm, seed, jump) => {
      const estimate = new ClockEstimate();
      // The first clock always comes: it is the beat.
      const first = clocks(bpm, TWO_BARS + 48, 1000, { seed }).filter(({ gone }, i) => i === 0 || !gone);
      for (const { at, i } of first) {
        estimate.take(at);
        if (i < TWO_BARS) continue;
        expect(Math.abs(estimate.tempo - bpm)).toBeLessThan(0.1);
        const due = 1000 + i * interval(bpm);
        expect(Math.abs(estimate.countAt(due) - i) * interval(bpm)).toBeLessThan(2);
      }
      const next = bpm + jump;
      const from = 1000 + (TWO_BARS + 48) * interval(bpm);
      const second = clocks(next, TWO_BARS + 48, from, { seed: seed + 1 });
      for (const { at, i, gone } of second) {
        if (gone) continue;
        estimate.take(at);
        if (i < TWO_BARS) continue;
        expect(Math.abs(estimate.tempo - next)).toBeLessThan(0.1);
        const due = from + i * interval(next);
        expect(Math.abs(estimate.countAt(due) - (TWO_BARS + 48 + i)) * interval(next)).toBeLessThan(2);
      }
    }),
    { numRuns: Number(process.env.CLOCKS ?? 60) },
  );
});

test('how steady it is, is the spread of its clocks; doubled ones count once, and a pause begins anew', () => {
  const estimate = new ClockEstimate();
  for (const { at } of clocks(120, 200, 0, { lost: 0 })) {
    estimate.take(at);
    estimate.take(at + 0.1);
  }
  // Evenly within 2 ms to either side: a standard deviation of 2/√3 (textbook).
  expect(estimate.steadyMs).toBeGreaterThan(0.9);
  expect(estimate.steadyMs).toBeLessThan(1.4);
  expect(estimate.tempo).toBeCloseTo(120, 0);
  expect(estimate.lastCount).toBe(199);
  estimate.take(20_000);
  expect(estimate.isKnown).toBe(false);
});

const listen = () => {
  const sent: { message: MidiMessage; at: number }[] = [];
  return { sent, send: (message: MidiMessage, at: number) => void sent.push({ message, at }) };
};

test('a song’s clock: start just before the first, 24 to the quarter, stop', () => {
  const { sent, send } = listen();
  const clock = new ClockOut(send);
  const timeOf = (tick: number) => 5000 + (tick / 960) * 500; // 120 BPM
  clock.start(0, timeOf);
  for (let now = 5000; now <= 6000; now += 7) clock.until(now, timeOf);
  clock.stop(6001);
  expect(sent[0]).toEqual({ message: { type: 'start' }, at: 4999 });
  const ticks = sent.filter(({ message }) => message.type === 'clock');
  expect(ticks).toHaveLength(2 * CLOCKS_PER_QUARTER + 0 + 0); // the one at 6000 is not due at 5994
  ticks.forEach(({ at }, i) => expect(at).toBeCloseTo(5000 + i * interval(120), 9));
  expect(sent.at(-1)).toEqual({ message: { type: 'stop' }, at: 6001 });
});

test('from elsewhere it goes on at the next sixteenth, of which six clocks make one (song position, MIDI 1.0)', () => {
  const { sent, send } = listen();
  const clock = new ClockOut(send);
  clock.start(1000, (tick) => tick);
  clock.until(1240, (tick) => tick);
  // Tick 1000 lies after the sixteenth at 960: the next is at 1200, the fifth.
  expect(sent.map(({ message }) => message)).toEqual([
    { type: 'songPosition', sixteenths: 5 },
    { type: 'continue' },
    { type: 'clock' },
    { type: 'clock' },
  ]);
  expect(sent[2]!.at).toBe(1200);
  expect(6 * CLOCK_TICKS).toBe(240);
});

test('whatever begins, ends: each note on of an output is followed by its note off, in order of time', () => {
  const act = fc.oneof(
    fc.record({
      kind: fc.constant('begin' as const),
      note: fc.nat({ max: 3 }),
      length: fc.constantFrom(5, 50, Infinity),
    }),
    fc.record({ kind: fc.constant('release' as const), back: fc.nat({ max: 5 }) }),
    fc.constant({ kind: 'endUntil' as const }),
    fc.constant({ kind: 'endAll' as const }),
  );
  fc.assert(
    fc.property(fc.array(act), (acts) => {
      const { sent, send } = listen();
      const keeper = new NoteKeeper(send);
      let id = 0;
      acts.forEach((one, i) => {
        const at = i * 10;
        if (one.kind === 'begin') {
          keeper.begin({ channel: 1, note: one.note, id: ++id, from: at, to: at + one.length }, 100);
        } else if (one.kind === 'release') keeper.release(id - one.back, at);
        else if (one.kind === 'endUntil') keeper.endUntil(at);
        else keeper.endAll(at);
      });
      keeper.endAll(acts.length * 10);
      expect(keeper.count).toBe(0);
      for (let note = 0; note < 4; note++) {
        const own = sent.filter(({ message }) => 'note' in message && message.note === note);
        own.forEach(({ message, at }, i) => {
          expect(message.type).toBe(i % 2 === 0 ? 'noteOn' : 'noteOff');
          if (i > 0) expect(at).toBeGreaterThanOrEqual(own[i - 1]!.at);
        });
        expect(own.length % 2).toBe(0);
      }
    }),
  );
});
