import { expect, test } from '@playwright/test';
import { touchItem } from './support/menu';

// The other tests bypass the policy, because their ear is a worklet made from a blob. Here it is in force.
test.use({ bypassCSP: false });

test('under its own content-security policy the app plays, records and exports, and breaks no rule', async ({
  page,
}) => {
  const problems: string[] = [];
  page.on('console', (message) => {
    if (message.type() === 'error') problems.push(message.text());
  });
  page.on('pageerror', (error) => problems.push(error.message));
  const button = (name: string) => page.getByRole('button', { name, exact: true });
  await page.goto('/pads');
  await button('Record').click();
  await button('Play').click();
  const position = page.getByRole('timer', { name: 'Position' });
  await expect(position).toHaveText(/^[2-9]\./); // the engine's clock goes on: its worklet was let in
  await page.getByRole('button', { name: /^Pad 12 / }).click();
  await expect(button('Undo')).toHaveAccessibleDescription(/take/i);
  await button('Stop').click();
  const download = page.waitForEvent('download'); // by a worker of its own
  await button('Set menu').click();
  await touchItem(page, 'Export WAV');
  expect((await download).suggestedFilename()).toMatch(/\.wav$/);
  expect(problems).toEqual([]);
});
