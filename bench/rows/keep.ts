import type { Browser } from 'playwright-core';
import { row, steal } from '../table';

/** Four pads rolled in thirty-seconds through 64 bars, then Keep: from the press to the pattern in the set. */
export async function keepRow(browser: Browser, base: string) {
  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await page.goto(`${base}/pads`);
  const button = (name: string) => page.getByRole('button', { name, exact: true });
  await page.getByRole('spinbutton', { name: 'Tempo' }).fill('300');
  await page.keyboard.press('Enter');
  await button('Repeat rate').click();
  await page.getByRole('menuitem', { name: '1/32', exact: true }).click();
  await button('Note repeat').click();
  await button('Latch').click();
  await page.keyboard.press('Space');
  for (const key of ['KeyA', 'KeyC', 'KeyS', 'KeyX']) await page.keyboard.press(key);
  await page.getByRole('timer', { name: 'Position' }).getByText(/^65\./).waitFor({ timeout: 120_000 });
  await button('Note repeat').click();
  /** ms from a press to the next picture in which something is found. */
  const answer = (name: string, until: string) =>
    page.evaluate(
      async ([press, wanted]) => {
        const find = (selector: string) => document.querySelector<HTMLElement>(selector);
        const start = performance.now();
        find(press)!.click();
        while (!find(wanted)) await new Promise((done) => requestAnimationFrame(done));
        return performance.now() - start;
      },
      [`[aria-label="${name}"]`, until] as const,
    );
  const opened = await answer('Keep', '[aria-label="Keep 8 bars"]');
  const kept = await answer('Keep 8 bars', '[aria-label="Undo this"]');
  const hits = await page.evaluate(() => /([\d,]+) hits/.exec(document.body.innerText)?.[1]);
  row(
    `Keep 8 of 64 bars of dense playing (${hits} hits kept)`,
    `${opened.toFixed(0)} ms to the sheet, ${kept.toFixed(0)} ms to the pattern (${steal()})`,
    '<= 100 ms each',
    opened <= 100 && kept <= 100,
  );
  await page.close();
}
