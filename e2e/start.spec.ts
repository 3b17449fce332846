import { spawn } from 'node:child_process';
import { gzipSync } from 'node:zlib';
import { expect, test } from './support/app';

/** First load, all scripts together, gzipped. */
const JAVASCRIPT_BUDGET = 700 * 1024;

test('the scripts of the first load stay within 700 KB gzipped, and nothing comes from elsewhere', async ({
  app,
  page,
  request,
}) => {
  const scripts: Buffer[] = [];
  const foreign: string[] = [];
  page.on('response', async (response) => {
    const url = new URL(response.url());
    if (url.protocol.startsWith('http') && url.hostname !== 'localhost') foreign.push(response.url());
    // The charts follow once the page is idle, sooner or later.
    if (url.pathname.endsWith('.js') && !url.pathname.includes('EarlyLateChart')) scripts.push(await response.body());
  });
  await app.open();
  // What the audio thread loads does not pass through the page.
  scripts.push(await (await request.get('/workers/engine.worklet.js')).body());
  await app.play.click();
  const size = scripts.reduce((sum, script) => sum + gzipSync(script).length, 0);
  expect(scripts.length).toBeGreaterThanOrEqual(2);
  expect(size).toBeLessThanOrEqual(JAVASCRIPT_BUDGET);
  expect(foreign).toEqual([]);
});

test('an address that is a place opens it, a file that is not there is not found', async ({ page, request }) => {
  await page.goto('/pads');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  expect((await request.get('/workers/none.js')).status()).toBe(404);
});

test('a port that is taken gets a clear message', async () => {
  const server = spawn('node', ['scripts/start.mjs'], { env: { ...process.env, PORT: '4199' } });
  let said = '';
  server.stderr.on('data', (data: Buffer) => (said += data.toString()));
  const code = await new Promise((done) => server.on('exit', done));
  expect(code).toBe(1);
  expect(said).toContain('Port 4199 is taken');
});
