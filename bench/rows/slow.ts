import type { Browser, Page } from 'playwright-core';
import { emptySet } from '@/core/document/create';
import type { BeatSet } from '@/core/document/set';
import { giveEar } from '../../e2e/support/ear';
import { countFrames, storeSet, words } from '../openPage';
import { filled } from '../quanta';
import { median, row, steal } from '../table';

const STROKES = 30;
/** Milliseconds of a display frame. */
const FRAME = 1000 / 60;

/** Runs in the page, before all else: when the pads were there, and when each stroke was made and lit, ms of the page's clock. */
function watchPads(): void {
  const seen = { there: 0, struck: [] as number[], lit: [] as number[] };
  (window as unknown as { seen: typeof seen }).seen = seen;
  const isThere = () => document.querySelector('[data-pad="0"]') !== null;
  const look = () => {
    if (isThere()) seen.there = performance.now();
    else requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
  window.addEventListener('pointerdown', (event) => seen.struck.push(event.timeStamp), { capture: true });
  new MutationObserver((records) => {
    for (const { target } of records) {
      if ((target as HTMLElement).dataset.lit) requestAnimationFrame(() => seen.lit.push(performance.now()));
    }
  }).observe(document, { attributes: true, attributeFilter: ['data-lit'], subtree: true });
}

interface Seen {
  there: number;
  struck: number[];
  lit: number[];
}

/** A phone: its glass, and its processor so many times slower than this one. */
async function slowPage(browser: Browser, base: string, slower: number, place: string, set?: BeatSet): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    bypassCSP: set !== undefined, // for the ear
    serviceWorkers: 'block',
  });
  const page = await context.newPage();
  if (set) {
    await storeSet(page, base, set);
    await giveEar(page as never, { warmUp: true }); // of Playwright's test runner, which has the same pages
  }
  await page.addInitScript(watchPads);
  await countFrames(page);
  const session = await context.newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: slower });
  await page.goto(base + place);
  await page.getByRole('button', { name: 'Play', exact: true }).waitFor();
  return page;
}

const seenIn = (page: Page) => page.evaluate(() => (window as unknown as { seen: Seen }).seen);

async function padsThere(browser: Browser, base: string, slower: number): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < 3; i++) {
    const page = await slowPage(browser, base, slower, '/pads');
    await page.waitForFunction(() => (window as unknown as { seen: Seen }).seen.there > 0);
    times.push((await seenIn(page)).there);
    await page.context().close();
  }
  return median(times) / 1000;
}

/** From the touch, by its own time stamp, until the picture with the light is drawn, ms. */
async function touchLights(page: Page): Promise<number> {
  const touch = await page.context().newCDPSession(page);
  const waits: number[] = [];
  for (let i = 0; i < STROKES; i++) {
    const box = (await page.locator(`[data-pad="${8 + (i % 4)}"]`).boundingBox())!;
    const points = [{ x: box.x + box.width / 2, y: box.y + box.height / 2 }];
    await page.evaluate(() => Object.assign((window as unknown as { seen: Seen }).seen, { struck: [], lit: [] }));
    await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: points });
    await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
    await page.waitForFunction(() => (window as unknown as { seen: Seen }).seen.lit.length > 0);
    const { struck, lit } = await seenIn(page);
    waits.push(lit[0]! - struck[0]!);
    await page.waitForTimeout(320); // until the light is out
  }
  return median(waits);
}

/** A stroke of one pad on each beat, with silence between. */
function beats(): BeatSet {
  const { set } = emptySet();
  const hits = [0, 960, 1920, 2880].map((tick, i) => ({
    id: i + 1,
    pad: 1,
    tick,
    length: 60,
    velocity: 0.9,
    snap: null,
  }));
  const track = set.tracks[0]!;
  return { ...set, tracks: { 0: { ...track, patterns: [{ name: 'Beats', length: 3840, hits }] } } };
}

/**
 * How much later than its sound each light is drawn, ms; less than 0 for earlier. The sound is taken where it leaves the page, and
 * the browser says when it is at the loudspeaker (W3C Web Audio API, `getOutputTimestamp`).
 */
async function lightsAfterSound(page: Page): Promise<number[]> {
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForTimeout(2000);
  await page.evaluate(() => ((window as unknown as { seen: Seen }).seen.lit = []));
  await page.waitForTimeout(20_000);
  return page.evaluate(() => {
    const { ear, seen } = window as unknown as {
      ear: { context: AudioContext; chunks: Float32Array[]; firstFrame: number };
      seen: Seen;
    };
    const { contextTime, performanceTime } = ear.context.getOutputTimestamp();
    const { sampleRate } = ear.context;
    const heard: number[] = [];
    let frame = ear.firstFrame;
    let last = -Infinity;
    for (const chunk of ear.chunks) {
      for (let i = 0; i < chunk.length; i += 2, frame++) {
        if (Math.abs(chunk[i]!) < 1e-3) continue;
        // A new stroke after a fifth of a second of silence.
        if (frame - last > sampleRate / 5) heard.push(performanceTime! + (frame / sampleRate - contextTime!) * 1000);
        last = frame;
      }
    }
    return seen.lit
      .map((lit) => heard.reduce((best, at) => (Math.abs(lit - at) < Math.abs(best) ? lit - at : best), Infinity))
      .sort((a, b) => a - b);
  });
}

/** From the touch of its key until the sheet is drawn, ms. */
const opening = (page: Page, key: string) =>
  page.evaluate(
    (name) =>
      new Promise<number>((done) => {
        const start = performance.now();
        const look = () => {
          if (document.querySelector('[role="dialog"]')) requestAnimationFrame(() => done(performance.now() - start));
          else requestAnimationFrame(look);
        };
        document.querySelector<HTMLElement>(`[aria-label="${name}"]`)!.click();
        requestAnimationFrame(look);
      }),
    key,
  );

/** What a slow phone shows, by slowing this machine's processor down: Chromium's own throttling, which leaves the sound alone. */
export async function slowRows(browser: Browser, base: string) {
  const there = await padsThere(browser, base, 6);
  row(
    '6 times slower: until the pads are there, median of three',
    `${there.toFixed(2)} s (${steal()})`,
    '<= 3 s',
    there <= 3,
  );

  const page = await slowPage(browser, base, 6, '/pads');
  await page.waitForTimeout(4000); // what comes when the page is idle has come
  const lights = await touchLights(page);
  row(
    '6 times slower: from a touch to the light that is drawn',
    `${lights.toFixed(0)} ms (${steal()})`,
    '<= 60 ms',
    lights <= 60,
  );
  await page.getByRole('button', { name: 'More tools', exact: true }).click();
  const feel: number[] = [];
  for (let i = 0; i < 5; i++) {
    feel.push(await opening(page, 'Feel'));
    await page.keyboard.press('Escape');
    await page.waitForTimeout(300);
  }
  row('6 times slower: until Feel is open', `${median(feel).toFixed(0)} ms, first ${feel[0]!.toFixed(0)} (${steal()})`, '<= 500 ms', median(feel) <= 500); // prettier-ignore
  await page.context().close();

  for (const place of ['/pads', '/launch']) {
    const slow = await slowPage(browser, base, 4, place);
    await slow.getByRole('button', { name: 'Play', exact: true }).click();
    await slow.waitForTimeout(4000);
    const frames = await slow.evaluate(() => frameGaps(() => undefined, 2));
    row(
      `4 times slower: display frames of ${place} while the demo plays`,
      `${words(frames)} (${steal()})`,
      'median <= 17 ms',
      frames[frames.length >> 1]! <= 17,
    );
    await slow.context().close();
  }
  const slow = await slowPage(browser, base, 4, '/pads', beats());
  const late = await lightsAfterSound(slow);
  const near = late.filter((ms) => Math.abs(ms) <= 2 * FRAME).length;
  row(
    '4 times slower: a pad lights within two frames of its sound',
    `${near} of ${late.length}; ${late[0]!.toFixed(0)} to ${late.at(-1)!.toFixed(0)} ms after it (${steal()})`,
    'all',
    late.length > 30 && near === late.length,
  );
  await slow.context().close();
}

/** The second visit without any network, and a set of as many hits as four patterns hold. */
export async function visitRows(browser: Browser, base: string) {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await page.goto(`${base}/pads`);
  await page.evaluate(() => navigator.serviceWorker.ready);
  await context.setOffline(true);
  const times: Record<string, number[]> = { '/launch': [], '/pads': [] };
  for (let i = 0; i < 5; i++) {
    for (const place of Object.keys(times)) {
      const start = performance.now();
      await page.goto(base + place);
      await page.getByRole('button', { name: 'Play', exact: true }).click();
      await page.getByRole('button', { name: 'Stop', exact: true }).waitFor();
      times[place]!.push((performance.now() - start) / 1000);
    }
  }
  const slowest = Math.max(...Object.values(times).map(median));
  const each = Object.entries(times).map(([place, all]) => `${place} ${median(all).toFixed(2)} s`);
  row('second visit without a network until it plays, median of five', `${each.join(', ')} (${steal()})`, '<= 1.5 s', slowest <= 1.5); // prettier-ignore
  await context.close();

  const full = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await storeSet(full, base, filled(20_000, 4));
  const opens: number[] = [];
  for (let i = 0; i < 5; i++) {
    const start = performance.now();
    await full.goto(`${base}/pads`);
    await full.getByRole('button', { name: 'Play', exact: true }).waitFor();
    opens.push((performance.now() - start) / 1000);
  }
  row('a set of 80,000 hits opens, median of five', `${median(opens).toFixed(2)} s (${steal()})`, '<= 2 s', median(opens) <= 2); // prettier-ignore
  await full.context().close();
}
