import type { Page } from '@playwright/test';
import { demoSet } from './support/sets';
import { readFileSync } from 'node:fs';
import { renderLoop } from '@/core/engine/offline';
import { writeWav } from '@/core/formats/wav';
import { expect, test } from './support/app';

/** What the progress of an export tells, and how much of its bar is filled, %, at each of its steps from now on: they may come faster than pictures. */
function watchProgress(page: Page) {
  return page.evaluateHandle(() => {
    const steps: { tells: number; filled: number }[] = [];
    const look = () => {
      const bar = document.querySelector('[aria-label="Export progress"]');
      const fill = bar?.querySelector('[data-testid$="fill"]')?.getBoundingClientRect();
      if (!bar || !fill) return;
      const all = bar.getBoundingClientRect();
      const filled = (100 * (fill.right - all.left)) / all.width;
      steps.push({ tells: Number(bar.getAttribute('aria-valuenow')), filled });
    };
    const observer = new MutationObserver(() => setTimeout(look));
    observer.observe(document.body, { subtree: true, attributeFilter: ['aria-valuenow'] });
    return steps;
  });
}

test('the WAV file is as long as the loop and, to the sample, what Node renders; the bar shows how far it is', async ({
  app,
  page,
}) => {
  await app.open();
  const watched = await watchProgress(page);
  // Both are waited for from the start: the message goes away by itself.
  const download = page.waitForEvent('download');
  const said = page.getByText(/^Saved /).waitFor();
  await app.menu('Export WAV');
  const [done] = await Promise.all([download, said]);
  const steps = await watched.evaluate((all) => all);
  expect(steps.length).toBeGreaterThan(0);
  expect(steps.filter(({ tells, filled }) => Math.abs(filled - tells) > 10)).toEqual([]);
  expect(done.suggestedFilename()).toBe('Rink Night - Wheels Fast Laps - 112 BPM.wav');
  const bytes = readFileSync(await done.path());
  expect(bytes.length).toBe(44 + 6 * Math.round((8 * 60 * 48000) / 112));
  const ours = writeWav(
    renderLoop({
      track: demoSet().tracks[0]!,
      pattern: demoSet().tracks[0]!.patterns[0]!,
      tempo: 112,
      sampleRate: 48000,
    }),
    48000,
  );
  expect(Buffer.compare(bytes, Buffer.from(ours))).toBe(0);
});

test('an export shows its progress, can be given up, and leaves the music alone', async ({ app, page }) => {
  const set = demoSet();
  const pattern = set.tracks[0]!.patterns[0]!;
  // 384 seconds of sound in which many voices ring: it takes long enough to be watched.
  set.tempo = 20;
  pattern.length = 32 * 3840;
  pattern.hits = Array.from({ length: 8192 }, (_, i) => ({ id: 100_001 + 2 * i, pad: 8 + (i % 4), tick: i * 15, length: 15, velocity: 0.5, snap: null })); // prettier-ignore
  await app.openSet(set);
  await expect(page.getByText('20', { exact: true })).toBeVisible(); // the set that was stored, and not the demo
  await app.play.click();
  await app.menu('Export WAV');
  await expect(page.getByText(/Exporting WAV: \d+ %/)).toBeVisible();
  await app.button('Cancel export').click();
  await expect(page.getByText('Export cancelled.')).toBeVisible();
  await expect(app.stop).toBeVisible();
});
