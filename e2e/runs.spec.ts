import type { Page } from '@playwright/test';
import { Engine } from '@/core/engine/engine';
import { replayEngine, type Performed } from '@/core/engine/replay';
import { readLog } from '@/core/protocol/performedLog';
import { expectAccessible } from './support/access';
import { App, expect, test } from './support/app';
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
  const { run, performed } = (await newestRun(new App(other)))!;
  expect(run.to).toBeGreaterThanOrEqual(before.run.to);
  expect(performed.log.length).toBeGreaterThanOrEqual(before.performed.log.length);
  expect(rendered(replayEngine(performed), run.from, run.to).some((x) => Math.abs(x) > 0.05)).toBe(true);
});

test('runs are listed, heard again, named, kept, deleted and brought back', async ({ app, page }) => {
  await app.open();
  await app.menu('Runs');
  await expect(page.getByText('There is none yet: play something.')).toBeVisible();
  await app.button('Close runs').click();
  await app.play.click();
  await listen(page, 2);
  await app.stop.click();
  await app.menu('Runs');
  const sheet = page.getByRole('dialog', { name: 'Runs' });
  const card = sheet.getByRole('group').filter({ hasText: '112 BPM' });
  await expect(card).toHaveCount(1);
  await expectAccessible(page);
  await typeInto(page, 'Saturday, second go');
  await expect(sheet.getByRole('group', { name: 'Saturday, second go' })).toBeVisible();
  await app.button('Keep Saturday, second go').click();
  await expect(app.button('Keep Saturday, second go')).toHaveAttribute('aria-pressed', 'true');

  // The song is silent: what is loud from here on is the run.
  await listen(page, 2.5);
  await page.evaluate(() => ((window as unknown as { ear: { chunks: unknown[] } }).ear.chunks.length = 0));
  await app.button('Listen to Saturday, second go').click();
  await expect(app.button('Stop Saturday, second go')).toHaveAttribute('aria-pressed', 'true');
  const isLoud = () =>
    page.evaluate(() => {
      const { ear } = window as unknown as { ear: { chunks: Float32Array[] } };
      return ear.chunks.some((chunk) => chunk.some((x) => Math.abs(x) > 0.05));
    });
  await expect.poll(isLoud).toBe(true);
  // It ends by itself.
  await expect(app.button('Listen to Saturday, second go')).toBeVisible();

  await app.button('Delete Saturday, second go').click();
  await expect(card).toHaveCount(0);
  await app.button('Bring back Saturday, second go').click();
  await expect(card).toHaveCount(1);
  await page.reload();
  await app.open();
  await app.menu('Runs');
  await expect(app.button('Keep Saturday, second go')).toHaveAttribute('aria-pressed', 'true');
});

async function typeInto(page: Page, name: string): Promise<void> {
  const field = page.getByRole('textbox', { name: /^Name of / });
  await field.fill(name);
  await field.press('Enter');
}
