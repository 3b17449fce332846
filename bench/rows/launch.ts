import type { Browser } from 'playwright-core';
import { countFrames, storeSet, words } from '../openPage';
import { crowded } from '../quanta';
import { median, row, steal } from '../table';

/** 16 tracks x 16 patterns: how soon Launch is there, and how the display keeps up while all of them play and the rows scroll. */
export async function launchRow(browser: Browser, base: string) {
  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  const set = crowded(16);
  await countFrames(page);
  await storeSet(page, base, set);
  await page.goto(`${base}/pads`);
  await page.getByRole('button', { name: 'Play', exact: true }).waitFor();
  await page.waitForTimeout(1000);
  const opened: number[] = [];
  for (let i = 0; i < 5; i++) {
    opened.push(
      await page.evaluate(async () => {
        const start = performance.now();
        document.querySelector<HTMLElement>('a[href="/launch"]')!.click();
        while (!document.querySelector('[data-card="15 15"]')) await new Promise((done) => requestAnimationFrame(done));
        // The frame after the one that has them has drawn them.
        await new Promise((done) => requestAnimationFrame(done));
        return performance.now() - start;
      }),
    );
    await page.getByRole('link', { name: 'Pads', exact: true }).click();
    await page.getByRole('button', { name: /^Pad 1 / }).waitFor();
  }
  await page.getByRole('link', { name: 'Launch', exact: true }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  // Sixteen changes wait, each with its countdown.
  await page.getByRole('button', { name: 'Drop on', exact: true }).click();
  await page.getByRole('menuitem', { name: '4 bars', exact: true }).click();
  await page.evaluate(() =>
    document.querySelectorAll<HTMLElement>('[data-card$=" 1"]').forEach((card) => card.click()),
  );
  /** While rows are scrolled by so much a frame. */
  const frames = (x: number, y: number) =>
    page.evaluate(
      async ([dx, dy]) => {
        const scrolls = (e: Element) => /auto|scroll/.test(getComputedStyle(e)[dx ? 'overflowX' : 'overflowY']);
        const room = (e: Element) => (dx ? e.scrollWidth > e.clientWidth : e.scrollHeight > e.clientHeight);
        let box: Element = document.querySelector('[data-card="2 0"]')!;
        while (!(scrolls(box) && room(box))) box = box.parentElement!;
        return frameGaps((way) => box.scrollBy(dx! * way, dy! * way), 80);
      },
      [x, y] as const,
    );
  const down = await frames(0, 14);
  const along = await frames(14, 0);
  row(
    '16 tracks x 16 patterns on a phone: from the touch to Launch drawn, median of five',
    `${median(opened).toFixed(0)} ms (${steal()})`,
    '<= 300 ms',
    median(opened) <= 300,
  );
  row(
    'the same, all playing, sixteen changes waiting',
    `scrolling tracks ${words(down)}; scrolling patterns ${words(along)} (${steal()})`,
    'medians <= 17 ms',
    [down, along].every((gaps) => gaps[gaps.length >> 1]! <= 17),
  );
  await page.close();
}
