import { emptySet } from './support/sets';
import { expect, test } from './support/app';
import { touchItem } from './support/menu';
import { heard, listen } from './support/ear';
import { band, BAR, BEAT, changes, dropOn, openLaunch, says, SILENT, SLOW } from './support/launch';
import { typeInto } from './support/steps';

// It is measured when something sounds.
test.use({ warmUp: true });

test('sections: stored as it plays, launched as one, edited, put in order, followed by another; all of it is kept', async ({
  app,
  page,
}) => {
  await openLaunch(app, band([[BAR, BAR], [BAR, BAR]], SLOW)); // prettier-ignore
  await app.button('Store section').click();
  await app.button('T1 b').click();
  await app.button('T2 a').click();
  await says(app, 'T1 b', 'playing');
  await app.button('Store section').click();
  await app.button('Edit sections').click();
  const sheet = page.getByRole('dialog', { name: 'Sections' });
  await sheet.getByRole('button', { name: 'Edit section Section 2' }).click();
  await page.getByRole('textbox', { name: 'Section name' }).fill('Last Lap');
  await page.getByRole('textbox', { name: 'Section name' }).press('Enter');
  await app.button('Colour Teal').click();
  await typeInto(app, 'Rounds', '1');
  await app.button('Then').click();
  await touchItem(page, 'All stop');
  await app.button('Section earlier').click();
  let saved = await app.savedSet((s) => s.sections[0]?.name === 'Last Lap' && s.sections[0].then === 'stop');
  expect(saved.sections[0]).toMatchObject({ colour: 5, rounds: 1 });
  expect(saved.sections[0]!.parts).toEqual([{ track: 0, plays: 1 }, { track: 1, plays: null }]); // prettier-ignore
  await sheet.getByRole('button', { name: 'Edit section Section 1' }).click();
  await app.button('T2 plays').click();
  await touchItem(page, '2 b');
  await app.savedSet((s) => s.sections[1]!.parts.some((p) => p.track === 1 && p.plays === 1));
  await app.button('Close sections').click();

  await app.play.click();
  await app.button('Section Section 1').click();
  await says(app, 'Section Section 1', /^queued in [1-4] beats?$/);
  await says(app, 'T2 b', /^queued/);
  await says(app, 'Section Section 1', 'playing');
  await app.button('Section Last Lap').click();
  await app.button('Section Last Lap').click(); // taken back
  await says(app, 'Section Last Lap', 'not playing');
  await app.button('Section Last Lap').click();
  await says(app, 'Section Last Lap', 'playing');
  // One round of one bar, then all stop by themselves.
  await says(app, 'T1 b', /^stopping/);
  await says(app, 'T1 b', 'not playing');
  await says(app, 'Section Last Lap', 'not playing');
  await listen(page, 0.3);
  const done = changes((await heard(page)).events);
  const [first, last] = [done.find(([track]) => track === 1)!, done.at(-1)!];
  expect(first.slice(0, 2)).toEqual([1, 1]);
  expect(last.slice(0, 2)).toEqual([0, SILENT]);
  expect(Number(last[2]) % 1).toBe(0);
  await app.stop.click();
  await page.reload();
  await expect(app.button('Section Last Lap')).toBeVisible();
  saved = await app.savedNow();
  expect(Object.values(saved.stage.tracks).every((track) => track.stopped)).toBe(true);
});

test('a chain goes through its patterns, each as often as it says', async ({ app, page }) => {
  await openLaunch(app, band([[BEAT, 2 * BEAT, 3 * BEAT]]));
  await app.button('Track settings T1').click();
  for (let i = 0; i < 3; i++) await app.button('Add link').click();
  await typeInto(app, 'Times of link 1', '2');
  await app.button('Link 3').click();
  await touchItem(page, '2 b');
  await app.savedSet((s) => s.tracks[0]!.chain?.links.map((l) => l.slot).join() === '0,1,1');
  await app.button('Close track t1').click();
  await dropOn(app, 'Beat');
  await app.play.click();
  await app.button('T1 chain').click();
  await says(app, 'T1 chain', /^playing, link 1/);
  await says(app, 'T1 chain', /^playing, link 3/);
  await says(app, 'T1 chain', /^playing, link 1/);
  await app.button('T1 chain').click();
  await says(app, 'T1 chain', 'not playing');
  const { events } = await heard(page);
  const met = changes(events).map(([, slot, bar]) => [slot, Number(bar) * 4]);
  const from = Number(met[0]![1]);
  // Two beats of the first, twice two of the second, and round again.
  expect(met.slice(0, 4)).toEqual([[0, from], [1, from + 2], [1, from + 4], [0, from + 6]]); // prettier-ignore
});

test('an empty set says what to do, and the first section is one touch', async ({ app }) => {
  await openLaunch(app, emptySet());
  await expect(app.button('Drums Pattern 1')).toBeVisible();
  await app.button('Store section').click();
  await expect(app.button('Section Section 1')).toBeVisible();
});
