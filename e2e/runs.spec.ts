import { Engine } from '@/core/engine/engine';
import { replayEngine, type Performed } from '@/core/engine/replay';
import { readLog } from '@/core/protocol/performedLog';
import { expect, test, type App } from './support/app';
import { heard, listen } from './support/ear';

interface StoredRun {
  at: string;
  from: number;
  to: number;
  log: string;
  set: string;
  stage: Performed['stage'];
  sampleRate: number;
  hits: number;
}

/** The newest run as it lies in the storage, put together here. */
async function newestRun(app: App): Promise<{ run: StoredRun; performed: Performed } | null> {
  const all = await app.storage();
  const runs = Object.keys(all).filter((key) => key.startsWith('run '));
  const [run] = runs.map((key) => JSON.parse(all[key]!) as StoredRun).sort((a, b) => b.at.localeCompare(a.at));
  if (!run) return null;
  const set = app.putTogether(all, run.set) as unknown as Performed['set'];
  const logs = Object.keys(all).filter((key) => key.startsWith(`log ${run.log} `));
  logs.sort((a, b) => Number(a.split(' ')[2]) - Number(b.split(' ')[2]));
  const log = logs.flatMap((key) => readLog(all[key]!));
  return { run, performed: { set, stage: run.stage, log, sampleRate: run.sampleRate } };
}

/** What an engine plays from one frame of its own to before another one. */
function rendered(engine: Engine, from: number, to: number): Float32Array {
  const skip = from - engine.frame;
  engine.process(new Float32Array(skip), new Float32Array(skip));
  const left = new Float32Array(to - from);
  engine.process(left, new Float32Array(to - from));
  return left;
}

test('a performance is captured as it is played, and gives the very samples that left the page', async ({
  app,
  page,
}) => {
  await app.open();
  await listen(page, 0.5); // the engine rests, and has said so
  await app.record.click();
  await app.play.click();
  for (const key of ['KeyZ', 'KeyX', 'KeyA', 'KeyS', 'KeyZ']) {
    await page.keyboard.press(key);
    await listen(page, 0.3);
  }
  await app.setTempo(131);
  await listen(page, 1);
  await app.stop.click();
  await listen(page, 2.5);
  await expect.poll(async () => (await newestRun(app))?.run.hits ?? 0).toBeGreaterThan(5);
  const { run, performed } = (await newestRun(app))!;
  const ear = await heard(page);
  const end = Math.min(run.to + run.sampleRate, ear.from + ear.left.length);
  const replayed = rendered(replayEngine(performed), run.from, end);
  const played = ear.left.subarray(run.from - ear.from, end - ear.from);
  expect(played.length).toBe(replayed.length);
  expect(played.some((x) => Math.abs(x) > 0.05)).toBe(true);
  let differing = 0;
  for (let i = 0; i < played.length; i++) if (played[i] !== replayed[i]) differing++;
  expect(differing).toBe(0);
});

test('of a page that is killed in the middle of a run what was written stays, and can be heard', async ({
  app,
  page,
  context,
}) => {
  await app.open();
  await app.play.click();
  // So much of it is written while it goes on; how soon is measured where time can be told (`runStore.test.ts`).
  const written = async () => ((await newestRun(app))?.run.hits ?? 0) > 8;
  await expect.poll(written).toBe(true);
  const before = (await newestRun(app))!;
  // The process of the page is killed: it hears of nothing, and writes nothing any more.
  const session = await context.newCDPSession(page);
  await session.send('Page.enable');
  void session.send('Page.crash').catch(() => undefined);
  await page.waitForEvent('crash');
  const other = await context.newPage();
  await other.goto('/wingbars.svg');
  const { run, performed } = (await newestRun(app.on(other)))!;
  expect(run.to).toBeGreaterThanOrEqual(before.run.to);
  expect(performed.log.length).toBeGreaterThanOrEqual(before.performed.log.length);
  expect(rendered(replayEngine(performed), run.from, run.to).some((x) => Math.abs(x) > 0.05)).toBe(true);
});
