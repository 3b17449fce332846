import { demoSet } from './support/sets';
import { App, expect, test } from './support/app';

const damaged: [string, string][] = [
  ['cut off', JSON.stringify(demoSet()).slice(0, 700)],
  ['of a newer version', JSON.stringify({ ...demoSet(), schema: 9 })],
  ['with a wrong type', JSON.stringify({ ...demoSet(), tracks: 'none' })],
  ['huge and senseless', '['.repeat(3_000_000)],
];

for (const [what, text] of damaged) {
  test(`a stored set that is ${what} is set aside, said so, and the demo opens`, async ({ app, page }) => {
    await app.store('set', text);
    await app.open();
    await expect(page.getByText(/Your stored set could not be opened/)).toBeVisible();
    await expect(app.button('Set menu')).toContainText('Rink Night');
    const key = (await app.storedKeys()).find((k) => k.startsWith('damaged set '))!;
    expect(await app.stored(key)).toBe(text);
    await app.timeKey('Tempo up');
    await app.savedSet((set) => set.tempo === 113);
    expect(await app.stored(key)).toBe(text);
  });
}

test('the first start opens the demo; starting empty is one step that undo takes back', async ({ app, page }) => {
  await app.open();
  await expect(app.button('Set menu')).toContainText('Rink Night');
  await app.menu('Start empty');
  await expect(app.button('Set menu')).toContainText('New set');
  await expect(app.tempo).toHaveValue('120');
  await page.getByRole('button', { name: 'Undo this' }).click();
  await expect(app.button('Set menu')).toContainText('Rink Night');
  await expect(app.tempo).toHaveValue('112');
  await app.menu('Start empty');
  await app.savedSet((set) => set.name === 'New set');
  await app.menu('Open demo');
  await app.savedSet((set) => set.name === 'Rink Night');
});

test('a second tab does not overwrite the first', async ({ app, page, context }) => {
  await app.open();
  const other = await context.newPage();
  await other.goto('/');
  await expect(other.getByText(/open in another tab/)).toBeVisible();
  const second = new App(other);
  await second.timeKey('Tempo up');
  await app.setTempo(99);
  await app.savedSet((set) => set.tempo === 99);
  expect((await second.savedNow()).tempo).toBe(99); // asked to save, it leaves what is the first one's
  await page.close();
  await expect(other.getByText(/kept aside/)).toBeVisible();
  // The second one's turn: its own set is stored, and the first one's lies beside it.
  await second.savedSet((set) => set.tempo === 113);
  const aside = (await second.storedKeys()).find((key) => key.startsWith('set of another tab '))!;
  expect((JSON.parse((await second.stored(aside))!) as { tempo: number }).tempo).toBe(99);
});
