import { POLISHED_FLOOR } from '@/core/document/kits';
import { expect, test } from './support/app';
import { demoSet } from './support/sets';
import { listen } from './support/ear';

test('the names that assistive technology relies on', async ({ app, page }) => {
  await app.open();
  await app.unfold('Tempo and click');
  await app.unfold('More tools');
  for (const name of [
    'Play', 'Record', 'Metronome', 'Tap tempo', 'Tempo down', 'Tempo up', 'Count-in', 'Input quantize', 'Grid', 'Halve loop',
    'Double loop', 'Undo', 'Redo', 'Set menu', 'Patterns', 'Note repeat', 'Repeat rate', 'Step input', 'Feel', 'Takes', 'Keep',
  ]) await expect(app.button(name)).toHaveCount(1); // prettier-ignore
  for (const [
    i,
    {
      sound: { name },
    },
  ] of POLISHED_FLOOR.pads.entries())
    // prettier-ignore

    await expect(app.button(`Pad ${i + 1} ${name}`)).toBeVisible();
  await expect(page.getByRole('spinbutton', { name: 'Loop length' })).toHaveAttribute('aria-valuenow', '2');
  await expect(page.getByRole('link', { name: 'Pads' })).toBeVisible();
  await expect(app.position).toHaveText('1.1');
  await expect(app.button('Start audio')).toHaveCount(0);
  await expect(app.button('Grid')).toHaveAccessibleDescription('1/16');
  await expect(app.button('Count-in')).toHaveAccessibleDescription('1 bar');
  await expect(app.button('Undo')).toHaveAccessibleDescription('Nothing to undo');
  const [first, fifth] = await Promise.all([app.pad(1).boundingBox(), app.pad(5).boundingBox()]);
  expect(first!.y).toBeGreaterThan(fifth!.y); // pad 1 is bottom left
  expect(first!.x).toBe(fifth!.x);
  await app.button('Set menu').click();
  for (const item of ['Export MIDI', 'Export WAV', 'Start empty', 'Open demo']) {
    await expect(page.getByRole('menuitem', { name: item })).toBeVisible();
  }
});

test('tempo by keys, by drag, typed with decimals; nonsense is refused with a sentence', async ({ app, page }) => {
  await app.open();
  await app.timeKey('Tempo up');
  await expect(app.tempo).toHaveValue('113');
  await app.timeKey('Tempo down');
  await app.timeKey('Tempo down');
  await expect(app.tempo).toHaveValue('111');
  await app.setTempo('92,5');
  await expect(app.tempo).toHaveAttribute('aria-valuenow', '92.5');
  await app.setTempo('fast');
  await expect(page.getByText('Tempo “fast” is not a number.')).toBeVisible();
  await expect(app.tempo).toHaveValue('92.5');
  await app.setTempo('301');
  await expect(app.tempo).toHaveValue('92.5');
  const box = (await app.tempo.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + 80, box.y + 20, { steps: 5 });
  await page.mouse.up();
  await expect(app.tempo).toHaveAttribute('aria-valuenow', '113');
  await app.tempo.focus();
  await page.keyboard.press('ArrowUp');
  await expect(app.tempo).toHaveAttribute('aria-valuenow', '114');
});

test('the loop: halving hides, doubling shows again, while it plays; typed lengths are brought to what there is', async ({
  app,
  page,
}) => {
  await app.open();
  const length = page.getByRole('spinbutton', { name: 'Loop length' });
  await app.play.click();
  await app.tool('Halve loop');
  await expect(length).toHaveAttribute('aria-valuenow', '1');
  await expect(app.button('Halve loop')).toHaveAttribute('aria-disabled', 'true');
  await app.tool('Double loop');
  await app.tool('Double loop');
  await expect(length).toHaveAttribute('aria-valuenow', '4');
  await length.fill('3');
  await length.press('Enter');
  await expect(length).toHaveAttribute('aria-valuenow', /^(2|4)$/);
  await app.undo.click();
  await app.undo.click();
  await expect(length).toHaveAttribute('aria-valuenow', /^[124]$/);
  await expect(app.stop).toBeVisible();
  const set = await app.savedNow();
  expect(set.tracks[0]!.patterns[0]!.hits).toHaveLength(demoSet().tracks[0]!.patterns[0]!.hits.length);
});

test('stop keeps the place, stop again goes back to the top', async ({ app, page }) => {
  await app.open();
  await app.play.click();
  await expect(app.position).toHaveText(/^(1\.[2-4]|[2-9]\.)/);
  await app.stop.click();
  await expect(app.play).toBeVisible();
  await expect(app.position).not.toHaveText('1.1');
  await app.stop.click();
  await expect(app.position).toHaveText('1.1');
  await expect(app.stop).toHaveCount(0);
  await page.keyboard.press('Space');
  await expect(app.position).not.toHaveText('1.1');
});

test('pads light when the pattern plays them, and the Flyway moves', async ({ app, page }) => {
  await app.open();
  const flyway = page.getByRole('img', { name: 'Flyway' });
  const still = await flyway.screenshot();
  await app.watchLights();
  await app.play.click();
  await app.expectLit(1, 3, 5, 7, 13);
  await listen(page, 0.5);
  expect((await flyway.screenshot()).equals(still)).toBe(false);
});

test('how hard: the middle of a pad is hard, its edge is soft, a fixed velocity is the same everywhere', async ({
  app,
}) => {
  await app.open();
  await app.menu('Start empty');
  await app.countIn('None');
  await app.record.click();
  await app.play.click();
  const { width, height } = (await app.pad(6).boundingBox())!;
  await app.pad(6).click({ position: { x: width / 2, y: height / 2 } });
  await app.pad(7).click({ position: { x: 4, y: 4 } });
  await app.menu('Setup');
  await app.button('Fixed velocity').click();
  await app.button('Close setup').click();
  await app.pad(8).click({ position: { x: 4, y: 4 } });
  const set = await app.savedSet((s) => s.tracks[0]!.patterns[0]!.hits.length === 3);
  const [hard, soft, fixed] = set.tracks[0]!.patterns[0]!.hits.map((h) => h.velocity);
  expect(hard).toBe(1);
  expect(soft).toBeLessThan(0.35);
  expect(fixed).toBe(0.8);
});
