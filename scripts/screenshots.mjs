// node scripts/screenshots.mjs: takes the pictures of docs/screenshots anew from the demo. Needs Chromium and a built app.
import { chromium } from 'playwright-core';
import { build, inRoot, install } from './shared.mjs';

install();
await build();
process.env.PORT ??= '4188';
const { serve } = await import(inRoot('build/server.mjs'));
serve();

const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };
const press = (name) => (page) => page.getByRole('button', { name, exact: true }).click();
const wait = (ms) => (page) => page.waitForTimeout(ms);
const light = [press('Setup'), (page) => page.getByText('Light', { exact: true }).click(), press('Close setup')];

const pictures = [
  ['pads-phone', PHONE, [press('Play'), wait(5300)]],
  ['count-in-phone', PHONE, [press('Record'), press('Play'), wait(1500)]],
  ['setup-phone', PHONE, [press('Setup'), wait(400)]],
  ['pads-wide', WIDE, [press('Play'), wait(5300)]],
  ['pads-wide-light', WIDE, [...light, press('Play'), wait(5300)]],
];

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--headless',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--autoplay-policy=no-user-gesture-required',
  ],
});
for (const [name, viewport, steps] of pictures) {
  const page = await (await browser.newContext({ viewport })).newPage();
  await page.goto(`http://localhost:${process.env.PORT}`);
  await page.getByRole('button', { name: 'Play', exact: true }).waitFor();
  for (const step of steps) await step(page);
  await page.screenshot({ path: inRoot('docs/screenshots', `${name}.png`) });
  await page.close();
}
await browser.close();
process.exit(0);
