import type { Move } from '@/core/document/moves';
import type { Track } from '@/core/document/track';
import { DIALOG, expectUsableEverywhere } from './support/access';
import { expect, test, type App } from './support/app';
import { touchItem } from './support/menu';
import { heard } from './support/ear';
import { demoSet } from './support/sets';
import { choose } from './support/steps';

const LAMPS = 3;
const slider = (app: App, name: string) => app.page.getByRole('slider', { name, exact: true });

/** Opens the sounds of the demo's track of chords. */
async function openVoices(app: App): Promise<void> {
  const set = demoSet();
  await app.openSet({ ...set, stage: { ...set.stage, shown: LAMPS } });
  await app.page.getByRole('link', { name: 'Sounds', exact: true }).click();
  await expect(app.button('Preset')).toBeVisible();
}

const savedTones = (app: App, is: (tones: NonNullable<Track['tones']>) => boolean) =>
  app.savedSet((set) => is((set.tracks[LAMPS] as Track).tones!));

test('a voice is found by tags and words, tried in place, taken, and taken back', async ({ app, page }) => {
  await openVoices(app);
  const before = demoSet().tracks[LAMPS]!.tones!;
  await app.button('Shelf').click();
  // It begins with presets of the voice that is there now.
  const list = page.getByRole('list', { name: 'Voices' });
  await expect(list.getByRole('listitem')).toHaveCount(6);
  await app.button('Tag electric piano').click();
  await app.button('Tag pad').click();
  await expect(list.getByRole('listitem').first()).toHaveAttribute('aria-label', 'Mist');
  await app.play.click();
  await app.button('Try Frost').click();
  await expect(app.button('Preset')).toContainText('Frost');
  const layouts = async () => (await heard(page)).applied.flatMap((command) => (command.type === 'notes' && command.track === LAMPS ? [command.layout?.preset] : [])); // prettier-ignore
  await expect.poll(layouts).toContain('frost');
  await expectUsableEverywhere(page, DIALOG);
  await app.button('Leave it').click();
  expect((await app.savedNow()).tracks[LAMPS]!.tones).toEqual(before);
  await app.button('Try Dusk').click();
  await app.button('Take it').click();
  await savedTones(app, ({ voice, preset, root }) => voice === 'pad' && preset === 'dusk' && root === before.root);
  await app.undo.click();
  await savedTones(app, ({ voice }) => voice === before.voice);
});

test('while the song stands still, a voice that is tried plays a phrase of its own', async ({ app, page }) => {
  await openVoices(app);
  await page.evaluate(() => {
    const { start } = AudioBufferSourceNode.prototype;
    const phrases: number[] = ((window as unknown as { phrases: number[] }).phrases = []);
    AudioBufferSourceNode.prototype.start = function (this: AudioBufferSourceNode, ...when) {
      phrases.push(this.buffer!.duration);
      start.apply(this, when);
    };
  });
  await app.button('Preset').click();
  await app.button('Try Lantern').click();
  // Two bars of four beats at 100 BPM: 4.8 s, and what still rings.
  const phrases = () => page.evaluate(() => (window as unknown as { phrases: number[] }).phrases);
  await expect.poll(phrases, { timeout: 20_000 }).toEqual([expect.any(Number)]);
  expect((await phrases())[0]).toBeGreaterThanOrEqual(4.8);
});

async function backToItsOwn(app: App): Promise<void> {
  await app.button('Sound menu').click();
  await touchItem(app.page, 'Back to its own');
  await savedTones(app, ({ settings }) => Object.keys(settings ?? {}).length === 0);
}

test('five strips shape a voice; one of its notes at a time, or several; all of it goes back to its own', async ({
  app,
  page,
}) => {
  await openVoices(app);
  for (const name of ['Bright', 'Motion', 'Attack', 'Release', 'Width']) await expect(slider(app, name)).toBeVisible();
  await backToItsOwn(app);
  await slider(app, 'Bright').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(slider(app, 'Bright')).toHaveAttribute('aria-valuetext', '10 %');
  const release = page.getByRole('spinbutton', { name: 'Release number' });
  await release.fill('1200');
  await release.press('Enter');
  await app.button('Playing').click();
  await app.button('Notes at once One at a time').click();
  await savedTones(
    app,
    ({ settings }) => settings?.bright === 0.1 && settings.release === 1.2 && settings.mono === true,
  );
  await app.button('Notes at once Several').click();
  await savedTones(app, ({ settings }) => settings?.mono === undefined);
  await backToItsOwn(app);
  await expectUsableEverywhere(page);
});

test('a finger that slides up on a note it holds presses its key, sideways it makes it brighter; recorded, the pattern does both again', async ({
  app,
  page,
}) => {
  const set = demoSet();
  await app.openSet({ ...set, stage: { ...set.stage, shown: LAMPS } });
  await app.record.click();
  await app.play.click();
  // While the song is counted in, nothing is written.
  await expect(app.position).toHaveText(/^[2-9]\./);
  const { x, y, width, height } = (await app.pad(6).boundingBox())!;
  await page.mouse.move(x + width / 2, y + height * 0.8);
  await page.mouse.down();
  for (const up of [0.75, 0.6, 0.4, 0.2]) await page.mouse.move(x + width / 2, y + height * up);
  await page.mouse.move(x + width / 2 + height * 0.45, y + height * 0.2);
  await page.mouse.up();
  // The set is saved while the finger is on its way, too.
  const isOver = ({ control, points }: Move) => control === 'bright' && points.length > 1 && points.at(-1)!.value === 0;
  const pressed = await app.savedSet((saved) => (saved.tracks[LAMPS] as Track).patterns.some((pattern) => pattern?.moves?.some(isOver))); // prettier-ignore
  const moves = (pressed.tracks[LAMPS] as Track).patterns.flatMap((pattern) => pattern?.moves ?? []);
  const { points, ...moved } = moves.find(({ control }) => control === 'pressure')!;
  expect(moved).toEqual({ pad: 5, control: 'pressure' });
  expect(points.at(0)!.value).toBe(0);
  expect(points.at(-1)!.value).toBe(0);
  expect(Math.max(...points.map(({ value }) => value))).toBeCloseTo((0.8 - 0.2 - 0.08) / 0.6, 1);
  const slid = moves.find(({ control }) => control === 'bright')!;
  expect(slid).toMatchObject({ pad: 5, control: 'bright' });
  expect(slid.points.map(({ value }) => Math.round(10 * value))).toEqual(expect.arrayContaining([0, 5, 0]));
  // The lane of Moves has it too, of the note that was played.
  await page.getByRole('link', { name: 'Steps', exact: true }).click();
  await choose(app, 'Moves lane', 'Pressure');
  await expect(page.getByRole('img', { name: /^Moves of pressure of / })).toBeVisible();
});
