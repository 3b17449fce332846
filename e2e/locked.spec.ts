import { test as plain, type Page } from '@playwright/test';
import { App, expect } from './support/app';
import { chromium } from './support/chromium';

// The browser as it comes: no sound before the page is touched.
plain.use({ launchOptions: chromium });

/**
 * Opens the app and waits until it says that the sound is locked. The page itself tells when, over the console: to the
 * browser any look from outside is a touch, which would unlock the sound.
 */
async function openLocked(page: Page): Promise<App> {
  await page.addInitScript(() => {
    const look = () => document.querySelector('[aria-label="Start audio"]') && console.log('sound is locked');
    new MutationObserver(look).observe(document, { childList: true, subtree: true });
  });
  const locked = page.waitForEvent('console', (message) => message.text() === 'sound is locked');
  await page.goto('/pads');
  await locked;
  return new App(page);
}

plain('while the browser keeps the sound locked the page says so; the first touch unlocks it', async ({ page }) => {
  const app = await openLocked(page);
  await app.button('Start audio').click();
  await expect(app.button('Start audio')).toHaveCount(0);
});

plain('the first touch of a pad unlocks it too', async ({ page }) => {
  const app = await openLocked(page);
  await app.pad(1).click();
  await expect(app.button('Start audio')).toHaveCount(0);
  await app.play.click();
  await expect(app.position).not.toHaveText('1.1');
});
