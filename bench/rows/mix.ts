import type { Browser } from 'playwright-core';
import { MAX_GROUPS } from '@/core/document/mix';
import { tracksOf } from '@/core/document/set';
import { countFrames, storeSet, words } from '../openPage';
import { crowded } from '../quanta';
import { row, steal } from '../table';

/** The display's rate, 60 Hz, with the clock's rounding. */
const FRAME_MS = 17;

/** Sixteen tracks that play through four groups: how the display keeps up while all of their meters move. */
export async function mixRow(browser: Browser, base: string) {
  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  const set = crowded(16);
  tracksOf(set).forEach((track, i) => (track.goesTo = i % MAX_GROUPS));
  set.mix = {
    groups: Array.from({ length: MAX_GROUPS }, (_, id) => ({ id, name: `Group ${id + 1}`, colour: id, level: 1 })),
  };
  await countFrames(page);
  await storeSet(page, base, set);
  await page.goto(`${base}/sounds`);
  await page.getByRole('button', { name: 'Mix', exact: true }).click();
  await page.getByRole('dialog', { name: 'Mix', exact: true }).waitFor();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForTimeout(2000);
  const gaps = await page.evaluate(() => frameGaps(() => undefined, 40));
  const p95 = gaps[Math.floor(gaps.length * 0.95)]!;
  row('Mix on a phone, 16 tracks and 4 groups playing, all meters moving', `${words(gaps)} (${steal()})`, `p95 <= ${FRAME_MS} ms`, p95 <= FRAME_MS); // prettier-ignore
  await page.context().close();
}
