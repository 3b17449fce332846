import path from 'node:path';
import type { Browser, Page } from 'playwright-core';
import type { BeatSet } from '@/core/document/set';
import { demoSet } from '@/core/document/demo';
import type { Pattern } from '@/core/document/pattern';
import { newTrack } from '@/core/document/track';
import { traceQuanta, type Quantum } from './trace';

/** What the quanta of one scene cost in Chromium's audio thread. */
export interface QuantaCost {
  quanta: number;
  /** Those that took longer than the sound lasts: by the thread's own work, and by the wall clock. */
  late: number;
  lateByWall: number;
  /** Work as shares of the time there is, %. */
  p50: number;
  p99: number;
  /** Work, ms. */
  worst: number;
}

/** What the measurements need of the bench. */
export interface ThreadBench {
  browser: Browser;
  /** Address of the app, and the directory with the built bench. */
  base: string;
  here: string;
  storeSet: (page: Page, base: string, set: BeatSet) => Promise<void>;
}

const QUANTA = 5000;
/** From the app's first picture until a hand has found Play. */
const HAND_MS = 1000;

async function openPage({ browser, here }: ThreadBench): Promise<Page> {
  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await page.addInitScript({ path: path.join(here, 'scenes.js') });
  return page;
}

const rateOf = (page: Page) => page.evaluate(() => engineRate);
const lasting = (rate: number) => (QUANTA * 128000) / rate + 500;

function costOf(all: readonly Quantum[], rate: number): QuantaCost {
  if (all.length < QUANTA) throw new Error(`Only ${all.length} quanta of ${QUANTA} were traced.`);
  const quanta = all.slice(0, QUANTA);
  const there = 128000 / rate;
  const sorted = quanta.map(({ work }) => work).sort((a, b) => a - b);
  const at = (share: number) => (100 * sorted[Math.floor(sorted.length * share)]!) / there;
  return {
    quanta: QUANTA,
    late: quanta.filter(({ work }) => work > there).length,
    lateByWall: quanta.filter(({ wall }) => wall > there).length,
    p50: at(0.5),
    p99: at(0.99),
    worst: sorted[QUANTA - 1]!,
  };
}

/** Plays one of the scenes of `scenes.ts` in the running app, with a set or the demo. */
export async function sceneCost(
  bench: ThreadBench,
  scene: Parameters<typeof playScene>[0],
  set?: BeatSet,
): Promise<QuantaCost> {
  const page = await openPage(bench);
  if (set) await bench.storeSet(page, bench.base, set);
  await page.goto(`${bench.base}/pads`);
  await page.getByRole('button', { name: 'Play', exact: true }).waitFor();
  await page.waitForTimeout(1500);
  const rate = await rateOf(page);
  const quanta = await traceQuanta(bench.browser, () =>
    page.evaluate(([name, ms]) => playScene(name, ms), [scene, lasting(rate)] as const),
  );
  await page.context().close();
  return costOf(quanta, rate);
}

/** Opens a stored set, plays it as soon as a hand could: what the first 5,000 quanta cost. */
export async function openingCost(bench: ThreadBench, set: BeatSet): Promise<QuantaCost> {
  const page = await openPage(bench);
  await bench.storeSet(page, bench.base, set);
  let rate = 0;
  const quanta = await traceQuanta(bench.browser, async () => {
    await page.goto(`${bench.base}/pads`);
    const play = page.getByRole('button', { name: 'Play', exact: true });
    await play.waitFor();
    await page.waitForTimeout(HAND_MS);
    await play.click();
    await page.getByRole('button', { name: 'Stop', exact: true }).waitFor(); // the engine has answered
    rate = await rateOf(page);
    await page.waitForTimeout(lasting(rate));
  });
  await page.context().close();
  return costOf(quanta, rate);
}

/** The dearest quantum of those soon after the first stroke, its work in ms: one for each page that was opened. */
export async function firstStrokes(bench: ThreadBench, pages: number): Promise<number[]> {
  const dearest: number[] = [];
  for (let i = 0; i < pages; i++) {
    const page = await openPage(bench);
    await page.goto(`${bench.base}/pads`);
    const pad = page.getByRole('button', { name: /^Pad 1 / });
    await pad.waitFor();
    await page.waitForTimeout(1500);
    const quanta = await traceQuanta(bench.browser, async () => {
      await pad.click();
      await page.waitForTimeout(300);
    });
    dearest.push(Math.max(...quanta.map(({ work }) => work)));
    await page.context().close();
  }
  return dearest.sort((a, b) => a - b);
}

/** Tracks with patterns of 64 bars, each with so many hits, every one on a tick of its own. */
export function filled(hits: number, tracks = 4): BeatSet {
  const length = 64 * 3840;
  return tracksOf(tracks, (id) => [
    {
      name: 'Filled',
      length,
      hits: Array.from({ length: hits }, (_, i) => ({
        id: 2 * (i + hits * id) + 1,
        pad: i % 16,
        tick: Math.floor((i * length) / hits),
        length: 60,
        velocity: 0.5,
        snap: null,
      })),
    },
  ]);
}

/** Sixteen tracks with so many patterns each, of one to four bars. */
export function crowded(slots: number, perBar = 32): BeatSet {
  return tracksOf(16, (id) =>
    Array.from({ length: slots }, (_, slot) => {
      const bars = 1 + (slot % 4);
      return {
        name: `Pattern ${slot + 1}`,
        length: 3840 * bars,
        hits: Array.from({ length: perBar * bars }, (__, i) => ({
          id: 2 * (i + 4 * perBar * (slot + slots * id)) + 1,
          pad: (i * 7 + slot) % 16,
          tick: (i * 3840) / perBar,
          length: 60,
          velocity: 0.3 + (i % 7) / 10,
          snap: null,
        })),
      };
    }),
  );
}

function tracksOf(count: number, patterns: (id: number) => Pattern[]): BeatSet {
  const { set } = demoSet();
  const tracks = Array.from({ length: count }, (_, id) => ({
    ...newTrack(`Track ${id + 1}`, id % 8, patterns(id)),
    id,
  }));
  return {
    ...set,
    sections: [],
    tracks: Object.fromEntries(tracks.map((track) => [track.id, track])),
    order: tracks.map(({ id }) => id),
  };
}
