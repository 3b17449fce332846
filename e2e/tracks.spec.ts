import { lanesOf } from '@/core/document/lanes';
import { tracksOf } from '@/core/document/set';
import { demoSet } from './support/sets';
import { expect, test } from './support/app';
import { listen } from './support/ear';
import { openLaunch, says } from './support/launch';
import { choose } from './support/steps';

test('tracks are added, named, coloured, doubled, put in order and removed, and undo brings all back', async ({
  app,
  page,
}) => {
  await openLaunch(app, demoSet());
  const order = async () => tracksOf(await app.savedNow()).map((track) => track.name);
  await app.button('Add track').click();
  await page.getByRole('textbox', { name: 'Track name' }).fill('Canal');
  await page.getByRole('textbox', { name: 'Track name' }).press('Enter');
  await choose(app, 'Plays', 'Electric piano');
  await app.savedSet((s) => s.tracks[4]?.name === 'Canal' && s.tracks[4].tones?.voice === 'keys');
  await app.button('Track up').click();
  await app.button('Colour Rose').click();
  await app.button('Duplicate track').click();
  const saved = await app.savedSet((s) => s.order.length === 6 && s.stage.shown === s.order[4]);
  expect(tracksOf(saved).map((track) => track.name)).toEqual(['Wheels', 'Rails', 'Kerb', 'Canal', 'Canal 2', 'Lamps']);
  expect(new Set(saved.order).size).toBe(6);
  expect(saved.tracks[saved.order[4]!]!.colour).toBe(6);
  await app.button('Remove track').click();
  await app.savedSet((s) => s.order.length === 5);
  for (let i = 0; i < 7; i++) await app.undo.click();
  await expect.poll(order).toEqual(['Wheels', 'Rails', 'Kerb', 'Lamps']);
});

test('a track of notes: its scale on the pads, octaves for hands alone; what was recorded keeps its notes', async ({
  app,
  page,
}) => {
  const set = demoSet();
  await app.openSet({ ...set, stage: { ...set.stage, shown: 2 } });
  const kerb = set.tracks[2];
  for (const [i, { name }] of lanesOf(kerb!).entries()) await expect(app.button(`Pad ${i + 1} ${name}`)).toBeVisible();
  await says(app, 'Pad 8 A2', 'root of the scale');
  await app.tool('All twelve notes');
  await says(app, 'Pad 2 A♯1', 'not in the scale');
  await says(app, 'Pad 3 B1', 'in the scale');
  await app.tool('Octave up');
  await expect(app.button('Pad 3 B2')).toBeVisible();
  const before = set.tracks[2]!.patterns[0]!.hits.map((hit) => lanesOf(kerb!)[hit.pad]!.note + (hit.pitch ?? 0));
  const saved = await app.savedSet((s) => s.tracks[2]!.tones?.octave === 1);
  const after = saved.tracks[2]!.patterns[0]!.hits.map((hit) => lanesOf(saved.tracks[2]!)[hit.pad]!.note + (hit.pitch ?? 0)); // prettier-ignore
  expect(after).toEqual(before);
  await app.record.click();
  await app.countIn('None');
  await app.play.click();
  await listen(page, 0.3);
  await app.pad(1).click();
  const played = await app.savedSet((s) => s.tracks[2]!.patterns[0]!.hits.length > before.length);
  expect(played.tracks[2]!.patterns[0]!.hits.at(-1)).toMatchObject({ pad: 0, pitch: 12 });
});
