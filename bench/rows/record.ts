import type { Browser } from 'playwright-core';
import type { BeatSet } from '@/core/document/set';
import { storeSet } from '../openPage';
import { nameFrames, scriptTime } from '../profile';
import { crowded, filled } from '../quanta';
import { row, steal } from '../table';

const STRUCK = 60;

/**
 * Hits recorded into a set: what each costs the page, its release among it. The profiler tells the store and the views from the
 * drawing of frames, which goes on all the while, and from saving, which writes what several hits have changed at once. What a hit
 * adds to the browser's own drawing shows in the count of layouts.
 */
async function recording(browser: Browser, base: string, set: BeatSet) {
  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await page.addInitScript(nameFrames);
  await storeSet(page, base, set);
  await page.goto(`${base}/pads`);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  await session.send('Profiler.enable');
  await session.send('Profiler.setSamplingInterval', { interval: 200 });
  const layouts = async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    return metrics.find(({ name }) => name === 'LayoutCount')!.value;
  };
  /** While pads are struck: milliseconds of the page's scripts and layouts of the page, to a stroke. */
  const striking = async () => {
    const before = await layouts();
    await session.send('Profiler.start');
    for (let i = 0; i < STRUCK; i++) {
      await page.keyboard.press('KeyA');
      await page.waitForTimeout(100);
    }
    const { profile } = await session.send('Profiler.stop');
    return { ...scriptTime(profile, STRUCK), layouts: ((await layouts()) - before) / STRUCK };
  };
  await striking();
  const played = await striking();
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await striking();
  const recorded = await striking();
  await page.close();
  if (recorded.saving === 0) throw new Error('The profile shows no saving: it would count as store and views.');
  return { played, recorded };
}

/** What a recorded hit costs the page, in a small, a full and a crowded set. */
export async function recordRow(browser: Browser, base: string) {
  const { played, recorded } = await recording(browser, base, filled(5000, 1));
  const more = (share: keyof typeof recorded) => recorded[share] - played[share];
  row(
    'a hit recorded into a pattern of 5,000: scripts of store and views beyond those for one that is only played',
    `${more('rest').toFixed(1)} ms (${recorded.rest.toFixed(1)} and ${played.rest.toFixed(1)}); saving ${more('saving').toFixed(1)} ms, ` +
      `frames ${more('frames').toFixed(1)} ms, ${more('layouts').toFixed(1)} layouts more (${steal()})`,
    '<= 4 ms',
    more('rest') <= 4,
  );
  const full = (await recording(browser, base, filled(19_500, 1))).recorded;
  row(
    'a hit recorded into a pattern of 19,500: all scripts of the page but the drawing of frames',
    `${(full.rest + full.saving).toFixed(1)} ms, ${full.saving.toFixed(2)} of them saving (${steal()})`,
    '<= 8 ms',
    full.rest + full.saving <= 8,
  );
  const { longestSave } = (await recording(browser, base, crowded(16, 80))).recorded;
  row(
    'a set of 16 tracks x 16 patterns and 51,200 hits is saved after one more: how long that holds up the page at once',
    `at most ${longestSave.toFixed(1)} ms (${steal()})`,
    '<= 8 ms',
    longestSave <= 8,
  );
}
