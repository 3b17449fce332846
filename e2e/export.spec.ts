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
  const progress = page.getByRole('progressbar', { name: 'Export progress' });
  const told = async () => Number(await progress.getAttribute('aria-valuenow'));
  await expect.poll(told, { intervals: [100] }).toBeGreaterThan(30);
  // How much of the bar is filled, and what it tells, at one moment, %.
  const { filled, tells } = await progress.evaluate((bar) => {
    const all = bar.getBoundingClientRect();
    const fill = bar.querySelector('[data-testid$="fill"]')!.getBoundingClientRect();
    return { filled: (100 * (fill.right - all.left)) / all.width, tells: Number(bar.getAttribute('aria-valuenow')) };
  });
  expect(Math.abs(filled - tells)).toBeLessThan(15);
  await app.button('Cancel export').click();
  await expect(page.getByText('Export cancelled.')).toBeVisible();
  await expect(app.stop).toBeVisible();
});
