import { spawn, type ChildProcess } from 'node:child_process';
import { connect } from 'node:net';
import { networkInterfaces } from 'node:os';
import { gzipSync } from 'node:zlib';
import { expect, test } from './support/app';

/** First load, all scripts together, gzipped; over the wire, with brotli, it is a fifth less. The recipes of sixty sounds are in it. */
const JAVASCRIPT_BUDGET = 640 * 1024;

test('the scripts of the first load stay within 640 KB gzipped, and nothing comes from elsewhere', async ({
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
    if (url.pathname.endsWith('.js') && !url.pathname.includes('/charts-')) scripts.push(await response.body());
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

test('an address that is a place opens it, another one the pads; a file that is not there is not found', async ({
  page,
  request,
}) => {
  await page.goto('/launch');
  await expect(page.getByRole('button', { name: 'Stop all', exact: true })).toBeVisible();
  for (const place of ['/no/place', '/_sitemap']) {
    await page.goto(place);
    await expect(page.getByRole('group', { name: 'Pads', exact: true })).toBeVisible();
  }
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

/** Starts `npm start` with this environment, and resolves when it has said where it is. */
async function started(env: Record<string, string>): Promise<{ npm: ChildProcess; said: string }> {
  const npm = spawn('npm', ['start'], { env: { ...process.env, ...env } });
  let said = '';
  await new Promise<void>((done, fail) => {
    npm.stdout.on('data', (data: Buffer) => {
      said += data.toString();
      if (said.includes('Chaffinch is at')) done();
    });
    npm.on('exit', (code) => fail(new Error(`npm start ended with ${code}: ${said}`)));
  });
  return { npm, said };
}

const answers = (port: number, host: string) =>
  new Promise<boolean>((done) => {
    const socket = connect(port, host);
    socket.on('connect', () => done(true)).on('error', () => done(false));
    socket.on('connect', () => socket.destroy());
  });

for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  test(`npm start serves this machine alone, and ${signal} stops it and frees its port`, async () => {
    const port = signal === 'SIGTERM' ? 4197 : 4196;
    const { npm, said } = await started({ PORT: String(port) });
    expect(said).toContain(`Chaffinch is at http://localhost:${port}`);
    expect(await answers(port, 'localhost')).toBe(true);
    const own = Object.values(networkInterfaces()).flatMap((list) => list ?? []);
    for (const { address } of own.filter(({ internal, family }) => !internal && family === 'IPv4')) {
      expect(await answers(port, address)).toBe(false);
    }
    npm.kill(signal);
    await expect.poll(() => answers(port, 'localhost')).toBe(false);
  });
}

test('HOST lets other devices in, and says where they find it and what they need', async () => {
  const { npm, said } = await started({ PORT: '4195', HOST: '0.0.0.0' });
  expect(await answers(4195, '127.0.0.1')).toBe(true);
  expect(said).toContain('for other devices');
  npm.kill('SIGTERM');
  await expect.poll(() => answers(4195, '127.0.0.1')).toBe(false);
});

test('the typefaces have the letters of every language written in Latin ones, and the signs that the app writes', async ({
  app,
  page,
}) => {
  await app.open();
  /** Those that a typeface lacks: each is drawn in the one named after it. */
  const lacking = (face: string, signs: string) =>
    page.evaluate(
      ([name, all]) => {
        const context = document.createElement('canvas').getContext('2d')!;
        const width = (font: string, sign: string) => {
          context.font = `200px ${font}`;
          return context.measureText(sign).width;
        };
        return [...all].filter((sign) => width(`${name}, serif`, sign) !== width(`${name}, monospace`, sign)).join('');
      },
      [face, signs] as const,
    );
  // Of the alphabets from Czech to Vietnamese (from memory).
  const letters = 'ÁÀÂÄÃÅĀĂĄÆĆČÇĎĐÉÈÊËĚĒĘĞĢÍÌÎÏĪĮİıĶŁĽĻÑŃŇŅÓÒÔÖÕŐØŒŔŘŚŠŞȘŤȚÚÙÛÜŮŰŪŲÝŸŹŽŻÞßðƠƯỆỄẢẠỸ';
  for (const face of ['BarlowCondensed_500Medium', 'BarlowCondensed_600SemiBold']) {
    expect(await lacking(face, letters + letters.toLowerCase() + '“”’…–·×−±÷µ²³')).toBe('');
  }
  expect(await lacking('MartianMono_600SemiBold', '0123456789.,:/%×−±')).toBe('');
});
