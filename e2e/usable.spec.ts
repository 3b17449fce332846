import type { Page } from '@playwright/test';
import {
  DARK,
  DIALOG,
  expectAccessible,
  expectReadableInOtherThemes,
  expectUsableEverywhere,
  onDesk,
} from './support/access';
import { expect, test } from './support/app';
import { openLaunch } from './support/launch';
import { demoSet } from './support/sets';
import { openSheet, openSteps } from './support/steps';

// Every place and every sheet: nothing is too small to press, nothing overflows, and assistive technology can use it.

// As the device wishes, so that a look in another theme needs no other visit.
test.beforeEach(({ app }) => app.store('settings', '{"theme":"system"}'));

async function usable(page: Page): Promise<void> {
  await expectUsableEverywhere(page);
  await expectReadableInOtherThemes(page);
}

/** Colours of sheets are those of places. */
async function sheetUsable(page: Page): Promise<void> {
  await expectUsableEverywhere(page, DIALOG);
  await expectReadableInOtherThemes(page, DIALOG, [DARK]);
}

test('Pads, the menus, the setup and the pages beside', async ({ app, page }) => {
  await app.open();
  await usable(page);
  await app.button('Set menu').click();
  await expect(page.getByRole('menuitem', { name: 'Export MIDI' })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  for (const sheet of ['Setup', 'Keys', 'Carry away']) {
    await app.menu(sheet === 'Carry away' ? sheet : 'Setup');
    if (sheet === 'Keys') await app.button('All keys').click();
    await expect(page.getByRole('dialog', { name: sheet })).toBeVisible();
    await sheetUsable(page);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
  await app.menu('Start page');
  await usable(page);
});

test('the sheets of Pads', async ({ app, page }) => {
  await app.open();
  for (const pad of [1, 3, 5, 5, 1]) await app.pad(pad).click();
  await app.unfold('More tools');
  for (const sheet of ['Feel', 'Takes', 'Keep', 'Latency check', 'Moves', 'Patterns']) {
    if (sheet === 'Latency check') await app.menu('Setup');
    await app.button(sheet).click();
    const dialog = page.getByRole('dialog', { name: sheet });
    await expect(dialog).toBeVisible();
    await sheetUsable(page);
    await onDesk(page, () => expect(app.pad(1)).toBeInViewport()); // pads stay free to be played
    await page.keyboard.press('Escape');
    await expect(dialog).toHaveCount(0);
  }
});

test('Steps and its sheets', async ({ app, page }) => {
  await openSteps(app, demoSet());
  await expectAccessible(page);
  for (const sheet of ['Edit', 'Length', 'Generate']) {
    await openSheet(app, sheet);
    await sheetUsable(page);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
});

test('Runs: the list, a run, and a run that is put right', async ({ app, page }) => {
  await app.open();
  await page.getByRole('link', { name: 'Runs', exact: true }).click();
  await usable(page);
  await app.play.click();
  await expect(app.position).toHaveText(/^(1\.[2-4]|[2-9]\.|\d\d)/);
  await app.stop.click();
  await page.getByRole('button', { name: /^Open / }).click();
  await expect(app.button('Listen')).toBeVisible();
  await usable(page);
  await app.button('Fix').click();
  await page.getByRole('application', { name: 'Timeline' }).press('Enter');
  await expect(app.button('Duplicate')).toBeVisible();
  await usable(page);
});

test('Sets: the list, a set, and a comparison', async ({ app, page }) => {
  await app.open();
  await page.getByRole('link', { name: 'Sets', exact: true }).click();
  await app.button('About Rink Night').click();
  await app.button('Keep version').click();
  await page.getByRole('textbox', { name: 'Name of Rink Night' }).fill('Kerb Song');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: /^Compare / }).click();
  await expect(page.getByText('The set: name “Rink Night” to “Kerb Song”.')).toBeVisible();
  await usable(page);
  await app.button('All sets').click();
  await usable(page);
});

test('Launch and its sheets', async ({ app, page }) => {
  await openLaunch(app, demoSet());
  await app.button('Section First Laps').click();
  await app.play.click();
  await app.button('Wheels Brake').click();
  await usable(page);
  for (const key of ['Launching', 'Edit sections', 'Track settings Kerb']) {
    await app.button(key).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await sheetUsable(page);
    // On a wide screen a sheet lies on none of the performer's keys.
    await onDesk(page, async () => {
      for (const name of ['Lift', 'Stop all', 'Launching']) await app.button(name).click({ trial: true });
    });
    await page.keyboard.press('Escape');
  }
});
