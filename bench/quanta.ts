import type { Server } from 'node:http';
import path from 'node:path';
import express from 'express';
import type { Browser, Page } from 'playwright-core';
import type { BeatSet } from '@/core/document/set';
import { demoSet } from '@/core/document/demo';
import { newTrack } from '@/core/document/track';
import { createApp } from '../server/app';

/** What the quanta of one scene cost in Chromium's audio thread. */
export interface QuantaCost {
  quanta: number;
  /** Those that took longer than the sound lasts. */
  late: number;
  /** Shares of the time there is, %. */
  p50: number;
  p99: number;
  /** ms */
  worst: number;
}

const QUANTA = 5000;

/** Serves the app with the timed engine in the place of its own. */
export function serveTimed(here: string): Server {
  const app = express();
  // Shared memory, for the audio thread's clock, wants a page that is isolated.
  app.use((_request, response, next) => {
    response.set({ 'Cross-Origin-Opener-Policy': 'same-origin', 'Cross-Origin-Embedder-Policy': 'require-corp' });
    next();
  });
  app.get('/workers/engine.worklet.js', (_request, response) => response.sendFile('timedWorklet.js', { root: here }));
  app.use('/bench', express.static(here));
  app.use(createApp(path.join(here, '..', 'app')));
  return app.listen(0);
}

async function openTimed(browser: Browser, here: string): Promise<Page> {
  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await page.addInitScript({ path: path.join(here, 'timedPage.js') });
  return page;
}

function costOf(costs: readonly number[], rate: number): QuantaCost {
  const there = 128000 / rate;
  const sorted = [...costs].sort((a, b) => a - b);
  const at = (share: number) => (100 * sorted[Math.floor(sorted.length * share)]!) / there;
  const late = costs.filter((ms) => ms > there).length;
  return { quanta: costs.length, late, p50: at(0.5), p99: at(0.99), worst: sorted[sorted.length - 1]! };
}

/** Plays one of the scenes of `timed/page.ts` in the running app. */
export async function sceneCost(
  browser: Browser,
  base: string,
  here: string,
  scene: 'silence' | 'arrival' | 'repeating',
) {
  const page = await openTimed(browser, here);
  await page.goto(base);
  await page.getByRole('button', { name: 'Play', exact: true }).waitFor();
  await page.waitForTimeout(1500);
  const costs = await page.evaluate(([name, quanta]) => timed.run(name, quanta), [scene, QUANTA] as const);
  const rate = await page.evaluate(() => timed.rate());
  await page.context().close();
  return costOf(costs, rate);
}

/** Opens a stored set and plays it: what the first 5,000 quanta cost. */
export async function openingCost(
  browser: Browser,
  base: string,
  here: string,
  slots: number,
  store: (page: Page, base: string, set: BeatSet) => Promise<void>,
) {
  const page = await openTimed(browser, here);
  await store(page, base, crowded(slots));
  await page.goto(base);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  const costs: number[] = [];
  while (costs.length < QUANTA) {
    await page.waitForTimeout(1000);
    costs.push(...(await page.evaluate(async () => [...(await timed.take())])));
  }
  const rate = await page.evaluate(() => timed.rate());
  await page.context().close();
  return costOf(costs, rate);
}

/** What the dearest quantum cost of the first 100 after the first stroke, ms: one for each page that was opened. */
export async function firstStrokes(browser: Browser, base: string, here: string, pages: number): Promise<number[]> {
  const dearest: number[] = [];
  for (let i = 0; i < pages; i++) {
    const page = await openTimed(browser, here);
    await page.goto(base);
    const pad = page.getByRole('button', { name: /^Pad 1 / });
    await pad.waitFor();
    await page.waitForTimeout(1500);
    await page.evaluate(() => timed.take());
    await pad.click();
    await page.waitForTimeout(300);
    const costs = await page.evaluate(async () => [...(await timed.take())]);
    dearest.push(Math.max(...costs));
    await page.context().close();
  }
  return dearest.sort((a, b) => a - b);
}

/** Sixteen tracks with so many patterns each, of one to four bars with 32 hits to the bar. */
export function crowded(slots: number): BeatSet {
  const { set } = demoSet();
  const tracks = Array.from({ length: 16 }, (_, id) => ({
    ...newTrack(
      `Track ${id + 1}`,
      id % 8,
      Array.from({ length: slots }, (__, slot) => {
        const bars = 1 + (slot % 4);
        return {
          name: `Pattern ${slot + 1}`,
          length: 3840 * bars,
          hits: Array.from({ length: 32 * bars }, (___, i) => ({
            id: 2 * (i + 128 * (slot + slots * id)) + 1,
            pad: (i * 7 + slot) % 16,
            tick: i * 120,
            length: 60,
            velocity: 0.3 + (i % 7) / 10,
            snap: null,
          })),
        };
      }),
    ),
    id,
  }));
  return {
    ...set,
    sections: [],
    tracks: Object.fromEntries(tracks.map((track) => [track.id, track])),
    order: tracks.map(({ id }) => id),
  };
}
