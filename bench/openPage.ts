import type { Page } from 'playwright-core';
import { writeSet } from '@/core/document/readSet';
import type { BeatSet } from '@/core/document/set';
import { FIRST_STAGE } from '@/core/document/stage';

/** Puts a set where the app will find it. */
export function storeSet(page: Page, base: string, set: BeatSet): Promise<void> {
  const tracks = Object.fromEntries(set.order.map((id) => [id, FIRST_STAGE]));
  return storeEntries(page, base, { set: writeSet({ set, stage: { shown: set.order[0]!, tracks } }) });
}

/** Puts texts into the app's storage, by their keys. */
export async function storeEntries(page: Page, base: string, entries: Record<string, string>): Promise<void> {
  await page.goto(`${base}/wingbars.svg`);
  await page.evaluate(
    (all) =>
      new Promise<void>((done) => {
        const request = indexedDB.open('chaffinch', 1);
        request.onupgradeneeded = () => request.result.createObjectStore('entries');
        request.onsuccess = () => {
          const transaction = request.result.transaction('entries', 'readwrite');
          for (const [key, text] of Object.entries(all)) transaction.objectStore('entries').put(text, key);
          transaction.oncomplete = () => done(request.result.close());
        };
      }),
    entries,
  );
}

declare global {
  /** In the page: gaps between display frames, ms, sorted, while something is moved on every frame, so many frames to and fro. */
  var frameGaps: (move: (way: 1 | -1) => void, period: number) => Promise<number[]>;
}

/** Gives the page `frameGaps`. */
export function countFrames(page: Page): Promise<unknown> {
  return page.addInitScript(() => {
    globalThis.frameGaps = async (move, period) => {
      const gaps: number[] = [];
      let last = performance.now();
      await new Promise<void>((done) => {
        const frame = (now: number) => {
          gaps.push(now - last);
          last = now;
          move(gaps.length % period < period / 2 ? 1 : -1);
          if (gaps.length < 240) requestAnimationFrame(frame);
          else done();
        };
        requestAnimationFrame(frame);
      });
      return gaps.slice(10).sort((a, b) => a - b);
    };
  });
}

/** Gaps between frames in words. */
export const words = (gaps: number[]) =>
  `median ${gaps[gaps.length >> 1]!.toFixed(1)} ms, p95 ${gaps[Math.floor(gaps.length * 0.95)]!.toFixed(1)} ms`;
