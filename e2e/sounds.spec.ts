import { readFileSync } from 'node:fs';
import type { Kit } from '@/core/document/kit';
import type { Track } from '@/core/document/track';
import { soundingHits } from '@/core/sequence/soundingHits';
import { SHIPPED_KITS } from '@/core/shelf/shippedKits';
import { mod } from '@/core/time/ticks';
import { DIALOG, expectUsableEverywhere } from './support/access';
import { expect, test, type App } from './support/app';
import { heard, listen, of } from './support/ear';
import { demoSet } from './support/sets';
import { choose, drag } from './support/steps';

const slider = (app: App, name: string) => app.page.getByRole('slider', { name, exact: true });
const item = (app: App, name: string) => app.page.getByRole('listitem', { name, exact: true });

async function openSounds(app: App): Promise<void> {
  await app.open();
  await app.page.getByRole('link', { name: 'Sounds', exact: true }).click();
  await expect(app.button('Sound 1 Kick')).toBeVisible();
}

/** Waits until a pad's sound is stored as it should be. */
function savedSound(app: App, pad: number, is: (sound: Kit['pads'][number]) => boolean) {
  return app.savedSet((set) => is((set.tracks[0] as Track).kit.pads[pad]!));
}

/** The kits and sounds that the engine was told of, in order. */
async function told(app: App): Promise<string[]> {
  const { applied } = await heard(app.page);
  return applied.flatMap((command) => {
    if (command.type === 'kit') return [`kit ${command.kit.name}`];
    return command.type === 'padSound' ? [`pad ${command.pad + 1} ${command.sound.from}`] : [];
  });
}

test('a sound is shaped while it plays: dragged, stepped, typed, given back by a double touch, and undone', async ({
  app,
  page,
}) => {
  await openSounds(app);
  await app.play.click();
  await app.button('Sound 7 Open hat').click();
  await expect(slider(app, 'Pitch')).toHaveAttribute('aria-valuetext', '0.00 st');
  await slider(app, 'Pitch').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(slider(app, 'Pitch')).toHaveAttribute('aria-valuetext', '+2.00 st');
  // Cents are typed.
  const number = page.getByRole('spinbutton', { name: 'Pitch number' });
  await number.fill('-3.25');
  await number.press('Enter');
  await savedSound(app, 6, ({ sound }) => sound.settings.pitch === -3.25);
  // Its longest part dies away in 850 ms; an octave less is half of it.
  await expect(slider(app, 'Decay')).toHaveAttribute('aria-valuetext', '850 ms');
  const ms = page.getByRole('spinbutton', { name: 'Decay number' });
  await ms.fill('425');
  await ms.press('Enter');
  await savedSound(app, 6, ({ sound }) => sound.settings.decay === -1);
  // A quarter from the left of a strip that runs from 0 to 24 dB.
  const drive = (await slider(app, 'Drive').boundingBox())!;
  await page.mouse.click(drive.x + drive.width / 4, drive.y + 20);
  await expect(slider(app, 'Drive')).toHaveAttribute('aria-valuetext', '6.0 dB');
  await slider(app, 'Pitch').dblclick();
  await savedSound(app, 6, ({ sound }) => sound.settings.pitch === undefined && sound.settings.drive! > 5.9);
  await app.undo.click(); // the double touch
  await savedSound(app, 6, ({ sound }) => sound.settings.pitch === -3.25);
  expect((await told(app)).filter((line) => line === 'pad 7 Polished Floor').length).toBeGreaterThan(5);
  // What is shaped is the sound of this track alone.
  const { tracks } = await app.savedNow();
  expect((tracks[1] as Track).kit.pads[6]!.sound.settings).toEqual({ variation: 0.5 });
});

test('the nest follows the pad that was struck last; a sound is heard, heard alone, named, copied and pasted', async ({
  app,
  page,
}) => {
  await openSounds(app);
  await app.button('Sound 3 Snare').click();
  await expect(app.button('Sound 3 Snare')).toHaveAttribute('aria-pressed', 'true');
  await page.evaluate(() => window.focus());
  await app.button('Hear').click();
  await expect.poll(async () => of((await heard(page)).events, 'sounded').map(({ pad, live }) => [pad, live])).toContainEqual([2, true]); // prettier-ignore
  await app.button('Alone').click();
  await expect(app.button('Alone')).toHaveAttribute('aria-pressed', 'true');
  await app.button('Alone').click();
  await choose(app, 'Sound menu', 'Name and kind');
  await page.getByRole('textbox', { name: 'Name of the sound' }).fill('Board slap');
  await page.getByRole('textbox', { name: 'Name of the sound' }).press('Tab');
  await expect(app.button('Sound 3 Board slap')).toBeVisible();
  await choose(app, 'Sound menu', 'Copy sound');
  await app.button('Sound 5 Closed hat').click();
  await choose(app, 'Sound menu', 'Paste Board slap');
  await expect(app.button('Sound 5 Board slap')).toBeVisible();
  // Its key is that of another pad already, so that the pad keeps its own (GM: closed hat 42).
  await savedSound(app, 4, ({ sound, note }) => sound.name === 'Board slap' && sound.kind === 'snare' && note === 42);
});

test('while the song stands still a kit that is tried plays its own two bars, and again when it is touched again', async ({
  app,
  page,
}) => {
  // What is played apart from the song: its length, and how loud it is.
  await page.addInitScript(() => {
    const played: { seconds: number; loudest: number }[] = [];
    (window as unknown as { played: typeof played }).played = played;
    const start = AudioBufferSourceNode.prototype.start;
    AudioBufferSourceNode.prototype.start = function (this: AudioBufferSourceNode, ...when: number[]) {
      const samples = this.buffer!.getChannelData(0);
      played.push({
        seconds: this.buffer!.duration,
        loudest: samples.reduce((most, v) => Math.max(most, Math.abs(v)), 0),
      });
      start.apply(this, when as [number?]);
    };
  });
  const played = () => page.evaluate(() => (window as unknown as { played: { seconds: number; loudest: number }[] }).played); // prettier-ignore
  await openSounds(app);
  await app.button('Shelf').click();
  await app.button('Try Ticket Booth').click();
  await expect.poll(async () => (await played()).length).toBe(1);
  const [{ seconds, loudest }] = (await played()) as [{ seconds: number; loudest: number }];
  // Eight quarters at 126 BPM.
  expect(seconds).toBeCloseTo((8 * 60) / 126, 2);
  expect(loudest).toBeGreaterThan(0.2);
  expect(loudest).toBeLessThan(10 ** (-1 / 20));
  await app.button('Try Ticket Booth').click();
  await expect.poll(async () => (await played()).length).toBe(2);
  await app.play.click();
  await app.button('Try Scaffold').click();
  await expect.poll(async () => (await told(app)).at(-1)).toBe('kit Scaffold');
  expect(await played()).toHaveLength(2);
});

test('kits and sounds are found, tried in the running beat, left and taken: no stroke is missing or moved', async ({
  app,
  page,
}) => {
  await openSounds(app);
  await app.play.click();
  await app.button('Shelf').click();
  const search = page.getByRole('searchbox', { name: 'Find a sound' });
  await search.fill('kiosc'); // a slip of the finger
  await expect(item(app, 'Kiosk Radio')).toBeVisible();
  await expect(page.getByRole('listitem')).toHaveCount(1);
  await search.fill('');
  await app.button('Tag dark').click();
  await expect(page.getByRole('listitem')).toHaveCount(SHIPPED_KITS.filter(({ tags }) => tags.includes('dark')).length);
  await app.button('Tag dark').click();
  await app.button('Try Canal Brick').click();
  await app.button('Try Ticket Booth').click();
  await app.button('Leave it').click();
  expect((await told(app)).slice(-3)).toEqual(['kit Canal Brick', 'kit Ticket Booth', 'kit Polished Floor']);
  await app.button('Try Kiosk Radio').click();
  await app.button('Take it').click();
  await expect(app.button('Take it')).toHaveCount(0);
  await app.savedSet((set) => (set.tracks[0] as Track).kit.name === 'Kiosk Radio');
  await page.getByRole('dialog').getByRole('button', { name: 'Close shelf' }).click();
  // One pad of another kit.
  await app.button('Sound 1 Kick').click();
  await app.button('Swap sound').click();
  await app.button('Try Felt kick of Coat Check').click();
  await app.button('Take it').click();
  await savedSound(app, 0, ({ sound }) => sound.from === 'Coat Check');
  await app.button('Like Kick of Canal Brick').click();
  await app.button('Of these Liked').click();
  await expect(page.getByRole('listitem')).toHaveCount(1);
  await app.button('Of these Taken').click();
  await expect(app.button('Try Felt kick of Coat Check')).toBeVisible();
  await page.keyboard.press('Escape');
  await app.undo.click();
  await savedSound(app, 0, ({ sound }) => sound.from === 'Kiosk Radio');
  await app.stop.click();
  // All this while each hit of the pattern sounded once, where it belongs: where hands that are tidied a little have it.
  const { events } = await heard(page);
  const anchor = of(events, 'anchor').findLast(({ playing }) => playing)!;
  const pattern = (await app.savedNow()).tracks[0]!.patterns[0]!;
  const places = new Map(soundingHits(pattern).map(({ id, tick }) => [id, tick]));
  const rounds = new Map<number, number>();
  for (const { frame, track, id } of of(events, 'sounded')) {
    if (track !== 0) continue;
    const tick = (frame - anchor.frame) / anchor.framesPerTick;
    const beside = mod(tick - places.get(id)! + 120, pattern.length) - 120;
    expect(Math.abs(beside)).toBeLessThan(2);
    rounds.set(id, (rounds.get(id) ?? 0) + 1);
  }
  expect(rounds.size).toBe(pattern.hits.length);
  expect(Math.max(...rounds.values()) - Math.min(...rounds.values())).toBeLessThanOrEqual(1);
});

test('what a sound cuts off, what it also plays, and its waves', async ({ app, page }) => {
  await openSounds(app);
  await app.button('Sound 3 Snare').click();
  await app.button('Also plays').click();
  await app.button('Also plays 4 Clap').click();
  await choose(app, 'Delay of Clap', '1/32');
  await page.keyboard.press('Escape');
  await savedSound(app, 2, ({ alsoPlays }) => alsoPlays?.[0]?.note === '1/32' && alsoPlays[0].pad === 3);
  // The clap cannot play the snare: that would be a circle.
  await app.button('Sound 4 Clap').click();
  await app.button('Also plays').click();
  await expect(app.button('Also plays 3 Snare')).toBeDisabled();
  await page.keyboard.press('Escape');
  await app.button('Sound 11 Crash').click();
  await app.button('Cuts off').click();
  await app.button('Cuts off 12 Ride').click();
  await page.keyboard.press('Escape');
  await app.savedSet((set) => JSON.stringify((set.tracks[0] as Track).kit.cutGroups) === '[[4,5,6],[10,11]]');
  await app.button('Sound 5 Closed hat').click();
  await app.button('LFO').click();
  await app.button('Add a wave').click();
  await choose(app, 'Wave 1 shape', 'Saw down');
  await app.button('Wave 1 moves Filter').click();
  await choose(app, 'Wave 1 rate', '1/4T');
  await app.button('Add another wave').click();
  await choose(app, 'Wave 2 rate', 'in Hz');
  await app.button('Wave 2 begins With the stroke').click();
  await savedSound(app, 4, ({ sound }) => sound.settings.lfos?.[1]?.start === 'stroke');
  const { lfos } = ((await app.savedNow()).tracks[0] as Track).kit.pads[4]!.sound.settings;
  expect(lfos![0]).toEqual({ moves: 'filter', shape: 'sawDown', note: '1/4T', low: -3, high: 0, start: 'song' });
  expect(lfos![1]).toMatchObject({ moves: 'pitch', hz: 2 });
  await page.keyboard.press('Escape');
  await expect(app.button('LFO')).toContainText('2');
  // Played, the engine has it all: the snare brings the clap along.
  await app.page.getByRole('link', { name: 'Pads', exact: true }).click();
  await app.pad(3).click();
  const { applied } = await heard(page);
  const kit = applied.findLast(({ type }) => type === 'kit') as { kit: Kit } | undefined;
  expect(kit?.kit.pads[2]!.alsoPlays).toEqual([{ pad: 3, share: 0.8, note: '1/32' }]);
});

test('each sound keeps to its own rates of note repeat', async ({ app, page }) => {
  await openSounds(app);
  await app.button('Playing').click();
  await choose(app, 'Fastest repeat', '1/8');
  await savedSound(app, 0, ({ sound }) => sound.settings.repeat?.fastest === '1/8');
  await expect(app.button('Slowest repeat')).toContainText('1/4');
  await choose(app, 'Slowest repeat', '1/16'); // beyond the other end, which goes along
  await savedSound(app, 0, ({ sound }) => sound.settings.repeat?.slowest === '1/16' && sound.settings.repeat.fastest === '1/16'); // prettier-ignore
  await page.keyboard.press('Escape');
});

test('Steps and Moves show the controls that sounds have got: a drive is written down while it plays', async ({
  app,
  page,
}) => {
  await openSounds(app);
  await page.getByRole('link', { name: 'Steps', exact: true }).click();
  for (const lane of ['Room', 'Resonance', 'Drive']) await choose(app, 'Moves lane', lane);
  await app.countIn('None');
  await choose(app, 'Moves lane', 'Record Moves');
  await app.record.click();
  await app.play.click();
  await listen(page, 0.5);
  await app.strip('Drive').scrollIntoViewIfNeeded();
  const strip = (await app.strip('Drive').boundingBox())!;
  await drag(app, { x: 60, y: strip.y + 10 }, { x: 260, y: strip.y + 10 }, 10);
  await app.savedSet((set) => set.tracks[0]!.patterns[0]!.moves?.[0]?.control === 'drive');
  const { moves } = (await app.savedNow()).tracks[0]!.patterns[0]!;
  expect(Math.max(...moves![0]!.points.map(({ value }) => value))).toBeGreaterThan(0);
  expect((await heard(page)).applied.some((c) => c.type === 'turn' && c.control === 'drive' && c.value > 0)).toBe(true);
});

test('an own kit is kept, carried away as a file and brought in again, and what is on the shelf survives a reload', async ({
  app,
  page,
}) => {
  await openSounds(app);
  await slider(app, 'Pitch').focus();
  await page.keyboard.press('PageUp');
  await app.button('Kit').click();
  await page.getByRole('textbox', { name: 'Name of the kit' }).fill('Curb');
  await page.getByRole('textbox', { name: 'Name of the kit' }).press('Tab');
  await page.getByRole('textbox', { name: 'Tags of the kit' }).fill('mine, loud');
  await app.button('Save kit').click();
  const [download] = await Promise.all([page.waitForEvent('download'), app.button('Export kit').click()]);
  expect(download.suggestedFilename()).toBe('Curb.chaffinch-kit.zip');
  const file = { name: 'Curb.chaffinch-kit.zip', mimeType: 'application/zip', buffer: readFileSync(await download.path()) }; // prettier-ignore
  await app.button('Take Curb off the shelf').click();
  await expect(page.getByText('None yet. What you save')).toBeVisible();
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), app.button('Bring in a kit').click()]);
  await chooser.setFiles(file);
  await expect(app.button('Export Curb')).toBeVisible();
  await expect.poll(async () => (await app.stored('shelf'))?.includes('Curb')).toBe(true);
  await page.reload();
  await app.button('Shelf').click();
  await app.button('Of these Own').click();
  await expect(item(app, 'Curb')).toBeVisible();
  await page.getByRole('searchbox', { name: 'Find a sound' }).fill('loud');
  await app.button('Try Curb').click();
  await app.button('Take it').click();
  await savedSound(app, 0, ({ sound }) => sound.settings.pitch === 10);
  // A damaged file says what is wrong, and nothing is lost.
  const [again] = await Promise.all([page.waitForEvent('filechooser'), (async () => { await page.keyboard.press('Escape'); await app.button('Kit').click(); await app.button('Bring in a kit').click(); })()]); // prettier-ignore
  await again.setFiles({ ...file, buffer: file.buffer.subarray(0, 200) });
  await expect(page.getByText(/could not be opened\. The zip is damaged/)).toBeVisible();
  await expect(app.button('Export Curb')).toBeVisible();
});

test('a track of notes has one sound: its voice, shaped', async ({ app, page }) => {
  const set = demoSet();
  await app.openSet({ ...set, stage: { ...set.stage, shown: 2 } });
  await app.page.getByRole('link', { name: 'Sounds', exact: true }).click();
  await expect(app.button('Preset')).toBeVisible();
  await expect(app.button('Kit')).toHaveCount(0);
  await slider(app, 'Filter').focus();
  await page.keyboard.press('ArrowLeft');
  await app.savedSet((set) => ((set.tracks[2] as Track).tones!.settings?.cutoff ?? 20000) < 20000);
  await expect.poll(async () => (await heard(page)).applied.some((c) => c.type === 'notes' && c.track === 2 && c.layout?.settings !== undefined)).toBe(true); // prettier-ignore
});

test('Sounds and its sheets are usable at every size', async ({ app, page }) => {
  await openSounds(app);
  for (const group of ['Out', 'Playing', 'Finer']) await app.button(group).click();
  await expectUsableEverywhere(page);
  for (const title of ['Shelf', 'Kit', 'Cuts off', 'Also plays', 'LFO']) {
    await app.button(title).click();
    await expect(page.getByRole('dialog', { name: title, exact: true })).toBeVisible();
    if (title === 'Also plays') await app.button('Also plays 2 Rim').click();
    if (title === 'LFO') await app.button('Add a wave').click();
    await expectUsableEverywhere(page, DIALOG);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
});
