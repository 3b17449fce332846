import { expect, type Page } from '@playwright/test';

/** A menu that opens grows: a touch would miss an item. Once it is there it has the focus. */
export async function menuIsThere(page: Page): Promise<void> {
  await expect(page.locator('[role="menu"] :focus')).toBeVisible();
}

/** Touches an item of the menu that is being opened. */
export async function touchItem(page: Page, name: string | RegExp, exact = false): Promise<void> {
  await menuIsThere(page);
  await page.getByRole('menuitem', { name, exact }).click();
}
