import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect } from './app';

/** Whatever is on the screen: nothing is too small to press, nothing overflows, and assistive technology can use it (axe). */
export async function expectUsable(page: Page): Promise<void> {
  const small = await page.evaluate(() =>
    [...document.querySelectorAll('[role="button"], [role="spinbutton"], a[href]')].flatMap((element) => {
      const target = element.matches('[role="spinbutton"]') ? element.parentElement! : element;
      const { width, height } = target.getBoundingClientRect();
      return width < 44 || height < 43.5 ? [`${element.getAttribute('aria-label')} ${width} x ${height}`] : [];
    }),
  );
  expect(small).toEqual([]);
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
  const { violations } = await new AxeBuilder({ page }).disableRules(['region']).analyze();
  expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
}
