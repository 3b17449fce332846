import { replayLog } from '@/core/engine/replay';
import { random } from '@/core/random';
import { readScore } from '@/core/score/readScore';
import { HostInNode } from '@/instrument/engineHost.testing';
import { Instrument } from '@/instrument/instrument';
import { selectSet } from '@/store/selectors';
import { createStore } from '@/store/store';
import { tempoSet } from '@/store/timeSlice';
import { Memory, settled } from './memory.testing';
import { SetPieces } from './pieces';
import { LOG_PREFIX, RUN_PREFIX, SET_KEY, VERSION_PREFIX } from './records';
import { MOST_RUNS, RunStore } from './runStore';
import { findSet, readStored, sweepPieces } from './storedSet';
import { openRun, storedRuns } from './storedRuns';
import { Versions } from './versions';

const SR = 48000;
const TENTH = SR / 10;

beforeEach(() => jest.useFakeTimers({ doNotFake: ['setImmediate'] }));
afterEach(() => jest.useRealTimers());

/** The app's instrument, the store of its runs, and a storage that the set lies in, too. */
async function rig() {
  const memory = new Memory();
  const store = createStore();
  const host = new HostInNode();
  host.keepsSound = true;
  const instrument = new Instrument(store, host.make);
  const pieces = new SetPieces(SET_KEY);
  const open = () => ({ set: selectSet(store.getState()), stage: store.getState().stage });
  await memory.setMany(pieces.entries(open()));
  pieces.written();
  const versions = new Versions(memory, pieces);
  const runs = new RunStore(memory, () => versions);
  instrument.runs.onRun(runs.note);
  await instrument.start();
  /** Time goes on, for the engine as for the page. */
  const passes = async (seconds: number) => {
    for (let i = 0; i < seconds * 10; i++) {
      host.run(TENTH);
      jest.advanceTimersByTime(100);
      await settled();
    }
    for (let i = 0; i < 10; i++) await settled();
  };
  await passes(0.5);
  const strike = (pad: number) => {
    instrument.padDown(pad, 0.7, host.engine.frame, 'keys');
    instrument.padUp(pad, host.engine.frame, 'keys');
  };
  /** A short run: a stroke in a song that is stopped, and rest. */
  const performs = async (pad: number) => {
    instrument.play();
    strike(pad);
    await passes(0.3);
    instrument.stop();
    await passes(3);
  };
  return { memory, store, host, instrument, runs, versions, pieces, open, passes, strike, performs };
}

const keys = (memory: Memory, prefix: string) => [...memory.map.keys()].filter((key) => key.startsWith(prefix));

test('a stored run gives the samples that were heard', async () => {
  const { memory, store, host, instrument, passes, strike } = await rig();
  instrument.toggleRecord();
  instrument.play();
  for (let i = 0; i < 12; i++) {
    strike(i % 8);
    if (i === 5) store.dispatch(tempoSet(140));
    await passes(0.7);
  }
  instrument.stop();
  await passes(4);
  const [run] = await storedRuns(memory);
  const engine = replayLog(await openRun(memory, run!));
  let differing = 0;
  for (let at = engine.frame / 128; at < host.sound.length; at++) {
    const [left, right] = [new Float32Array(128), new Float32Array(128)];
    engine.process(left, right);
    const heard = host.sound[at]!;
    for (let i = 0; i < 128; i++) if (left[i] !== heard.left[i] || right[i] !== heard.right[i]) differing++;
  }
  expect(differing).toBe(0);
  expect(run!.to - run!.from).toBeGreaterThan(8 * SR);
});

test('of a browser that dies at fifty moments of a run at most a second is missing, and nothing is damaged', async () => {
  const { memory, store, host, instrument, passes, strike } = await rig();
  const next = random(7);
  const deaths: { frame: number; storage: Memory }[] = [];
  instrument.toggleRecord();
  instrument.play();
  for (let i = 0; i < 300; i++) {
    if (next() < 0.5) strike(Math.floor(next() * 16));
    if (next() < 0.1) store.dispatch(tempoSet(90 + Math.floor(next() * 60)));
    await passes(0.1);
    if (i > 12 && next() < 0.25) {
      const storage = new Memory();
      for (const [key, text] of memory.map) storage.map.set(key, text);
      deaths.push({ frame: host.engine.frame, storage });
    }
  }
  instrument.stop();
  await passes(4);
  const whole = await openRun(memory, (await storedRuns(memory))[0]!);
  expect(deaths.length).toBeGreaterThanOrEqual(50);
  for (const { frame, storage } of deaths) {
    const [run] = await storedRuns(storage);
    const { log } = await openRun(storage, run!);
    expect(log).toEqual(whole.log.slice(0, log.length));
    const missing = whole.log.slice(log.length).find((command) => command.frame < frame - SR);
    expect(missing).toBeUndefined();
    expect(run!.to).toBeGreaterThan(frame - 2 * SR);
  }
}, 30_000);

test('the last twenty stay, each with its log and its set; what only older ones named goes, and the set is whole', async () => {
  const { memory, store, pieces, open, passes, performs } = await rig();
  for (let i = 0; i < MOST_RUNS + 6; i++) {
    if (i % 3 === 0) {
      store.dispatch(tempoSet(100 + i));
      await memory.setMany(pieces.entries(open()));
      await memory.removeMany(pieces.written());
      await passes(0.1);
    }
    await performs(i % 16);
  }
  const runs = await storedRuns(memory);
  expect(runs).toHaveLength(MOST_RUNS);
  expect(keys(memory, RUN_PREFIX)).toHaveLength(MOST_RUNS);
  expect(new Set(keys(memory, LOG_PREFIX).map((key) => key.split(' ')[1]))).toEqual(
    new Set(runs.map(({ log }) => log)),
  );
  expect(new Set(keys(memory, VERSION_PREFIX))).toEqual(new Set(runs.map(({ set }) => set)));
  // Runs of an unchanged set share one version.
  expect(keys(memory, VERSION_PREFIX).length).toBeLessThan(10);
  await sweepPieces(memory);
  for (const run of runs) expect((await openRun(memory, run)).log[0]!.type).toBe('snapshot');
  expect(readStored((await findSet(memory, SET_KEY))!)).toEqual(open());
}, 30_000);

test('while the storage is full nothing is written and playing goes on; with room again all of the run is there', async () => {
  const { memory, instrument, passes, strike } = await rig();
  instrument.play();
  strike(0);
  await passes(1);
  memory.full = true;
  strike(1);
  await passes(2);
  memory.full = false;
  strike(2);
  await passes(2);
  const [run] = await storedRuns(memory);
  const { log } = await openRun(memory, run!);
  expect(log.filter(({ type }) => type === 'padDown').map((command) => (command as { pad: number }).pad)).toEqual([0, 1, 2]); // prettier-ignore
});

test('stored data that are cleared in the middle of a run are written again, from its beginning', async () => {
  const { memory, instrument, runs, pieces, versions, passes, strike } = await rig();
  instrument.play();
  strike(0);
  await passes(1);
  memory.map.clear();
  // As the tab that owns the set does.
  versions.lost();
  pieces.lost();
  runs.writeAgain();
  strike(1);
  await passes(1);
  const { log } = await openRun(memory, (await storedRuns(memory))[0]!);
  expect(log[0]!.type).toBe('snapshot');
  expect(log.filter(({ type }) => type === 'padDown')).toHaveLength(2);
});

test('a run that is changed or removed while it goes on loses nothing, and stays removed', async () => {
  const { memory, instrument, runs, passes, strike } = await rig();
  instrument.play();
  await passes(1);
  const [listed] = await storedRuns(memory);
  await passes(2);
  instrument.stop();
  await passes(3);
  await runs.change(listed!, { name: 'Doors' });
  const [now] = await storedRuns(memory);
  expect(now!.name).toBe('Doors');
  expect(now!.to).toBeGreaterThan(listed!.to + SR);
  instrument.play();
  strike(0);
  await passes(1);
  await runs.remove((await storedRuns(memory))[0]!);
  await passes(2);
  expect(await storedRuns(memory)).toHaveLength(1);
});

test('a run of which something is missing says what', async () => {
  const { memory, performs } = await rig();
  await performs(0);
  const [run] = await storedRuns(memory);
  const log = keys(memory, LOG_PREFIX)[0]!;
  const text = memory.map.get(log)!;
  memory.map.set(log, text.replace('"type":"padDown"', '"typ'));
  await expect(openRun(memory, run!)).rejects.toThrow(/Line \d+ of the log/);
  memory.map.set(log, text);
  memory.map.delete(run!.set);
  await expect(openRun(memory, run!)).rejects.toThrow('The set that it was played with is not stored any more.');
});

test('a run that is kept stays however many come; one that was removed can be brought back after others have ended', async () => {
  const { memory, runs, performs } = await rig();
  for (let i = 0; i < 2; i++) {
    await performs(i);
  }
  const [second, first] = await storedRuns(memory);
  await runs.change(first!, { marked: true, name: 'Last Lap' });
  await runs.remove(second!);
  for (let i = 0; i < MOST_RUNS + 2; i++) {
    await performs(i % 16);
  }
  await runs.bringBack(second!);
  const now = await storedRuns(memory);
  expect(now).toHaveLength(MOST_RUNS + 2);
  expect(now.at(-1)).toMatchObject({ id: first!.id, name: 'Last Lap', marked: true });
  for (const run of now) await expect(openRun(memory, run)).resolves.toBeTruthy();
}, 30_000);

test('five hundred mutated runs: each opens, or says what is wrong with it and where; no other record is touched', async () => {
  const { memory, passes, instrument, strike } = await rig();
  instrument.toggleRecord();
  instrument.play();
  for (let i = 0; i < 6; i++) {
    strike(i);
    await passes(0.4);
  }
  instrument.stop();
  await passes(4);
  const [run] = await storedRuns(memory);
  const [key] = keys(memory, LOG_PREFIX) as [string];
  const text = memory.map.get(key)!;
  const next = random(5);
  let refused = 0;
  for (let i = 0; i < 500; i++) {
    const at = Math.floor(next() * text.length);
    const number = text
      .slice(at)
      .replace(/-?\d+(\.\d+)?/, () => ['1e300', '-1', '"x"', 'null'][Math.floor(next() * 4)]!);
    const mutated = [
      text.slice(0, at),
      text.slice(0, at) + String.fromCharCode(32 + next() * 90) + text.slice(at + 1),
      text.slice(0, at) + number,
    ][i % 3]!;
    memory.map.set(key, mutated);
    const before = new Map(memory.map);
    try {
      const performed = await openRun(memory, run!);
      readScore(performed, { from: run!.from, to: Math.min(run!.to, run!.from + 4 * SR) });
    } catch (error) {
      expect((error as Error).message).toMatch(
        /^(Line \d+ of the log|At line \d+ of its log|The log does not begin|The set that)/,
      );
      refused++;
    }
    expect(memory.map).toEqual(before);
  }
  expect(refused).toBeGreaterThan(150);
});
