import type { Browser } from 'playwright-core';
import { countFrames, words } from '../openPage';
import { median, row, steal } from '../table';

export async function pageRows(browser: Browser, base: string) {
  const times: number[] = [];
  for (let i = 0; i < 5; i++) {
    const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
    const start = performance.now();
    await page.goto(`${base}/pads`);
    await page.getByRole('button', { name: 'Play', exact: true }).click();
    await page.getByRole('button', { name: 'Stop', exact: true }).waitFor();
    times.push((performance.now() - start) / 1000);
    await page.close();
  }
  row(
    'from an empty cache to playing, median of five',
    `${median(times).toFixed(2)} s (${steal()})`,
    '<= 2 s',
    median(times) <= 2,
  );

  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await countFrames(page);
  await page.goto(`${base}/pads`);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  const frames = await page.evaluate(() => frameGaps(() => undefined, 2));
  row(
    'display frames while the demo plays',
    `${words(frames)} (${steal()})`,
    'median <= 17 ms',
    frames[frames.length >> 1]! <= 17,
  );
  await page.close();
}
