import type { Browser, Page } from 'playwright-core';
import { WavSamples } from '@/core/formats/wav';
import { LoudnessMeter } from '@/core/measure/loudness';
import { readScore } from '@/core/score/readScore';
import { ScoreRender } from '@/core/score/scoreRender';
import { longRun } from '../longRun';
import { countFrames, storeEntries, words } from '../openPage';
import { runEntries } from '../playedRun';
import { median, row, steal } from '../table';

const BARS = 24;

/** A run of twenty minutes: opened, listened to from anywhere, scrolled, and made a file of. */
export async function runsRows(browser: Browser, base: string) {
  fileRow();
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await countFrames(page);
  await hearStarts(page);
  await storeRun(page, base);
  await page.goto(`${base}/runs`);
  const button = (name: string) => page.getByRole('button', { name, exact: true });
  await button('Open Twenty minutes').waitFor();
  await page.waitForTimeout(2500);
  const opened: number[] = [];
  for (let i = 0; i < 3; i++) {
    opened.push(await untilThere(page, '[aria-label="Open Twenty minutes"]', '[aria-label="Listen"]'));
    if (i < 2) await button('All runs').click();
  }
  row('a run of 20 minutes: from the touch to its timeline, median of three', `${median(opened).toFixed(0)} ms (${steal()})`, '<= 1000 ms', median(opened) <= 1000); // prettier-ignore
  await page.waitForTimeout(1000);
  const heard: number[] = [];
  for (const share of [0.02, 0.5, 0.9]) {
    await page.getByRole('slider', { name: 'Part that is seen' }).click({ position: { x: 374 * share, y: 20 } });
    await page.getByRole('application', { name: 'Timeline' }).click({ position: { x: 200, y: 120 } });
    heard.push(await toSound(page));
    await button('Listen').click();
  }
  row('the same: from Listen to its sound, at the beginning, in the middle and near the end', `${heard.map((ms) => ms.toFixed(0)).join(', ')} ms (${steal()})`, '<= 300 ms each', heard.every((ms) => ms <= 300)); // prettier-ignore
  const gaps = async (zooms: boolean) =>
    page.evaluate((ctrlKey) => {
      const timeline = document.querySelector('[aria-label="Timeline"]')!;
      const { left, top } = timeline.getBoundingClientRect();
      return frameGaps(
        (way) =>
          void timeline.dispatchEvent(new WheelEvent('wheel', { deltaX: ctrlKey ? 0 : 20 * way, deltaY: ctrlKey ? 20 * way : 0, ctrlKey, clientX: left + 200, clientY: top + 100, cancelable: true })),
        80,
      );
    }, zooms); // prettier-ignore
  const [scrolled, zoomed] = [await gaps(false), await gaps(true)];
  row('the same: frames while its timeline scrolls and zooms', `${words(scrolled)}; ${words(zoomed)} (${steal()})`, 'display rate', scrolled[scrolled.length >> 1]! < 17.5 && zoomed[zoomed.length >> 1]! < 17.5); // prettier-ignore
  await carryRow(page);
  await context.close();
}

/** In Node, in the same run: the engine alone, and with all that a WAV and its report take. */
function fileRow(): void {
  const { performed, run } = longRun();
  const score = readScore({ ...performed, log: structuredClone([...performed.log]) }, run);
  const stretch = { from: 0, to: BARS * 3840 };
  const seconds = (each: (audio: { left: Float32Array; right: Float32Array }) => void) => {
    const start = performance.now();
    const render = new ScoreRender(score, stretch, performed.sampleRate, { track: null, limited: true, tail: 0 });
    while (!render.isDone) {
      const audio = render.next();
      if (audio) each(audio);
    }
    return (performance.now() - start) / 1000;
  };
  const ratios = [1, 2, 3].map(() => {
    const bare = seconds(() => undefined);
    const [samples, meter] = [new WavSamples('pcm24'), new LoudnessMeter(performed.sampleRate)];
    return bare / seconds(({ left, right }) => {
      samples.bytes({ left, right });
      meter.add(left, right);
    }); // prettier-ignore
  });
  row('a WAV with its report against the engine alone, the same bars', `${median(ratios).toFixed(2)} of its speed (${steal()})`, '>= 0.8', median(ratios) >= 0.8); // prettier-ignore
}

async function carryRow(page: Page): Promise<void> {
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  const heap = async () => {
    await session.send('HeapProfiler.collectGarbage');
    const { metrics } = await session.send('Performance.getMetrics');
    return metrics.find(({ name }) => name === 'JSHeapUsedSize')!.value / 1e6;
  };
  const before = await heap();
  await page.getByRole('button', { name: 'Carry away', exact: true }).click();
  await page.getByRole('menuitem', { name: 'WAV mix', exact: true }).click();
  await page.getByText(/^WAV mix: [3-9]\d %/).waitFor({ timeout: 300_000 });
  const grown = (await heap()) - before;
  const cancelled = await untilThere(page, '[aria-label="Cancel"]', '[aria-label="Carry away"]:not([aria-disabled="true"])'); // prettier-ignore
  row('the same as a WAV, a third of it made: memory of the page; Cancel to all free', `${grown.toFixed(0)} MB more; ${cancelled.toFixed(0)} ms (${steal()})`, '< 100 MB, <= 500 ms', grown < 100 && cancelled <= 500); // prettier-ignore
}

/** ms from a press to the next picture in which something is found. */
function untilThere(page: Page, press: string, wanted: string): Promise<number> {
  return page.evaluate(
    async ([from, to]) => {
      const find = (selector: string) => document.querySelector<HTMLElement>(selector);
      const start = performance.now();
      find(from)!.click();
      while (!find(to)) await new Promise((done) => requestAnimationFrame(done));
      await new Promise((done) => requestAnimationFrame(done));
      return performance.now() - start;
    },
    [press, wanted] as const,
  );
}

/** Notes when each piece of sound begins that is laid, ms on the page's clock. */
function hearStarts(page: Page): Promise<unknown> {
  return page.addInitScript(() => {
    const start = AudioBufferSourceNode.prototype.start;
    AudioBufferSourceNode.prototype.start = function (when = 0) {
      const starts = ((globalThis as unknown as { starts?: number[] }).starts ??= []);
      starts.push(performance.now() + (when - this.context.currentTime) * 1000);
      start.call(this, when);
    };
  });
}

function toSound(page: Page): Promise<number> {
  return page.evaluate(async () => {
    const all = globalThis as unknown as { starts: number[] };
    all.starts = [];
    const start = performance.now();
    document.querySelector<HTMLElement>('[aria-label="Listen"]')!.click();
    while (all.starts.length === 0) await new Promise((done) => setTimeout(done, 1));
    return all.starts[0]! - start;
  });
}

function storeRun(page: Page, base: string): Promise<void> {
  return storeEntries(page, base, runEntries(longRun()));
}
