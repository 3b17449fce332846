import { emptySet } from '@/core/model/create';
import { expect, test, type App } from './support/app';
import { drum, drumFreely } from './support/drummer';

// npm run pictures: takes the pictures of docs/screenshots anew, from the demo.

const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };

/** Far enough into the second time round that the Flyway is full. */
const playing = async (app: App) => {
  await app.play.click();
  await expect(app.position).toHaveText('3.3', { timeout: 20_000 });
};

/** Two passes over one bar, a little loose. */
const taken = async (app: App) => {
  await app.openSet({ ...emptySet(), name: 'Rink Night', countIn: 0 });
  await app.record.click();
  await app.play.click();
  const loose = [-14, 9, -6, 17, 3, -11, 6, -4];
  const pass = (pad: number, from: number, gap: number, count: number) =>
    Array.from({ length: count }, (_, i) => ({ pad, ms: from + i * gap + loose[(i + pad) % loose.length]! }));
  await drum(app.page, [...pass(1, 500, 500, 3), ...pass(5, 2000, 250, 8), ...pass(5, 4000, 250, 8)]);
  await app.button('Takes').click();
  await app.page.getByText('ms from the grid').waitFor();
};

/** Four bars of kick, snare and hats. */
const freeBeat = (bpm: number) => {
  const eighth = 30000 / bpm;
  return Array.from({ length: 32 }, (_, i) => i).flatMap((i) => [
    { pad: 5, ms: i * eighth + ((i * 7) % 11) },
    ...(i % 4 === 0 ? [{ pad: 1, ms: i * eighth + 3 }] : i % 4 === 2 ? [{ pad: 3, ms: i * eighth + 5 }] : []),
  ]);
};

const steps = async (app: App) => {
  await app.page.getByRole('link', { name: 'Steps' }).click();
  await app.button('Hear Closed hat').click();
  await playing(app);
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
  [
    'feel-phone',
    PHONE,
    async (app) => {
      await playing(app);
      await app.button('Feel').click();
      await app.button('Treat Closed hat').click();
      await app.button('Feel grid 1/4').click();
    },
  ],
  ['takes-phone', PHONE, taken],
  [
    'keep-phone',
    PHONE,
    async (app) => {
      await app.menu('Start empty');
      await drumFreely(app.page, freeBeat(104));
      await app.button('Keep').click();
    },
  ],
  [
    'latency-phone',
    PHONE,
    async (app) => {
      await app.button('Setup').click();
      await app.button('Latency check').click();
    },
  ],
  [
    'feel-wide',
    WIDE,
    async (app) => {
      await playing(app);
      await app.button('Feel').click();
      await app.page.getByText('ms from the grid').waitFor();
    },
  ],
  ['steps-phone', PHONE, steps],
  ['steps-wide', WIDE, steps],
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
