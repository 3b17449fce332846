import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect } from './app';
import { cutWords } from './words';

/** The smallest phone there is, an upright one, one that lies, and a desk. */
const SMALL = { width: 320, height: 568 };
const PHONE = { width: 390, height: 844 };
const LYING = { width: 844, height: 390 };
const DESK = { width: 1280, height: 800 };

/**
 * Whatever is on the screen: nothing is too small to press, nothing overflows, and assistive technology can use it (axe).
 * @param part selector of what axe looks at, the whole page if none is given
 */
export async function expectUsable(page: Page, part?: string): Promise<void> {
  await expectFits(page, part);
  await expectAccessible(page, part);
}

/**
 * The same at every size, in one visit: turned, or on a desk, what is open stays open. A sheet says the same to assistive technology at
 * all of them: axe, which takes long, looks at it on an upright phone alone; at a place, of which a desk shows more, there, too.
 */
export async function expectUsableEverywhere(page: Page, part?: string): Promise<void> {
  await expectUsable(page, part);
  for (const size of [SMALL, LYING, DESK]) {
    await page.setViewportSize(size);
    // A frame later it is laid out for it.
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
    await expectFits(page, part);
  }
  if (!part) await expectAccessible(page);
  await page.setViewportSize(PHONE);
}

/** What is to be tried on a desk, and on a phone again after it. */
export async function onDesk(page: Page, tried: () => Promise<void>): Promise<void> {
  await page.setViewportSize(DESK);
  await tried();
  await page.setViewportSize(PHONE);
}

/** Nothing is too small to press, nothing overflows, and no word is cut, once the page has taken its size. */
async function expectFits(page: Page, part?: string): Promise<void> {
  // Some sheets are loaded when they are opened.
  if (part) await page.locator(part).first().waitFor();
  const tooSmall = () =>
    page.evaluate(() => {
      const small = [...document.querySelectorAll('[role="button"], [role="spinbutton"], a[href]')].flatMap(
        (element) => {
          const target = element.matches('[role="spinbutton"]') ? element.parentElement! : element;
          const { width, height } = target.getBoundingClientRect();
          return width < 44 || height < 43.5 ? [`${element.getAttribute('aria-label')} ${width} x ${height}`] : [];
        },
      );
      const { scrollWidth } = document.documentElement;
      return scrollWidth > innerWidth ? [...small, `${scrollWidth} wide`] : small;
    });
  await expect.poll(async () => [...(await tooSmall()), ...(await cutWords(page))]).toEqual([]);
}

/** To describe all that is well, too, takes axe most of its time. */
const ONLY_WHAT_FAILS = {
  resultTypes: ['violations' as const],
  selectors: false,
  preload: false,
};

/** Nothing overflows, and axe finds nothing. */
export async function expectAccessible(page: Page, part?: string): Promise<void> {
  // Some sheets are loaded when they are opened.
  if (part) await page.locator(part).first().waitFor();
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
  // Legacy mode: the app has no frames, for whose sake axe otherwise opens a page of its own each time, ten seconds long.
  const axe = new AxeBuilder({ page }).options(ONLY_WHAT_FAILS).setLegacyMode();
  const { violations } = await (part ? axe.include(part) : axe).analyze();
  expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
}

export const DIALOG = '[role="dialog"]';

export const DARK = { colorScheme: 'dark', contrast: 'no-preference' } as const;
const HIGH_CONTRAST = { colorScheme: 'dark', contrast: 'more' } as const;

/**
 * In the dark and the high-contrast theme, too, every text can be read (WCAG 2.2, 1.4.3); `expectAccessible` looks at the light one. The
 * theme is to be the device's.
 */
export async function expectReadableInOtherThemes(
  page: Page,
  part?: string,
  themes: readonly (typeof DARK | typeof HIGH_CONTRAST)[] = [DARK, HIGH_CONTRAST],
): Promise<void> {
  for (const media of themes) {
    await page.emulateMedia(media);
    const axe = new AxeBuilder({ page }).withRules('color-contrast').setLegacyMode();
    const { violations, passes, incomplete } = await (part ? axe.include(part) : axe).analyze();
    expect(violations.map((v) => [media, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
    expect(passes.length + incomplete.length).toBeGreaterThan(0);
  }
  await page.emulateMedia({ colorScheme: 'light', contrast: 'no-preference' });
}
