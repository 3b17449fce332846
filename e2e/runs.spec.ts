import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { touchItem } from './support/menu';

import { replayLog, type Performed, type Replay } from '@/core/engine/replay';
import { readLog } from '@/core/protocol/performedLog';
import { expectAccessible } from './support/access';
import { App, expect, test } from './support/app';
import { heard, listen } from './support/ear';
import { choose } from './support/steps';

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

/** What is played from one frame to before another one. */
function rendered(replay: Replay, from: number, to: number): Float32Array {
  replay.skipTo(from);
  const left = new Float32Array(to - from);
  replay.process(left, new Float32Array(to - from));
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
  const replayed = rendered(replayLog(performed), run.from, end);
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
  expect(rendered(replayLog(performed), run.from, run.to).some((x) => Math.abs(x) > 0.05)).toBe(true);
});

test('runs are listed, opened, heard again, named, kept, deleted and brought back', async ({ app, page }) => {
  await app.open();
  await openRuns(page);
  await expect(page.getByText('There is none yet.')).toBeVisible();
  await page.getByRole('link', { name: 'Pads', exact: true }).click();
  await app.play.click();
  await listen(page, 2);
  await app.stop.click();
  await openRuns(page);
  const card = page.getByRole('listitem');
  await expect(card).toHaveCount(1);
  await expect(card).toContainText('112 BPM');
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Open / }).click();
  await choose(app, 'Run menu', 'Name and note');
  await typeInto(page, /^Name of /, 'Saturday, second go');
  await typeInto(page, /^Note on /, 'The break is late.');
  await choose(app, 'Run menu', 'Keep');
  await expect(page.getByRole('heading', { name: 'Saturday, second go · kept' })).toBeVisible();
  await expectAccessible(page);

  // The song is silent: what is loud from here on is the run.
  await listen(page, 2.5);
  await page.evaluate(() => ((window as unknown as { ear: { chunks: unknown[] } }).ear.chunks.length = 0));
  await app.button('Listen').click();
  await expect(app.button('Listen')).toHaveAttribute('aria-pressed', 'true');
  const isLoud = () =>
    page.evaluate(() => {
      const { ear } = window as unknown as { ear: { chunks: Float32Array[] } };
      return ear.chunks.some((chunk) => chunk.some((x) => Math.abs(x) > 0.05));
    });
  await expect.poll(isLoud).toBe(true);
  // It ends by itself.
  await expect(app.button('Listen')).toHaveAttribute('aria-pressed', 'false');

  await choose(app, 'Run menu', 'Delete');
  await expect(card).toHaveCount(0);
  await app.button('Bring back Saturday, second go').click();
  await expect(card).toHaveCount(1);
  await page.reload();
  await app.open();
  await openRuns(page);
  await expect(card).toContainText('Saturday, second go · kept');
  await expect(card).toContainText('The break is late.');
});

test('a run is put right: blocks are copied and taken away, a hit is dropped in, a stretch is cut out; As played shows what was played', async ({
  app,
  page,
}) => {
  await app.open();
  await page.getByRole('link', { name: 'Launch', exact: true }).click();
  await app.button('Section First Laps').click();
  await app.play.click();
  await expect(app.position).toHaveText(/^([2-9]|\d\d)\./, { timeout: 20_000 });
  await app.button('Section Fast Laps').click();
  await expect(app.position).toHaveText(/^([5-9]|\d\d)\./, { timeout: 20_000 });
  await app.stop.click();
  await openRuns(page);
  await page.getByRole('button', { name: /^Open / }).click();
  const timeline = page.getByRole('application', { name: 'Timeline' });
  await expect(app.button('As played')).toBeDisabled();
  await app.button('Fix').click();
  await timeline.focus();
  await page.keyboard.press('PageDown'); // to where the second section begins
  await page.keyboard.press('Enter');
  const words = () => timeline.getAttribute('aria-description');
  const first = Number(/^Full Speed on Wheels, bars (\d+) to /.exec((await words())!)?.[1]);
  expect(first).toBeGreaterThan(2);
  await page.keyboard.press('Shift+ArrowLeft');
  expect(await words()).toMatch(new RegExp(`^Full Speed on Wheels, bars ${first - 1} to `));
  await app.button('Longer').click();
  await app.button('Shorter').click();
  for (let i = 0; i < 2; i++) await app.button('Undo fix').click();
  await app.button('Take away').click();
  await app.button('Undo fix').click();
  await app.button('Line lower').click();
  await app.button('Undo fix').click();
  await app.button('Drop in').click();
  await touchItem(page, 'Crash', true);
  await choose(app, 'Stretch', /^First Laps, bars 1 to /);
  await app.button('Cut out').click();
  await expectAccessible(page);
  const fixes = async () => {
    const all = await app.storage();
    const key = Object.keys(all).find((one) => one.startsWith('fixes '));
    return key ? (JSON.parse(all[key]!) as { fixes: { type: string }[]; done: number }) : null;
  };
  const types = async () => (await fixes())?.fixes.map(({ type }) => type);
  await expect.poll(types).toEqual(['moveBlocks', 'dropHit', 'closeStretch']);

  // What was played is there, untouched, and one comes back from it.
  await app.button('As played').click();
  await expect(app.button('Fix')).toBeDisabled();
  await app.button('As played').click();
  await app.button('Fix').click();
  await app.button('Undo fix').click();
  await expect.poll(async () => (await fixes())?.done).toBe(2);

  // It is all still there after a reload, what was undone too.
  await page.reload();
  await app.open();
  await openRuns(page);
  await page.getByRole('button', { name: /^Open / }).click();
  await app.button('Fix').click();
  await expect(app.button('Undo fix')).toBeEnabled();
  await app.button('Redo fix').click();
  await expect.poll(async () => (await fixes())?.done).toBe(3);
  await app.button('Fix').click();

  // And becomes a part of the set.
  await app.button('Make a pattern').click();
  await app.savedSet((set) => set.tracks[0]!.patterns.some((pattern) => pattern?.name.endsWith(' 2')));
  await app.button('Make a section').click();
  await app.savedSet((set) => set.sections.length === 6);
});

test('a run is carried away as MIDI, WAV, stems, FLAC and MP3 that others read; what is being made can be given up', async ({
  app,
  page,
}) => {
  await app.open();
  await page.getByRole('link', { name: 'Launch', exact: true }).click();
  await app.button('Section First Laps').click();
  await app.play.click();
  await expect(app.position).toHaveText(/^([2-9]|\d\d)\./, { timeout: 20_000 });
  await app.stop.click();
  await openRuns(page);
  await page.getByRole('button', { name: /^Open / }).click();
  await expect(app.button('Listen')).toBeVisible();
  const carry = async (item: string) => {
    const download = page.waitForEvent('download');
    await choose(app, 'Carry away', item);
    return (await download).path();
  };
  const midi = await carry('MIDI');
  const notes = run('/usr/bin/python3', ['-c', 'import mido, sys; print(sum(1 for t in mido.MidiFile(sys.argv[1]).tracks for e in t if e.type == "note_on" and e.velocity > 0))', midi]); // prettier-ignore
  expect(Number(notes)).toBeGreaterThan(10);
  for (const [item, codec] of [['WAV mix', 'pcm_s24le'], ['FLAC', 'flac'], ['MP3', 'mp3']] as const) {
    const file = await carry(item);
    const probe = run('ffprobe', ['-v', 'error', '-show_entries', 'stream=codec_name,channels,sample_rate:format=duration', '-of', 'json', file]); // prettier-ignore
    const { streams, format } = JSON.parse(probe) as { streams: object[]; format: { duration: string } };
    expect(streams).toMatchObject([{ codec_name: codec, channels: 2 }]);
    // Whole bars of 4/4 at 112 BPM, and four seconds in which they ring out. MP3 has some more at its ends.
    const bars = (Number(format.duration) - 4) / ((4 * 60) / 112);
    expect(Math.abs(bars - Math.round(bars))).toBeLessThan(0.05);
    await expect(page.getByText(/LUFS · range .* LU · true peak/)).toBeVisible();
  } // prettier-ignore
  await expectAccessible(page);

  // Two workers share the work where there are two processors, and one does all of it otherwise: the same file, to the bit.
  const workers = (count: number) =>
    page.evaluate((hardwareConcurrency) => void Object.defineProperty(navigator, 'hardwareConcurrency', { value: hardwareConcurrency, configurable: true }), count); // prettier-ignore
  const makers: string[] = [];
  page.on('worker', (worker) => makers.push(worker.url()));
  const files: Buffer[] = [];
  for (const count of [1, 2]) {
    await workers(count);
    files.push(readFileSync(await carry('WAV mix')));
    expect(makers.splice(0).filter((url) => url.includes('carry.worker'))).toHaveLength(count);
  }
  expect(files[0]!.length).toBeGreaterThan(1e6);
  expect(files[0]!.equals(files[1]!)).toBe(true);

  const zip = await carry('Stems');
  const names = run('/usr/bin/python3', ['-c', 'import zipfile, sys; z = zipfile.ZipFile(sys.argv[1]); assert z.testzip() is None; print(",".join(z.namelist()))', zip]); // prettier-ignore
  expect(names.trim()).toBe('01 Wheels.wav,02 Rails.wav,03 Kerb.wav');
  // On a phone that lies, too, the run is still to be seen beside what was made of it.
  await page.setViewportSize({ width: 844, height: 390 });
  await expect(app.button('Close report')).toBeVisible();
  const timeline = page.getByRole('application', { name: 'Timeline' });
  await expect.poll(async () => (await timeline.boundingBox())?.height).toBeGreaterThan(100);
  await page.setViewportSize({ width: 390, height: 844 });

  await choose(app, 'Carry away', 'Stems');
  await expect(page.getByRole('progressbar', { name: 'Stems' })).toBeVisible();
  await app.button('Cancel').click();
  await expect(page.getByRole('progressbar')).toHaveCount(0);
  await expect(page.getByText('Cancelled.')).toBeVisible();
});

/** What a program prints. */
function run(program: string, args: readonly string[]): string {
  const { stdout, stderr } = spawnSync(program, args, { encoding: 'utf8' });
  expect(stderr).toBe('');
  return stdout;
}

async function openRuns(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Runs', exact: true }).click();
}

async function typeInto(page: Page, field: RegExp, text: string): Promise<void> {
  await page.getByRole('textbox', { name: field }).fill(text);
  await page.getByRole('textbox', { name: field }).blur();
}
