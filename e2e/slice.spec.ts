import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Track } from '@/core/document/track';
import { wavFacts, writeSampleWav } from '@/core/formats/sampleWav';
import { random } from '@/core/random';
import { DIALOG, expectUsableEverywhere } from './support/access';
import { expect, test, type App } from './support/app';
import { heard, listen, of } from './support/ear';
import { emptySet } from './support/sets';

const TEMPO = 110;
/** Frames of an eighth: 60 / 110 / 2 s at 48 kHz. */
const EIGHTH = (48000 * 60) / TEMPO / 2;
/** Two bars of four quarters. */
const FRAMES = Math.round(16 * EIGHTH);

/** A loop of two bars: a low thud on one and three, a burst of noise on two and four, a soft tick on every eighth between. */
function loopFile(): { name: string; mimeType: string; buffer: Buffer } {
  const next = random(4);
  const channel = new Float32Array(FRAMES);
  for (let i = 0; i < FRAMES; i++) {
    const eighth = Math.floor(i / EIGHTH + 1e-9);
    const t = (i - Math.ceil(eighth * EIGHTH)) / 48000;
    const noise = next() - 0.5;
    if (eighth % 4 === 0) channel[i] = 0.7 * Math.exp(-t * 18) * Math.cos(2 * Math.PI * 62 * t);
    else if (eighth % 4 === 2) channel[i] = 0.6 * Math.exp(-t * 25) * noise;
    else channel[i] = 0.15 * Math.exp(-t * 90) * noise;
  }
  return { name: 'Harbour loop.wav', mimeType: 'audio/wav', buffer: Buffer.from(writeSampleWav({ channels: [channel] })) }; // prettier-ignore
}

/** An empty set at the loop's tempo, the loop on its first pad, opened to be sliced. */
async function openLoop(app: App, tempo = TEMPO): Promise<void> {
  await app.openSet({ ...emptySet(), tempo });
  await app.page.getByRole('link', { name: 'Sounds', exact: true }).click();
  const [chooser] = await Promise.all([app.page.waitForEvent('filechooser'), app.button('Load sample').click()]);
  await chooser.setFiles([loopFile()]);
  await expect(app.button('Sound 1 Harbour loop')).toBeVisible();
  await app.button('Slice').click();
  await expect(app.page.locator(DIALOG)).toBeVisible();
}

const soundAt = async (app: App, pad = 0, track = 0) => ((await app.savedNow()).tracks[track] as Track).kit.pads[pad]!.sound; // prettier-ignore
const cutsOf = async (app: App) => (await soundAt(app)).cuts ?? [];

test('onsets are found, each piece gets a pad and the pattern plays them as the loop was', async ({ app, page }) => {
  await openLoop(app);
  await app.button('Cut at 15 onsets').click();
  const cuts = await cutsOf(app);
  expect(cuts).toHaveLength(15);
  // Within 5 ms of where each begins.
  cuts.forEach((cut, i) => expect(Math.abs(cut - (i + 1) * EIGHTH)).toBeLessThan(240));
  // Less sensitive: the ticks are not cut at. By keys, as one who cannot drag would.
  const sensitivity = page.getByRole('slider', { name: 'Sensitivity', exact: true });
  await sensitivity.focus();
  await page.keyboard.press('Home');
  await expect.poll(async () => (await cutsOf(app)).length).toBeLessThan(9);
  await app.undo.click();
  expect(await cutsOf(app)).toEqual(cuts);

  await app.button('To pads').click();
  await expect(page.getByText('16 pieces on the new track Harbour loop.')).toBeVisible();
  await expect(page.locator(DIALOG)).toHaveCount(0);
  await expect(app.button('Sound 16 Harbour loop 16')).toBeVisible();
  const { tracks, order } = await app.savedNow();
  const track = tracks[order[1]!] as Track;
  const [pattern] = track.patterns;
  expect([track.name, pattern!.length, pattern!.hits.length]).toEqual(['Harbour loop', 2 * 4 * 960, 16]);
  pattern!.hits.forEach(({ pad, tick }, i) => {
    expect(pad).toBe(i);
    expect(Math.abs(tick - i * 480)).toBeLessThan(10);
  });

  // Launched, it is heard: each stroke in its order.
  await page.getByRole('link', { name: 'Launch', exact: true }).click();
  await app.button('Harbour loop Harbour loop').click();
  await app.play.click();
  await listen(page, 5);
  const strokes = of((await heard(page)).events, 'sounded').filter((stroke) => stroke.track === order[1]);
  expect(strokes.slice(0, 4).map(({ pad }) => pad)).toEqual([0, 1, 2, 3]);
  await app.undo.click();
  await expect.poll(async () => (await app.savedNow()).order).toHaveLength(1);
});

test('equal parts, the tempo that is found, corrected and doubled, cuts by hand; each is one step of undo', async ({
  app,
  page,
}) => {
  await openLoop(app);
  const choose = (name: string) => app.button(`Cut by ${name}`).click();
  await choose('Equal parts');
  await app.button('Cut into 8 equal parts').click();
  expect(await cutsOf(app)).toEqual(Array.from({ length: 7 }, (_, i) => Math.round(((i + 1) * FRAMES) / 8)));

  await choose('Tempo');
  const tempo = page.getByRole('spinbutton', { name: 'Tempo of the recording' });
  await expect(tempo).toHaveValue('110');
  await app.button('Double the tempo').click();
  await expect(tempo).toHaveValue('220');
  await app.button('Half the tempo').click();
  await tempo.fill('55');
  await tempo.press('Enter');
  await app.savedSet((set) => (set.tracks[0] as Track).kit.pads[0]!.sound.tempo === 55);
  await app.undo.click();
  await expect(tempo).toHaveValue('110');
  await app.button('Cut every 1/8').click();
  expect(await cutsOf(app)).toEqual(Array.from({ length: 15 }, (_, i) => Math.round((i + 1) * EIGHTH)));

  // The third piece begins later; then it is one with the one before.
  await app.button('Next piece').click();
  await app.button('Next piece').click();
  const begins = page.getByRole('slider', { name: 'Piece begins', exact: true });
  await begins.focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight');
  const moved = (await cutsOf(app))[1]!;
  expect(moved).toBeGreaterThan(2 * EIGHTH + 100);
  expect(moved).toBeLessThan(2 * EIGHTH + 800);
  await app.button('Remove cut').click();
  expect(await cutsOf(app)).toHaveLength(14);
  expect(await cutsOf(app)).not.toContain(moved);
  await app.button('Add cut').click();
  expect(await cutsOf(app)).toHaveLength(15);
  await app.button('Remove all cuts').click();
  expect(await cutsOf(app)).toEqual([]);
});

test('in the picture a cut is dragged to a zero crossing, a piece is touched and the view zoomed and moved', async ({
  app,
  page,
}) => {
  await openLoop(app);
  await app.button('Cut by Equal parts').click();
  await app.button('Cut into 8 equal parts').click();
  const picture = page.getByRole('img', { name: 'Recording, 4.36 s, 8 pieces' });
  await picture.scrollIntoViewIfNeeded();
  const { x, y, width, height } = (await picture.boundingBox())!;
  await page.mouse.move(x + width / 4, y + height / 2);
  await page.mouse.down();
  await page.mouse.move(x + width / 4 + 8, y + height / 2, { steps: 3 });
  await page.mouse.up();
  const wanted = FRAMES * (1 / 4 + 8 / width);
  const [, cut] = await cutsOf(app);
  expect(Math.abs(cut! - wanted)).toBeLessThan(FRAMES / width + 240);
  const samples = wavFacts(loopFile().buffer);
  expect('error' in samples).toBe(false);
  const value = (frame: number) => loopFile().buffer.readIntLE(44 + 3 * frame, 3);
  expect(Math.sign(value(cut! - 1)) * Math.sign(value(cut!))).toBeLessThanOrEqual(0);
  await page.mouse.click(x + width * 0.55, y + height / 2);
  await expect(app.button('Hear piece')).toHaveText('Hear 5 of 8');
  await app.button('Zoom in').click();
  await app.button('Zoom in').click();
  await expect(page.getByRole('img', { name: /^Shown large: 1\.\d+ to 2\.\d+ s/ })).toBeVisible();
  await app.button('Add cut').click();
  expect((await cutsOf(app)).some((frame) => Math.abs(frame - FRAMES * 0.55) < 480)).toBe(true);
  await page.mouse.move(x + width * 0.62, y + height / 2);
  await page.mouse.down();
  await page.mouse.move(x + width * 0.2, y + height / 2, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('img', { name: /^Shown large: 2\.\d+ to 3\.\d+ s/ })).toBeVisible();
});

test('two fingers on the picture make it larger where they are, and cut and choose nothing', async ({ app, page }) => {
  await openLoop(app);
  await app.button('Cut by Equal parts').click();
  await app.button('Cut into 8 equal parts').click();
  const before = await cutsOf(app);
  const picture = page.getByRole('img', { name: 'Recording, 4.36 s, 8 pieces' });
  await picture.scrollIntoViewIfNeeded();
  const { x, y, width, height } = (await picture.boundingBox())!;
  const glass = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', ...shares: number[]) =>
    glass.send('Input.dispatchTouchEvent', { type, touchPoints: shares.map((share, id) => ({ x: x + share * width, y: y + height / 2, id })) }); // prettier-ignore
  await touch('touchStart', 0.45);
  await touch('touchStart', 0.45, 0.55);
  for (const apart of [0.1, 0.2, 0.3, 0.4]) await touch('touchMove', 0.5 - apart / 2, 0.5 + apart / 2);
  await touch('touchEnd');
  // Four times as large, about the middle: 3/8 to 5/8 of 4.36 s.
  await expect(page.getByRole('img', { name: /^Shown large: 1\.6\d to 2\.7\d s/ })).toBeVisible();
  await expect(app.button('Hear piece')).toHaveText('Hear 1 of 8');
  expect(await cutsOf(app)).toEqual(before);
});

test('fitted to bars of another tempo its pitch stays, its cuts go along; as a WAV file its cuts are cue points', async ({
  app,
  page,
}) => {
  await openLoop(app, 128);
  await app.button('Cut by Equal parts').click();
  await app.button('Cut into 8 equal parts').click();
  await app.button('Fit to 2 bars').click();
  await expect(page.getByText('Harbour loop is 2 bars long at 128 BPM now.')).toBeVisible();
  // Two bars of four quarters at 128 BPM.
  const frames = (8 * 60 * 48000) / 128;
  const sound = await soundAt(app);
  expect([sound.source, sound.tempo, sound.cuts]).toEqual([
    { sample: expect.any(String), frames },
    128,
    Array.from({ length: 7 }, (_, i) => ((i + 1) * frames) / 8),
  ]);
  const [download] = await Promise.all([page.waitForEvent('download'), app.button('Save as WAV').click()]);
  const file = await download.path();
  expect(download.suggestedFilename()).toBe('Harbour loop.wav');
  expect(wavFacts(readFileSync(file))).toMatchObject({ frames, cues: sound.cuts });
  // The thud keeps its 62 Hz: SoX counts what is left below 90 Hz and of it what is left above 50.
  const rms = (...filters: string[]) => Number(/RMS\s+amplitude:\s+([\d.]+)/.exec(execFileSync('/bin/sh', ['-c', `sox "${file}" -n ${filters.join(' ')} stat 2>&1`], { encoding: 'utf8' }))![1]); // prettier-ignore
  expect(rms('lowpass', '90', 'highpass', '45') / rms('lowpass', '90')).toBeGreaterThan(0.7);
  await app.undo.click();
  expect((await soundAt(app)).source).toMatchObject({ frames: FRAMES });
});

test('the sheet is usable on a phone held both ways and on a desk', async ({ app, page }) => {
  await openLoop(app);
  await app.button('Cut at 15 onsets').click();
  for (const way of ['Onsets', 'Equal parts', 'Tempo']) {
    await app.button(`Cut by ${way}`).click();
    await expectUsableEverywhere(page, DIALOG);
  }
});
