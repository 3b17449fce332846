import { readFileSync } from 'node:fs';
import { readMidi } from '@/core/formats/readMidi';
import { soundingHits } from '@/core/sequence/soundingHits';
import { DIALOG, expectAccessible } from './support/access';
import { expect, test, type App } from './support/app';
import { touchItem } from './support/menu';
import { heard, listen, of } from './support/ear';
import { demoSet } from './support/sets';
import { cell, choose, setWith } from './support/steps';

/** MIDI files of other people: Debian openttd-openmsx. */
const FOREIGN = '/usr/share/games/openttd/baseset/openmsx';

const item = (app: App, name: string) => app.page.getByRole('listitem', { name, exact: true });
const field = (app: App, name: string) => app.page.getByRole('textbox', { name, exact: true });

async function goTo(app: App, place: string): Promise<void> {
  await app.page.getByRole('link', { name: place, exact: true }).click();
}

/** Types into a field, and leaves it. */
async function write(app: App, name: string, text: string): Promise<void> {
  await field(app, name).fill(text);
  await field(app, name).press('Tab');
}

test('sets are named, noted, duplicated, opened while it plays, deleted and brought back; all of it survives a reload', async ({
  app,
  page,
}) => {
  await app.open();
  await app.play.click();
  await goTo(app, 'Sets');
  await app.button('About Rink Night').click();
  await write(app, 'Name of Rink Night', 'Curb Cut');
  await write(app, 'Note on Curb Cut', 'for the second lap');
  await app.button('Duplicate').click();
  await app.button('All sets').click();
  await app.button('New set').click();
  await expect(item(app, 'New set')).toHaveAttribute('aria-current', 'true');
  await app.button('Open Curb Cut 2').click();
  // The untouched empty set is no set of theirs.
  await expect(page.getByRole('listitem')).toHaveCount(2);
  await expect(app.stop).toBeVisible(); // it plays on
  await app.button('About Curb Cut 2').click();
  await expect(page.getByText('Made from “Curb Cut”.')).toBeVisible();
  await expect(field(app, 'Note on Curb Cut 2')).toHaveValue('for the second lap');
  await app.button('Delete').click();
  await expect(item(app, 'Curb Cut 2')).toHaveCount(0);
  await app.savedSet((set) => set.name === 'New set');
  // At once it is brought back by one touch.
  await app.button('Bring back Curb Cut 2').click();
  await app.button('About Curb Cut 2').click();
  await app.button('Delete').click();
  await expect(app.button('Bring back Curb Cut 2')).toBeVisible();

  await page.reload();
  await expect(item(app, 'Curb Cut')).toBeVisible();
  await app.button('Bin (1)').click();
  await expectAccessible(page);
  await app.button('Bring Curb Cut 2 back from the bin').click();
  await expect(item(app, 'Curb Cut 2')).toBeVisible();
  // One that is not open is renamed all the same.
  await app.button('About Curb Cut').click();
  await write(app, 'Name of Curb Cut', 'Kerb Song');
  // Its tracks can come in beside those of the open set.
  await app.button('Add its tracks').click();
  await app.savedSet((set) => set.name === 'New set' && set.order.length === 5);
  await app.undo.click();
  await app.savedSet((set) => set.order.length === 1);
  await app.button('Open Kerb Song').click();
  await app.savedSet((set) => set.name === 'Kerb Song' && set.note === 'for the second lap' && set.order.length === 4);
  // Undo brings back the set that was open.
  await app.undo.click();
  await app.savedSet((set) => set.name === 'New set');
});

test('a version is kept with a note, compared, heard in the running beat, and restored whole or one track of it', async ({
  app,
  page,
}) => {
  const before = setWith([{ pad: 0, tick: 0 }, { pad: 0, tick: 1920 }]); // prettier-ignore
  await app.openSet(before);
  await goTo(app, 'Sets');
  await app.button('About New set').click();
  await field(app, 'What is different').fill('two kicks');
  await app.button('Keep version').click();
  await expect(item(app, 'Versions').or(page.getByRole('listitem', { name: /^two kicks, / }))).toHaveCount(1);
  // Then the beat is put on two snares.
  await goTo(app, 'Steps');
  for (const at of ['Kick bar 1 beat 1', 'Kick bar 1 beat 3', 'Snare bar 1 beat 2'])
    await cell(app, `${at} step 1`).click();
  await app.setTempo(150);
  await goTo(app, 'Sets');
  await app.button('About New set').click();
  await page.getByRole('button', { name: /^Compare two kicks/ }).click();
  await expect(page.getByText('The set: tempo 120 to 150.')).toBeVisible();
  await expect(page.getByText('Pattern 1: 1 hit more, 2 hits fewer')).toBeVisible();
  await expectAccessible(page);

  await app.play.click();
  await listen(page, 2);
  const strokes = async () => of((await heard(page)).events, 'sounded').map(({ pad }) => pad);
  expect(new Set(await strokes())).toEqual(new Set([2]));
  await app.button('Hear it as it was').click();
  await listen(page, 2.5);
  const after = await strokes();
  expect(after.slice(-2)).toEqual([0, 0]);
  // It is only heard: the set is what it was.
  expect((await app.savedNow()).tempo).toBe(150);
  await app.button('Hear it as it is now').click();
  await app.stop.click();

  await app.button('Restore Drums alone').click();
  const one = await app.savedSet((set) => set.tracks[0]!.patterns[0]!.hits.length === 2);
  expect(one.tempo).toBe(150);
  await app.undo.click();
  await app.savedSet((set) => set.tracks[0]!.patterns[0]!.hits.length === 1);
  await page.getByRole('listitem', { name: /^two kicks/ }).getByRole('button', { name: 'Restore', exact: true }).click(); // prettier-ignore
  const whole = await app.savedSet((set) => set.tempo === 120);
  expect(whole.tracks).toEqual(before.tracks);
  await app.undo.click();
  await app.savedSet((set) => set.tempo === 150 && set.tracks[0]!.patterns[0]!.hits.length === 1);
});

test('undo and redo survive a reload', async ({ app, page }) => {
  await app.openSet(setWith([{ pad: 0, tick: 0 }]));
  await goTo(app, 'Steps');
  const hits = (count: number) => app.savedSet((set) => set.tracks[0]!.patterns[0]!.hits.length === count);
  for (const beat of [2, 3, 4]) await cell(app, `Snare bar 1 beat ${beat} step 1`).click();
  await hits(4);
  await app.undo.click();
  await hits(3);
  await page.reload();
  await expect(app.play).toBeVisible();
  await app.undo.click();
  await hits(2);
  await app.undo.click();
  await hits(1);
  await expect(app.undo).toBeDisabled();
  for (const count of [2, 3, 4]) {
    await app.button('Redo').click();
    await hits(count);
  }
  await page.reload();
  await app.undo.click();
  await hits(3);
});

test('a MIDI file is seen, heard and changed before it is taken, as a new set or beside what is there', async ({
  app,
  page,
}) => {
  await app.open();
  await goTo(app, 'Sets');
  const chooser = page.waitForEvent('filechooser');
  await app.button('Bring in').click();
  await (await chooser).setFiles(`${FOREIGN}/city_blues_redfarn.mid`);
  const sheet = page.getByRole('dialog', { name: 'Bring in' });
  await expect(sheet.getByText(/38 bars of 4\/4 at 120 BPM, 5 parts/)).toBeVisible();
  await expectAccessible(page, DIALOG);
  await app.button('Pads of Drum Kit').click();
  await choose(app, 'Pad of Hi bongo', '14  Cowbell');
  await app.button('Take Acoustic Guitar').click();
  await choose(app, 'Patterns of', '8 bars');
  await sheet.getByRole('button', { name: 'Listen' }).click();
  await expect(sheet.getByRole('button', { name: 'Listen' })).toHaveAttribute('aria-pressed', 'true');
  expect((await app.savedNow())?.name ?? 'Rink Night').toBe('Rink Night'); // nothing is taken yet
  await app.button('Take as a new set').click();
  const taken = await app.savedSet((set) => set.order.length === 4 && set.tempo === 120);
  const drums = Object.values(taken.tracks).find(({ name }) => name === 'Drum Kit')!;
  const pads = new Set(drums.patterns.flatMap((pattern) => pattern?.hits.map(({ pad }) => pad) ?? []));
  expect([pads.has(0), pads.has(13)]).toEqual([true, true]);
  expect(drums.patterns[0]!.length).toBe(8 * 3840);
  expect(taken.sections.map(({ name }) => name)).toEqual(['All of it']);
  await app.undo.click();
  await app.savedSet((set) => set.name === 'Rink Night');

  const again = page.waitForEvent('filechooser');
  await app.button('Bring in').click();
  await (await again).setFiles(`${FOREIGN}/city_blues_redfarn.mid`);
  await app.button('Take beside what is there').click();
  const both = await app.savedSet((set) => set.order.length === 9);
  expect(both.name).toBe('Rink Night');
  const broken = page.waitForEvent('filechooser');
  await app.button('Bring in').click();
  await (await broken).setFiles({ name: 'broken.mid', mimeType: 'audio/midi', buffer: Buffer.from('MThd\0\0\0\0') });
  await expect(page.getByText(/“broken.mid” could not be opened. It is no standard MIDI file/)).toBeVisible();
});

test('a pattern and a section are carried away like a run', async ({ app, page }) => {
  await app.open();
  await app.menu('Carry away');
  const sheet = page.getByRole('dialog', { name: 'Carry away' });
  await expectAccessible(page, DIALOG);
  const carried = async (kind: string) => {
    const download = page.waitForEvent('download');
    await sheet.getByRole('button', { name: 'Carry away', exact: true }).click();
    await touchItem(page, kind, true);
    const file = await download;
    return { name: file.suggestedFilename(), bytes: readFileSync(await file.path()) };
  };
  const notes = await carried('MIDI');
  expect(notes.name).toBe('Rink Night - Wheels Fast Laps.mid');
  const song = readMidi(notes.bytes);
  // As many notes as the demo's first pattern has strokes.
  const strokes = soundingHits(demoSet().tracks[0]!.patterns[0]!).length;
  expect('parts' in song && song.parts.map(({ notes: of }) => of.length)).toEqual([strokes]);
  await choose(app, 'What', /^Section First Laps/);
  const sound = await carried('WAV mix');
  expect(sound.name).toBe('Rink Night - First Laps.wav');
  expect(sound.bytes.subarray(0, 4).toString()).toBe('RIFF');
  const { sections, tempo } = await app.savedNow();
  const { rounds } = sections[1]!;
  // 24 bits, two channels at 48 kHz, four seconds of tail; a round is the eight bars of its longest pattern.
  const seconds = (sound.bytes.readUInt32LE(4) - 36) / 6 / 48000 - 4;
  expect((seconds * tempo) / 60 / 32 / rounds).toBeCloseTo(1, 2);
  await expect(sheet.getByText(/LUFS/).first()).toBeVisible();
});
