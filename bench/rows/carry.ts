import type { Browser } from 'playwright-core';
import { FIRST_STAGE } from '@/core/document/stage';
import { at, type Instruction } from '@/core/protocol/commands';
import { fullMix } from '../fullMix';
import { storeEntries } from '../openPage';
import { BEGIN, playedRun, runEntries, SR } from '../playedRun';
import { crowded } from '../quanta';
import { median, row, steal } from '../table';

const SECONDS = 40;

const MIXES = ['dry', 'full'] as const;
type Times = Record<(typeof MIXES)[number], number[]>;

/** Sixteen tracks, some 64 voices: a file of them, dry and with everything of the mix on, by one worker and by two. */
export async function carryRows(browser: Browser, base: string) {
  const one = await carryTimes(browser, base, 1);
  const two = await carryTimes(browser, base, 2);
  const stems = await carryTimes(browser, base, 2, 'Stems');
  const share = median(two.dry) / median(two.full);
  row(
    `a WAV of ${SECONDS} s, 16 tracks, 64 voices, 4 groups, every effect of every channel on, by two workers: share of the speed of the same dry, medians of three`,
    `${share.toFixed(2)}: ${words(two.full)} against ${words(two.dry)} (${steal()})`,
    '>= 0.6',
    share >= 0.6,
  );
  const gain = median(one.full) / median(two.full);
  row('the same by one worker, everything on and dry; how much faster two are with everything on', `${words(one.full)} and ${words(one.dry)}; ${gain.toFixed(2)} times`); // prettier-ignore
  const of = (mix: keyof Times) => `${words(stems[mix])}, ${(median(stems[mix]) / median(two[mix])).toFixed(1)} times as long`; // prettier-ignore
  row(
    'stems of its 16 tracks in the place of the mix, by two workers, everything on and dry',
    `${of('full')}; ${of('dry')}`,
  );
}

const words = (times: number[]) => `${(median(times) / 1000).toFixed(1)} s`;

/** ms from the touch until the file is made. */
async function carryTimes(browser: Browser, base: string, processors: number, item = 'WAV mix'): Promise<Times> {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await page.addInitScript((count) => {
    Object.defineProperty(navigator, 'hardwareConcurrency', { get: () => count });
  }, processors);
  await storeEntries(page, base, { ...stored('dry', []), ...stored('full', fullMix()) });
  await page.goto(`${base}/runs`);
  const button = (name: string) => page.getByRole('button', { name, exact: true });
  const times: Times = { dry: [], full: [] };
  // The first of each: the page is still busy with itself.
  for (let round = 0; round < 4; round++) {
    for (const mix of MIXES) {
      await button(`Open ${mix}`).click();
      await button('Listen').waitFor();
      await button('Carry away').click();
      await page.getByRole('menuitem', { name: item, exact: true }).click();
      const start = performance.now();
      await button('Close report').waitFor({ timeout: 120_000 });
      if (round > 0) times[mix].push(performance.now() - start);
      await button('Close report').click();
      await button('All runs').click();
    }
  }
  await context.close();
  return times;
}

/** A run of a crowded set. @param told before it begins to play */
function stored(id: string, told: Instruction[]): Record<string, string> {
  const set = crowded(1);
  const stage = { shown: set.order[0]!, tracks: Object.fromEntries(set.order.map((track) => [track, FIRST_STAGE])) };
  const deeds = [
    ...told.map((instruction) => at(BEGIN + 1, instruction)),
    at(2 * BEGIN, { type: 'play', startTick: 0, countInTicks: 0 }),
  ];
  const facts = { id, name: id, from: 2 * BEGIN, hits: 1000, launches: 0, tempo: { least: 112, most: 112 } };
  return runEntries(playedRun({ set, stage }, SECONDS * SR, deeds, facts));
}
