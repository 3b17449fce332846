import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect } from './app';

/**
 * Whatever is on the screen: nothing is too small to press, nothing overflows, and assistive technology can use it (axe).
 * @param part selector of what axe looks at, the whole page if none is given
 */
export async function expectUsable(page: Page, part?: string): Promise<void> {
  await expectFits(page, part);
  await expectAccessible(page, part);
}

/**
 * A sheet can be used. What it says to assistive technology is the same at every size: axe, which takes long, looks at it on an upright
 * phone alone.
 */
export async function expectSheetUsable(page: Page): Promise<void> {
  const { width, height } = page.viewportSize()!;
  await (width < Math.min(height, 500) ? expectUsable(page, DIALOG) : expectFits(page, DIALOG));
}

/** Nothing is too small to press, and nothing overflows. */
async function expectFits(page: Page, part?: string): Promise<void> {
  // Some sheets are loaded when they are opened.
  if (part) await page.locator(part).first().waitFor();
  const small = await page.evaluate(() =>
    [...document.querySelectorAll('[role="button"], [role="spinbutton"], a[href]')].flatMap((element) => {
      const target = element.matches('[role="spinbutton"]') ? element.parentElement! : element;
      const { width, height } = target.getBoundingClientRect();
      return width < 44 || height < 43.5 ? [`${element.getAttribute('aria-label')} ${width} x ${height}`] : [];
    }),
  );
  expect(small).toEqual([]);
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
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
