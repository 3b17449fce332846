import { expect, test, type App } from './support/app';

// npm run pictures: takes the pictures of docs/screenshots anew, from the demo.

const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };

/** Far enough into the second time round that the Flyway is full. */
const playing = async (app: App) => {
  await app.play.click();
  await expect(app.position).toHaveText('3.3', { timeout: 20_000 });
};

const light = async (app: App) => {
  await app.button('Setup').click();
  await app.page.getByText('Light', { exact: true }).click();
  await app.button('Close setup').click();
};

const VIEWS: [name: string, size: typeof PHONE, arrive: (app: App) => Promise<void>][] = [
  ['pads-phone', PHONE, playing],
  [
    'count-in-phone',
    PHONE,
    async (app) => {
      await app.record.click();
      await app.play.click();
      await expect(app.position).toHaveText('0.3');
    },
  ],
  ['set-menu-phone', PHONE, (app) => app.button('Set menu').click()],
  ['setup-phone', PHONE, (app) => app.button('Setup').click()],
  ['pads-wide', WIDE, playing],
  ['pads-wide-light', WIDE, async (app) => light(app).then(() => playing(app))],
];

for (const [name, viewport, arrive] of VIEWS) {
  test.describe(name, () => {
    test.use({ viewport });
    test('picture', async ({ app, page }) => {
      await app.open();
      await arrive(app);
      await page.waitForTimeout(350); // until menus and lights have moved
      await page.screenshot({ path: `docs/screenshots/${name}.png` });
    });
  });
}
