import { expect, test } from './support/app';
import { chooseByKeys } from './support/steps';
import { heard, listen, of } from './support/ear';

/** The accessible name of what has the focus. */
const NAME = 'document.activeElement?.getAttribute("aria-label") ?? ""';

// WCAG 2.2, 2.1.4 (character key shortcuts), 2.4.3 (focus order), 2.1.1 (keyboard), 2.3.3 (animation from interactions).

test('character keys are switched off, on again, and changed; two that meet change places, and they stay so', async ({
  app,
  page,
}) => {
  await app.open();
  await page.keyboard.press('Shift+?');
  await app.button('Character keys').click();
  await page.keyboard.press('Escape');
  for (const key of ['m', 't', 't', 't', 'z', '?', ']', '0']) await page.keyboard.press(key);
  await listen(page, 0.3);
  expect(of((await heard(page)).events, 'sounded')).toEqual([]);
  const off = await app.savedNow();
  expect([off.metronome.on, off.tempo, off.tracks[0]!.patterns[0]!.length]).toEqual([false, 112, 7680]);
  await expect(page.getByRole('dialog')).toHaveCount(0);
  // Space and Enter are no characters: they still play and record.
  await page.keyboard.press('Space');
  await expect(app.stop).toBeVisible();
  await page.keyboard.press('Space');

  await app.menu('Setup');
  await app.button('All keys').click();
  await app.button('Character keys').click();
  await app.button('Key of Metronome').click();
  await expect(app.button('Key of Metronome')).toHaveAccessibleDescription(/Press the new key/);
  await page.keyboard.press('F5');
  await expect(page.getByText(/F5 cannot be chosen: the browser loads the page anew/)).toBeVisible();
  await app.button('Key of Metronome').click();
  await page.keyboard.press('z');
  await expect(page.getByText('Metronome and Pad 1 have changed keys.')).toBeVisible();
  await expect(app.button('Key of Pad 1')).toContainText('M');
  await page.keyboard.press('Escape');
  await page.keyboard.press('z');
  expect((await app.savedNow()).metronome.on).toBe(true);
  await app.open(); // anew: it hears keys once the engine has begun
  await expect(app.pad(1)).toContainText('M');
  await page.keyboard.press('z');
  await expect.poll(async () => (await app.savedNow()).metronome.on).toBe(false);
});

test('a sheet takes the focus, scrolls by its keys, and gives the focus back', async ({ app, page }) => {
  await app.open();
  await app.unfold('More tools');
  for (const [opener, title] of [
    ['Feel', 'Feel'],
    ['Keep', 'Keep'],
    ['Patterns', 'Patterns of Wheels'],
  ] as const) {
    await app.button(opener).focus();
    await page.keyboard.press('Enter');
    const sheet = page.getByRole('dialog', { name: title });
    await expect(sheet).toBeVisible();
    expect(await sheet.evaluate((e) => e.contains(document.activeElement))).toBe(true);
    // The next stop is within the sheet.
    await page.keyboard.press('Tab');
    expect(await sheet.evaluate((e) => e.contains(document.activeElement))).toBe(true);
    await page.keyboard.press('Escape');
    await expect(sheet).toHaveCount(0);
    expect(await page.evaluate(NAME)).toBe(opener);
  }
  // By way of a menu, back to the key of the menu.
  await chooseByKeys({ app, key: 'Set menu', item: 'Setup' });
  await app.button('All keys').focus();
  await page.keyboard.press('Enter');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await expect(keys).toBeVisible();
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowDown');
  await expect
    .poll(() => keys.evaluate((e) => Math.max(...[...e.querySelectorAll('*')].map((part) => part.scrollTop))))
    .toBeGreaterThan(50);
  expect((await app.savedNow()).tempo).toBe(112); // the arrows belong to the sheet
  await page.keyboard.press('Escape');
  await expect(keys).toHaveCount(0);
  expect(await page.evaluate(NAME)).toBe('Set menu');
});

test('Escape closes a sheet from its first picture on', async ({ app, page }) => {
  await app.open();
  const closed = page.evaluate(
    () =>
      new Promise<string>((done) => {
        new MutationObserver((_, observer) => {
          const sheet = document.querySelector('[role=dialog]');
          if (!sheet) return;
          observer.disconnect();
          window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
          done(sheet.getAttribute('aria-label')!);
        }).observe(document.body, { childList: true, subtree: true });
      }),
  );
  await app.button('Keep').click();
  expect(await closed).toBe('Keep');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('what a finger opened leaves Space to the transport once it is closed', async ({ app, page }) => {
  await app.open();
  await app.button('Keep').click();
  await expect(page.getByRole('dialog', { name: 'Keep' })).toBeVisible(); // sheets come when they are opened
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Space');
  await expect(app.stop).toBeVisible();
});

test('every control can be reached by Tab, in the order of the screen, and its focus is seen', async ({
  app,
  page,
}) => {
  await app.open();
  const seen: { name: string; outline: string }[] = [];
  for (let i = 0; i < 80; i++) {
    await page.keyboard.press('Tab');
    const stop = await page.evaluate(() => {
      const e = document.activeElement as HTMLElement;
      const { outlineStyle, outlineWidth } = getComputedStyle(e);
      if (e === document.body) return { name: '', outline: '' }; // round the end
      return { name: e.getAttribute('aria-label') ?? e.textContent ?? '', outline: `${outlineStyle} ${outlineWidth}` };
    });
    if (seen.length > 0 && stop.name === seen[0]!.name) break;
    seen.push(stop);
  }
  const names = seen.map(({ name }) => name);
  const order = ['Set menu', 'Patterns', 'Undo', 'Play', 'Record', 'Tempo and click', 'Input quantize', 'Keep', 'Pad 1 Kick', 'Pads', 'Launch']; // prettier-ignore
  const places = order.filter((name) => name !== 'Undo').map((name) => names.indexOf(name));
  expect(places).toEqual([...places].sort((a, b) => a - b));
  expect(places[0]).toBeGreaterThanOrEqual(0);
  expect(new Set(names).size, 'names are unique').toBe(names.length);
  const unseen = seen.filter(({ name, outline }) => name !== '' && !/^(solid|auto) [1-9]/.test(outline));
  expect(unseen).toEqual([]);
});

test('a number that is left at once does not take the focus back', async ({ app, page }) => {
  await app.open();
  const focused = await page.evaluate(async () => {
    const named = (name: string) => document.querySelector<HTMLElement>(`[aria-label="${name}"]`)!;
    named('Loop length').focus();
    named('Keep').focus();
    await new Promise((later) => setTimeout(later, 50));
    return document.activeElement?.getAttribute('aria-label');
  });
  expect(focused).toBe('Keep');
});

test.describe('less motion', () => {
  test.use({ contextOptions: { reducedMotion: 'reduce' } });

  test('a struck pad lights without growing, and the strip goes on bar by bar', async ({ app, page }) => {
    await app.open();
    await app.play.click();
    // The light is over in a moment: it is noted as it is lit.
    await page.evaluate(() => {
      const lights: string[] = ((window as unknown as { lights: string[] }).lights = []);
      const { animate } = Element.prototype;
      Element.prototype.animate = function (frames, options) {
        if (this.closest('[data-pad]'))
          lights.push(...(frames as Keyframe[]).flatMap(({ transform }) => transform as string));
        return animate.call(this, frames, options);
      };
    });
    await app.pad(1).click();
    const lit = () => page.evaluate(() => (window as unknown as { lights: string[] }).lights);
    await expect.poll(async () => (await lit()).length).toBeGreaterThan(1);
    const scales = await lit();
    // Each light of the pad has its own reach, and keeps it from its first frame to its last.
    for (let i = 0; i < scales.length; i += 4) expect(new Set(scales.slice(i, i + 4)).size).toBe(1);
  });
});
