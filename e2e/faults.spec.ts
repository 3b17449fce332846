import { expect, test } from './support/app';
import { listen } from './support/ear';

test('a chart that cannot be fetched says so in its place; the rest of the app goes on, and it comes when asked again', async ({
  app,
  page,
}) => {
  const chart = '**/charts-*.js';
  await page.route(chart, (route) => route.abort());
  await app.open();
  await app.play.click();
  await app.tool('Feel');
  await expect(page.getByRole('alert')).toContainText('The chart cannot be shown');
  await expect(page.getByRole('dialog', { name: 'Feel' })).toBeVisible();
  await app.stop.click();
  await app.play.click();
  await expect(app.stop).toBeVisible();
  await page.unroute(chart);
  await app.button('Show again').click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(page.getByText('ms from the grid')).toBeVisible();
});

test('back from a tab that was hidden, the pads light what is heard now and nothing of the past', async ({
  app,
  page,
}) => {
  await app.open();
  await app.setTempo(240);
  // A hidden page is given no frames.
  await page.evaluate(() => {
    const asked: FrameRequestCallback[] = [];
    const give = window.requestAnimationFrame.bind(window);
    window.requestAnimationFrame = (frame) => asked.push(frame);
    (window as unknown as { show: () => number }).show = () => {
      const animate = Element.prototype.animate as (this: Element, ...rest: unknown[]) => Animation;
      let lights = 0;
      Element.prototype.animate = function (this: Element, ...rest: unknown[]) {
        lights++;
        return animate.apply(this, rest);
      } as typeof Element.prototype.animate;
      window.requestAnimationFrame = give;
      for (const frame of asked) frame(performance.now());
      return lights;
    };
  });
  await app.play.click();
  // Shaker and hats: some thirty strokes a second.
  await listen(page, 6);
  const lights = await page.evaluate(() => (window as unknown as { show: () => number }).show());
  expect(lights).toBeLessThanOrEqual(10);
  await app.watchLights();
  await app.expectLit(1, 13); // and they go on lighting
});

test('a sound engine that cannot be fetched says so for as long as it is missing, and starts when asked', async ({
  app,
  page,
}) => {
  // What the audio thread loads does not pass through the page: the page itself refuses it.
  await page.addInitScript(() => {
    const add = AudioWorklet.prototype.addModule as (this: AudioWorklet, url: string) => Promise<void>;
    const missing = window as unknown as { missing: boolean };
    missing.missing = true;
    AudioWorklet.prototype.addModule = function (this: AudioWorklet, url: string) {
      return missing.missing && url.includes('engine') ? Promise.reject(new Error('not found')) : add.call(this, url);
    };
  });
  await page.goto('/pads');
  await expect(page.getByRole('alert')).toContainText('could not start the sound engine');
  await app.play.click();
  await expect(app.position).toHaveText('1.1'); // nothing sounds, and nothing pretends to
  await expect(app.play).toBeVisible();
  await page.evaluate(() => void ((window as unknown as { missing: boolean }).missing = false));
  await app.button('Start audio').click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await app.hears();
  await app.watchLights();
  await app.play.click();
  await app.expectLit(1, 3);
});

test('Play that is touched before the sound engine has come begins as soon as it is there', async ({ app, page }) => {
  await page.addInitScript(() => {
    const add = AudioWorklet.prototype.addModule as (this: AudioWorklet, url: string) => Promise<void>;
    const come = new Promise<void>((done) => ((window as unknown as { come: () => void }).come = done));
    AudioWorklet.prototype.addModule = async function (this: AudioWorklet, url: string) {
      if (url.includes('engine')) await come;
      return add.call(this, url);
    };
  });
  await page.goto('/pads');
  await app.play.click();
  await expect(app.play).toBeVisible(); // nothing pretends to play
  await app.watchLights();
  await page.evaluate(() => (window as unknown as { come: () => void }).come());
  await expect(app.stop).toBeVisible();
  await app.expectLit(1, 3);
});

test('when the browser closes the sound the song stands where it was; started again it plays the set as it is now', async ({
  app,
  page,
}) => {
  await app.open();
  await app.play.click();
  await expect(app.position).toHaveText(/^2\./);
  await page.evaluate(() => (window as unknown as { ear: { context: AudioContext } }).ear.context.close());
  await expect(page.getByRole('alert')).toContainText('closed the sound');
  const stood = await app.position.textContent();
  await expect(app.play).toBeVisible();
  await app.setTempo(140); // meanwhile
  await expect(app.position).toHaveText(stood!);
  await app.button('Start audio').click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(app.position).toHaveText(stood!);
  await app.watchLights();
  await app.play.click();
  await app.expectLit(1, 3);
  await expect(app.position).not.toHaveText(stood!);
});
