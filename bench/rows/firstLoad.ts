import type { Browser } from 'playwright-core';
import { median, row, steal } from '../table';

/** A common connection of a phone: 10 Mbit/s, 40 ms to the server and back. */
const LINE = { offline: false, downloadThroughput: 10e6 / 8, uploadThroughput: 10e6 / 8, latency: 40 };

interface Load {
  ms: number;
  /** Over the wire, with headers. */
  bytes: number;
}

/** The first visit on a phone's line, until the pads can be played: its bytes, and its time against that of an empty page. */
export async function firstLoadRow(browser: Browser, base: string) {
  const app: Load[] = [];
  const empty: Load[] = [];
  for (let i = 0; i < 5; i++) {
    empty.push(await load(browser, `${base}/bench/empty.html`, 'main'));
    app.push(await load(browser, `${base}/pads`, '[aria-label="Play"]'));
  }
  const ratio = median(app.map(({ ms }) => ms)) / median(empty.map(({ ms }) => ms));
  const kB = median(app.map(({ bytes }) => bytes)) / 1000;
  row(
    'first visit at 10 Mbit/s until it can be played, median of five',
    `${kB.toFixed(0)} kB over the wire, ${ratio.toFixed(1)} times an empty page of the same server (${steal()})`,
    '<= 600 kB, <= 5 times',
    kB <= 600 && ratio <= 5,
  );
}

/** Loads an address with an empty cache until an element is there. */
async function load(browser: Browser, address: string, element: string): Promise<Load> {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, serviceWorkers: 'block' });
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  let bytes = 0;
  session.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength));
  await session.send('Network.enable');
  await session.send('Network.emulateNetworkConditions', LINE);
  const start = performance.now();
  await page.goto(address, { waitUntil: 'commit' });
  await page.locator(element).first().waitFor();
  // What is fetched from then on, to be there later, is not waited for.
  const until = { ms: performance.now() - start, bytes };
  await context.close();
  return until;
}
