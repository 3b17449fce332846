import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { createApp } from '../server/app';
import { expect, test } from './support/app';
import { touchItem } from './support/menu';

test.use({ serviceWorkers: 'allow', bypassCSP: false });

/** A server of its own for a copy of the built app, which a test can stop or change. */
async function serveCopy(): Promise<{ directory: string; base: string; stop: () => Promise<void> }> {
  const directory = mkdtempSync(path.join(tmpdir(), 'chaffinch-'));
  cpSync('build/app', directory, { recursive: true });
  const server = await new Promise<Server>((done) => {
    const listening = createApp(directory).listen(0, 'localhost', () => done(listening));
  });
  const stop = () =>
    new Promise<void>((done) => {
      server.close(() => done());
      server.closeAllConnections();
    });
  return { directory, base: `http://localhost:${(server.address() as AddressInfo).port}`, stop };
}

test('after one visit the app opens without its server, at any place, and plays', async ({ page }) => {
  const { directory, base, stop } = await serveCopy();
  const button = (name: string) => page.getByRole('button', { name, exact: true });
  await page.goto(`${base}/pads`);
  await button('Set menu').click();
  await touchItem(page, 'Setup');
  await expect(page.getByRole('status', { name: 'Offline ready' })).toBeVisible();
  await stop();
  rmSync(directory, { recursive: true });
  for (const place of ['/launch', '/pads', '/steps']) {
    await page.goto(base + place);
    await button('Play').click();
    await expect(page.getByRole('timer', { name: 'Position' })).not.toHaveText('1.1');
    await button('Stop').click();
  }
  // What is fetched only when it is needed is there too.
  await page.goto(`${base}/pads`);
  await button('More tools').click();
  await button('Feel').click();
  await expect(page.getByText('ms from the grid')).toBeVisible();
  await button('Close feel').click();
  const download = page.waitForEvent('download');
  await button('Set menu').click();
  await touchItem(page, 'Export WAV');
  expect(
    readFileSync(await (await download).path())
      .subarray(0, 4)
      .toString(),
  ).toBe('RIFF');
});

test('a newer version waits until the player takes it, and never while playing', async ({ page }) => {
  const { directory, base, stop } = await serveCopy();
  const button = (name: string) => page.getByRole('button', { name, exact: true });
  const openSetup = async () => {
    await button('Set menu').click();
    await touchItem(page, 'Setup');
  };
  await page.goto(`${base}/pads`);
  await openSetup();
  await expect(page.getByRole('status', { name: 'Offline ready' })).toBeVisible();
  await expect(button('Update')).toHaveCount(0);
  // A build that differs in nothing but one byte of its list.
  const worker = `${readFileSync(path.join(directory, 'sw.js'), 'utf8')}\n`;
  writeFileSync(path.join(directory, 'sw.js'), worker);
  writeFileSync(path.join(directory, 'sw.js.br'), brotliCompressSync(worker));
  writeFileSync(path.join(directory, 'sw.js.gz'), gzipSync(worker));
  await page.reload();
  await button('Play').click();
  await openSetup();
  await expect(button('Update')).toHaveAttribute('aria-disabled', 'true');
  await button('Stop').click();
  await page.evaluate(() => void ((window as unknown as { old: boolean }).old = true));
  const loaded = page.waitForEvent('load');
  await button('Update').click();
  await loaded;
  expect(await page.evaluate(() => 'old' in window)).toBe(false);
  await expect(button('Play')).toBeVisible();
  await openSetup();
  await expect(button('Update')).toHaveCount(0);
  await stop();
  rmSync(directory, { recursive: true });
});

test('the manifest says what a browser needs to install it, and its icons are what it says', async ({
  page,
  request,
}) => {
  await page.goto('/');
  const address = await page.locator('link[rel="manifest"]').getAttribute('href');
  const manifest = (await (await request.get(address!)).json()) as {
    name: string;
    start_url: string;
    display: string;
    icons: { src: string; sizes: string; type: string; purpose?: string }[];
  };
  // W3C Web Application Manifest; Chromium asks for 192 and 512 px to install (web.dev, "What does it take to be installable?").
  expect(manifest).toMatchObject({ name: 'Chaffinch', display: 'standalone', start_url: '/pads' });
  const sizes = manifest.icons.map(({ sizes: size }) => size);
  expect(sizes).toEqual(expect.arrayContaining(['192x192', '512x512']));
  expect(manifest.icons.some(({ purpose }) => purpose === 'maskable')).toBe(true);
  for (const { src, sizes: size, type } of manifest.icons.filter((icon) => icon.type === 'image/png')) {
    const picture = await request.get(src);
    expect(picture.headers()['content-type']).toBe(type);
    const bytes = await picture.body();
    // PNG, 11.2.2: the header's width and height follow the signature and the chunk's name.
    expect(`${bytes.readUInt32BE(16)}x${bytes.readUInt32BE(20)}`).toBe(size);
  }
});
