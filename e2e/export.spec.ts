import { demoSet } from './support/sets';
import { readFileSync } from 'node:fs';
import { renderLoop } from '@/core/engine/offline';
import { writeWav } from '@/core/formats/wav';
import { expect, test } from './support/app';

test('the WAV file is as long as the loop and, to the sample, what Node renders', async ({ app, page }) => {
  await app.open();
  // Both are waited for from the start: the message goes away by itself.
  const download = page.waitForEvent('download');
  const said = page.getByText(/^Saved /).waitFor();
  await app.menu('Export WAV');
  const [done] = await Promise.all([download, said]);
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
  set.tracks[0]!.patterns[0]!.length = 16 * 3840;
  set.tempo = 20; // 192 seconds of sound
  await app.openSet(set);
  await app.play.click();
  await app.menu('Export WAV');
  await expect(page.getByText(/Exporting WAV: \d+ %/)).toBeVisible();
  const progress = page.getByRole('progressbar', { name: 'Export progress' });
  const doneOf = async () => Number(await progress.getAttribute('aria-valuenow'));
  await expect.poll(doneOf).toBeGreaterThan(30);
  const doneBefore = await doneOf();
  // How much of the bar is filled, %.
  const filled = await progress.evaluate((bar) => {
    const all = bar.getBoundingClientRect();
    const fill = bar.querySelector('[data-testid$="fill"]')!.getBoundingClientRect();
    return (100 * (fill.right - all.left)) / all.width;
  });
  expect(filled).toBeGreaterThan(doneBefore - 15);
  expect(filled).toBeLessThan((await doneOf()) + 15);
  await app.button('Cancel export').click();
  await expect(page.getByText('Export cancelled.')).toBeVisible();
  await expect(app.stop).toBeVisible();
});
