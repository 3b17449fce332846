import { replayLog } from '@/core/engine/replay';
import type { CapturedRun } from '@/core/document/run';
import { logText, readLog, type PerformedLog } from '@/core/protocol/performedLog';
import { edited, treatmentSet } from '@/store/patternsSlice';
import { channelLevelSet } from '@/store/mixSlice';
import { createStore } from '@/store/store';
import { tempoSet } from '@/store/timeSlice';
import { undone } from '@/store/undoable';
import { HostInNode } from './engineHost.testing';
import { Instrument } from './instrument';

const SR = 48000;
const BEAT = (60 / 112) * SR;

/** The demo and its engine, at rest, with all that is told of runs. */
async function rig() {
  const store = createStore();
  const host = new HostInNode();
  host.keepsSound = true;
  const instrument = new Instrument(store, host.make);
  await instrument.start();
  /** Runs by their ids, as they were told last. */
  const runs = new Map<string, { run: CapturedRun; log: PerformedLog; ended: boolean }>();
  instrument.runs.onRun((run, log, ended) => runs.set(run.id, { run: { ...run }, log, ended }));
  const strike = (pad: number, frames = 2000) => {
    instrument.padDown(pad, 0.7, host.engine.frame, 'keys');
    host.run(frames);
    instrument.padUp(pad, host.engine.frame, 'keys');
  };
  host.run(SR);
  return { store, host, instrument, runs: () => [...runs.values()], strike };
}
type Rig = Awaited<ReturnType<typeof rig>>;

/** How many samples differ between what was heard of a run and what is heard from its log, which has been a text meanwhile. */
function differing({ host }: Rig, { run, log }: { run: CapturedRun; log: PerformedLog }): number {
  const commands = readLog(logText(log.commands));
  const engine = replayLog({ ...log, log: commands, sampleRate: SR });
  let count = 0;
  const end = Math.min(host.sound.length, (run.to + SR) / 128);
  for (let quantum = engine.frame / 128; quantum < end; quantum++) {
    const [left, right] = [new Float32Array(128), new Float32Array(128)];
    engine.process(left, right);
    const heard = host.sound[quantum]!;
    for (let i = 0; i < 128; i++) if (left[i] !== heard.left[i] || right[i] !== heard.right[i]) count++;
  }
  return count;
}

test('a run begins with the first sound and ends when the song is stopped; from its log the same is heard, sample by sample', async () => {
  const all = await rig();
  const { store, host, instrument, runs, strike } = all;
  expect(runs()).toEqual([]);
  strike(0);
  instrument.toggleRecord();
  instrument.play();
  host.run(BEAT * 3);
  for (const pad of [0, 4, 1, 4, 7]) strike(pad, BEAT / 2);
  instrument.perform({ type: 'launch', track: 1, slot: 0, on: 0, inPlace: false });
  store.dispatch(tempoSet(126));
  host.run(BEAT * 2);
  const place = { track: 0, slot: 0 };
  store.dispatch(
    treatmentSet({ place, scope: { kind: 'pattern' }, treatment: { feel: { grid: 480, strength: 0.5 } } }),
  );
  host.run(BEAT * 4);
  store.dispatch(undone());
  store.dispatch(edited({ place, edit: { kind: 'window', window: { start: 0, length: 1920 } } }));
  store.dispatch(channelLevelSet({ channel: 0, level: 0.4 }));
  instrument.rides.ride(0, { pad: 4, control: 'pitch' }, 7, 0);
  host.run(BEAT * 4);
  instrument.rides.letGo(0, { pad: 4, control: 'pitch' });
  instrument.perform({ type: 'lift', held: true, on: 0 });
  instrument.perform({ type: 'muteSolo', track: 0, mute: 1, solo: 0, on: 0 });
  host.run(BEAT * 2);
  instrument.perform({ type: 'lift', held: false, on: 0 });
  host.run(BEAT * 2);
  expect(runs()[0]!.ended).toBe(false);
  const stopped = host.engine.frame;
  instrument.stop();
  host.run(SR * 4);
  expect(runs()).toHaveLength(1);
  const [only] = runs();
  expect(only!.ended).toBe(true);
  expect(only!.run).toMatchObject({ from: SR, to: stopped, launches: 1, tempo: { least: 112, most: 126 } });
  const sounded = host.events.filter(({ kind }) => kind === 'sounded');
  expect(only!.run.hits).toBe(sounded.length);
  expect(sounded.length).toBeGreaterThan(60);
  expect(differing(all, only!)).toBe(0);
});

test('played without a song, it goes on through pauses of less than eight bars, and ends eight bars after the last stroke', async () => {
  const all = await rig();
  const { host, runs, strike } = all;
  strike(0);
  host.run(BEAT * 4 * 7);
  strike(1);
  const last = host.engine.frame - 2000;
  host.run(BEAT * 4 * 9);
  expect(runs()).toHaveLength(1);
  expect(runs()[0]!.ended).toBe(true);
  expect(runs()[0]!.run.to).toBeCloseTo(last + BEAT * 4 * 8, -2);
  expect(differing(all, runs()[0]!)).toBe(0);
  strike(2);
  host.run(SR * 3);
  expect(runs()).toHaveLength(2);
  expect(runs()[1]!.log.id).not.toBe(runs()[0]!.log.id);
  expect(differing(all, runs()[1]!)).toBe(0);
});

test('stopped and begun again before all has rung out, two runs share one log, and both are heard as they were', async () => {
  const all = await rig();
  const { host, instrument, runs } = all;
  for (let i = 0; i < 2; i++) {
    instrument.play();
    host.run(BEAT * 4);
    instrument.stop();
    host.run(SR / 2);
  }
  host.run(SR * 4);
  expect(runs().map(({ ended }) => ended)).toEqual([true, true]);
  expect(new Set(runs().map(({ run }) => run.name)).size).toBe(2);
  expect(runs()[1]!.log).toBe(runs()[0]!.log);
  expect(runs()[1]!.run.from).toBeGreaterThan(runs()[0]!.run.to);
  expect(differing(all, runs()[1]!)).toBe(0);
});

test('edits while nothing sounds are in the log, which begins anew before it grows', async () => {
  const all = await rig();
  const { store, host, strike, runs } = all;
  for (let i = 0; i < 500; i++) {
    store.dispatch(tempoSet(60 + i / 4));
    if (i % 10 === 0) host.run(4096);
  }
  strike(4);
  host.run(SR * 3);
  expect(runs()[0]!.log.commands.length).toBeLessThan(450);
  expect(differing(all, runs()[0]!)).toBe(0);
});

test('a pad that is struck before the engine could note its state only puts that off', async () => {
  const all = await rig();
  const { host, runs, strike } = all;
  const { sendAll } = host;
  let struck = 0;
  host.sendAll = (instructions) => {
    // The message of another pad is there first.
    if (instructions.some(({ type }) => type === 'snapshot') && struck++ === 0) {
      host.engine.post({
        type: 'padDown',
        track: 0,
        pad: 3,
        velocity: 1,
        heard: host.engine.frame,
        id: 9001,
        frame: -1,
      });
      host.engine.post({ type: 'padUp', track: 0, pad: 3, heard: host.engine.frame, frame: -1 });
    }
    sendAll(instructions);
  };
  for (let i = 0; i < 3; i++) {
    strike(i);
    host.run(BEAT * 4 * 9);
    host.run(SR * 3);
  }
  expect(struck).toBeGreaterThan(2);
  expect(runs().length).toBeGreaterThanOrEqual(3);
  // The one that was in between is a run of the log before it.
  expect(new Set(runs().map(({ log }) => log)).size).toBe(runs().length - 1);
  for (const run of runs()) expect(differing(all, run)).toBe(0);
});

test('an engine that fails ends the run; what the next one plays is captured, too', async () => {
  const all = await rig();
  const { host, instrument, runs, strike } = all;
  strike(0);
  host.fail();
  await instrument.restart();
  expect(runs()[0]!.ended).toBe(true);
  host.run(SR);
  strike(1);
  expect(runs()).toHaveLength(2);
});
