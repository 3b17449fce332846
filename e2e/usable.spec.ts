import type { Page } from '@playwright/test';
import {
  DARK,
  DIALOG,
  expectAccessible,
  expectReadableInOtherThemes,
  expectSheetUsable,
  expectUsable,
} from './support/access';
import { expect, test } from './support/app';
import { openLaunch } from './support/launch';
import { demoSet } from './support/sets';
import { openSheet, openSteps } from './support/steps';

/** Every place and every sheet: nothing is too small to press, nothing overflows, and assistive technology can use it. */
for (const [size, viewport] of [
  ['phone', { width: 390, height: 844 }],
  ['lying', { width: 844, height: 390 }],
  ['wide', { width: 1280, height: 800 }],
] as const) {
  test.describe(size, () => {
    test.use({ viewport });
    // As the device wishes, so that a look in another theme needs no other visit.
    test.beforeEach(({ app }) => app.store('settings', '{"theme":"system"}'));

    // Colours are the same at every size, and those of sheets are those of places.
    const usable = async (page: Page) => {
      await expectUsable(page);
      if (size === 'phone') await expectReadableInOtherThemes(page);
    };
    const sheetUsable = async (page: Page) => {
      await expectSheetUsable(page);
      if (size === 'phone') await expectReadableInOtherThemes(page, DIALOG, [DARK]);
    };

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
      await app.unfold('Tempo and click'); // on a lying screen Patterns lies there
      for (const sheet of ['Feel', 'Takes', 'Keep', 'Latency check', 'Moves', 'Patterns']) {
        if (sheet === 'Latency check') await app.menu('Setup');
        await app.button(sheet).click();
        const dialog = page.getByRole('dialog', { name: sheet });
        await expect(dialog).toBeVisible();
        if (size === 'wide') await expect(app.pad(1)).toBeInViewport(); // pads stay free to be played
        await sheetUsable(page);
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
      if (size !== 'wide') await app.button('All sets').click();
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
        // On a wide screen a sheet lies on none of the performer's keys.
        const keys = size === 'wide' ? ['Lift', 'Stop all', 'Launching'] : [];
        for (const name of keys) await app.button(name).click({ trial: true });
        await sheetUsable(page);
        await page.keyboard.press('Escape');
      }
    });
  });
}
