import { expect, test } from './support/app';
import { listen } from './support/ear';

test('a chart that cannot be fetched says so in its place; the rest of the app goes on, and it comes when asked again', async ({
  app,
  page,
}) => {
  const chart = '**/EarlyLateChart-*.js';
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
