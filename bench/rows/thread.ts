import type { Browser } from 'playwright-core';
import { storeSet } from '../openPage';
import { crowded, filled, firstStrokes, openingCost, sceneCost, type QuantaCost } from '../quanta';
import { row, steal } from '../table';

/** What the audio thread's quanta cost in Chromium, by its own trace. */
export async function threadRows(browser: Browser, base: string, here: string) {
  const bench = { browser, base, here, storeSet };
  const scene = async (what: string, measureIt: () => Promise<QuantaCost>, barred = true) => {
    steal();
    const { quanta, late, lateByWall, p50, p99, worst } = await measureIt();
    const work = `p50 ${p50.toFixed(1)} %, p99 ${p99.toFixed(1)} %, worst ${worst.toFixed(2)} ms`;
    const measured = `${late} of ${quanta} quanta late by their own work, ${lateByWall} by the wall clock; ${work} (${steal()})`;
    if (barred) row(`audio thread, ${what}`, measured, 'none late, p99 < 50 %', late === 0 && p99 < 50);
    else row(`audio thread, ${what}`, measured);
  };
  await scene('silence', () => sceneCost(bench, 'silence'), false);
  await scene('patterns of 20,000 hits coming in while they play', () => sceneCost(bench, 'arrival'));
  await scene('a set of 16 x 16 patterns opened and played', () => openingCost(bench, crowded(16)));
  await scene('a set of 16 x 256 patterns opened and played', () => openingCost(bench, crowded(256)));
  await scene('64 pads repeat-recording into four patterns of 18,000 hits, which makes them nearly full', () =>
    sceneCost(bench, 'repeating', filled(18_000)),
  );
  await scene('64 pads of 16 tracks repeating with everything of the mix on', () => sceneCost(bench, 'mixed'));
  const strokes = await firstStrokes(bench, 5);
  row(
    'audio thread, the first stroke after opening the app, five pages: its dearest quantum',
    `median ${strokes[2]!.toFixed(2)} ms, worst ${strokes[4]!.toFixed(2)} ms (${steal()})`,
    'median < 1 ms',
    strokes[2]! < 1,
  );
}
