import { Engine } from '@/core/engine/engine';
import { WarmUp } from '@/core/engine/warmUp';
import { at, NOW, type Instruction } from '@/core/protocol/commands';
import { decodeEvents } from '@/core/protocol/events';
import { LIMITER_LATENCY } from '@/core/sound/limiter';
import { EngineRunner } from './engineRunner';
import type { FromWorklet } from './messages';

const QUANTUM = 128;

/** A runner whose context begins at some frame, and all that it sends. */
function rig(start = 0) {
  const sent: FromWorklet[] = [];
  const runner = new EngineRunner(48000, (message) => sent.push(message), new WarmUp(48000));
  let frame = start;
  const [left, right] = [new Float32Array(QUANTUM), new Float32Array(QUANTUM)];
  /** Runs so many quanta; the context's counter goes on by `step` frames each. */
  const run = (quanta: number, step = QUANTUM) => {
    for (let i = 0; i < quanta; i++, frame += step) runner.process(left, right, frame);
  };
  return { runner, sent, run, left, now: () => frame };
}
const events = (sent: readonly FromWorklet[]) => sent.flatMap((message) => decodeEvents(message.events));

test('a pad’s heard frame is told by the context’s clock and taken by the engine’s', () => {
  const { runner, sent, run } = rig(10000);
  run(1);
  runner.receive({ instructions: [{ type: 'record', on: true, session: 1 }, { type: 'play', startTick: 0, countInTicks: 0 }] });
  run(200);
  runner.receive({ instructions: [{ type: 'padDown', track: 0, pad: 3, velocity: 1, heard: 10000 + 12800 + LIMITER_LATENCY, id: 1 }] });
  run(1);
  // It is told in the next quantum.
  expect(events(sent).find((e) => e.kind === 'sounded')).toBeUndefined();
  run(1);
  expect(events(sent).find((e) => e.kind === 'sounded')).toMatchObject({ heard: 12800, frame: 201 * QUANTUM });
}); // prettier-ignore

test('a counter that stalls and catches up changes nothing; one that stays elsewhere is followed after eight quanta', () => {
  const { runner, sent, run, now } = rig();
  run(20);
  run(4, 0); // it stands still ...
  const ask = () => {
    runner.receive({ instructions: [{ type: 'locate', tick: sent.length }] });
    run(1);
    return sent[sent.length - 1]!.origin;
  };
  expect(ask()).toBe(0);
  run(12, QUANTUM);
  const origin = ask();
  expect(origin).toBe(now() - 38 * QUANTUM); // 38 quanta were rendered, the counter lies behind
  expect(origin).toBeLessThan(0);
});

test('the log of commands is sent only to whoever asked, without the contents of patterns', () => {
  const { runner, sent, run } = rig();
  const pattern = () => ({ type: 'pattern', track: 0, slot: 0, revision: 7, length: 3840, seen: 0, hits: new Float64Array(12), feels: null }) as const; // prettier-ignore
  runner.receive({ instructions: [pattern()] });
  run(20);
  expect(sent.flatMap((message) => message.log)).toEqual([]);
  runner.receive({ keepLog: true });
  runner.receive({ instructions: [pattern()] });
  run(2);
  const [logged] = sent.flatMap((message) => message.log);
  expect(logged).toMatchObject({ type: 'pattern', revision: 7, frame: 20 * QUANTUM });
  expect((logged as unknown as { hits: Float64Array }).hits).toHaveLength(0);
});

test('the warm-up goes on while there is nothing to be heard, and then only', () => {
  const play = jest.spyOn(WarmUp.prototype, 'play');
  const { runner, run } = rig();
  play.mockClear();
  run(100);
  expect(play).not.toHaveBeenCalled(); // while the app opens
  run(100);
  expect(play).toHaveBeenCalledTimes(50);
  runner.receive({ instructions: [{ type: 'play', startTick: 0, countInTicks: 0 }] });
  run(200);
  expect(play).toHaveBeenCalledTimes(50);
  runner.receive({ instructions: [{ type: 'stop' }] });
  run(1500);
  expect(play.mock.calls.length).toBeGreaterThan(700); // it ends by itself
  play.mockClear();
  run(100);
  expect(play).not.toHaveBeenCalled();
});

test('nothing of the warm-up is heard or told: samples and events are those of an engine without one', () => {
  const { runner, sent, run, left } = rig();
  const engine = new Engine(48000);
  const [alone, right] = [new Float32Array(QUANTUM), new Float32Array(QUANTUM)];
  const toldAlone: unknown[] = [];
  const both = (...instructions: Instruction[]) => {
    runner.receive({ instructions });
    for (const instruction of instructions) engine.post(at(NOW, instruction));
  };
  const same = (quanta: number) => {
    for (let i = 0; i < quanta; i++) {
      run(1);
      engine.process(alone, right);
      toldAlone.push(...decodeEvents(engine.events.drain()));
      expect(left).toEqual(alone);
    }
  };
  same(150);
  both({ type: 'padDown', track: 0, pad: 0, velocity: 0.8, heard: NaN, id: 1 });
  same(300); // it rings out, and the warm-up goes on while the room still does
  both({ type: 'record', on: true, session: 1 }, { type: 'play', startTick: 0, countInTicks: 0 });
  both({ type: 'padDown', track: 0, pad: 5, velocity: 0.6, heard: NaN, id: 3 });
  same(100);
  expect(events(sent)).toEqual(toldAlone);
  expect(toldAlone.length).toBeGreaterThan(10);
});
