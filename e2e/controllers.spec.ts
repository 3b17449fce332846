import { readFile } from 'node:fs/promises';
import { expect, test, type App } from './support/app';
import { touchItem } from './support/menu';
import { DIALOG, expectUsable } from './support/access';
import { heard, listen, of, stall } from './support/ear';
import { giveMidi, Midi } from './support/midi';
import { choose, chooseByKeys } from './support/steps';

const PADS = 'Pads of the rink';
const open = async (app: App, place: string) => {
  await app.open();
  if (place !== '/pads') await app.page.goto(place);
  await expect(app.play).toBeVisible();
};

/** Opens the app with a device plugged in. */
async function plugged(app: App, name = PADS): Promise<Midi> {
  await giveMidi(app.page);
  await app.open();
  await app.menu('Devices');
  await app.button('Connect controllers').click();
  const midi = new Midi(app.page);
  await expect(app.page.getByText(/Nothing is plugged in yet/)).toBeVisible();
  await midi.plug(name);
  await expect(app.page.getByRole('region', { name, exact: true })).toBeVisible();
  return midi;
}

test('where the browser has no Web MIDI, or it was refused, a sentence says what to do', async ({ app, page }) => {
  await giveMidi(page, { none: true });
  await app.open();
  await app.menu('Devices');
  await app.button('Connect controllers').click();
  await expect(page.getByText(/This browser has no Web MIDI/)).toBeVisible();
  const other = await page.context().newPage();
  await giveMidi(other, { refuse: 'NotAllowedError' });
  await other.goto('/pads');
  await other.getByRole('button', { name: 'Set menu', exact: true }).click();
  await touchItem(other, 'Devices');
  await other.getByRole('button', { name: 'Connect controllers' }).click();
  await expect(other.getByText(/Controllers were refused to this page/)).toBeVisible();
});

test('pads of a device strike at their own time stamps, also while the page stands still; unplugged, nothing goes on', async ({
  app,
  page,
}) => {
  const midi = await plugged(app);
  await page.keyboard.press('Escape');
  await app.play.click();
  await listen(page, 0.5);
  // Thirty strokes 40 ms apart, told of together, after the page has stood still for 400 ms.
  const before = of((await heard(page)).events, 'sounded').filter(({ live }) => live).length;
  const times = Array.from({ length: 30 }, (_, i) => -1200 + 40 * i);
  const notes = times.flatMap((_, i) => [[0x90, 36 + (i % 16), 100], [0x80, 36 + (i % 16), 0]]); // prettier-ignore
  await stall(page, 400, 1);
  await midi.send(PADS, notes, times.flatMap((at) => [at, at + 10])); // prettier-ignore
  await listen(page, 0.5);
  const struck = of((await heard(page)).events, 'sounded').filter(({ live }) => live).slice(before); // prettier-ignore
  expect(struck.map(({ pad }) => pad)).toEqual(times.map((_, i) => i % 16));
  const rate = await page.evaluate(() => (window as unknown as { ear: { context: AudioContext } }).ear.context.sampleRate); // prettier-ignore
  // Struck as far apart as the time stamps are, within half a millisecond. Each time that a busy machine had the clocks read anew in the
  // middle, one distance is another; by when they came all of them would be.
  const off = struck.slice(1).map(({ heard: frame }, i) => Math.abs(((frame - struck[i]!.heard) / rate) * 1000 - 40));
  expect(off.filter((ms) => ms >= 0.5).length).toBeLessThanOrEqual(4);

  await midi.send(PADS, Array.from({ length: 8 }, (_, i) => [0x90, 36 + i, 90])); // prettier-ignore
  await midi.unplug(PADS);
  await expect(page.getByText(`${PADS} was unplugged: what it held is let go.`)).toBeVisible();
  await listen(page, 0.3);
  const { applied } = await heard(page);
  const held = new Set<number>();
  for (const command of applied) {
    if (command.type === 'padDown') held.add(command.pad);
    if (command.type === 'padUp') held.delete(command.pad);
  }
  expect([...held]).toEqual([]);
  // Plugged in again it is met as it was; after a reload it is connected by itself.
  await midi.plug(PADS);
  await midi.send(PADS, [[0x90, 40, 90], [0x80, 40, 0]]); // prettier-ignore
  await app.open();
  await new Midi(page).plug(PADS);
  await app.menu('Devices');
  await expect(page.getByRole('region', { name: PADS, exact: true })).toBeVisible();
});

test('the monitor says what arrives; a device plays what it is set to, and stays so', async ({ app, page }) => {
  const midi = await plugged(app);
  await midi.send(PADS, [[0x90, 38, 96]]); // prettier-ignore
  await expect(page.getByRole('log', { name: 'Monitor' })).toContainText(/pad 3, velocity 96.*ms ago/);
  await midi.send(PADS, [[0xe0, 0, 0x50], [0xf8], [0xb0, 64, 127]]); // prettier-ignore
  await expect(page.getByRole('log', { name: 'Monitor' })).toContainText(/control 64 at 127, channel 1/);
  await app.button(`Settings of ${PADS}`).click();
  await expectUsable(page, DIALOG);
  await choose(app, `${PADS} plays`, 'Controls only');
  await midi.send(PADS, [[0x90, 38, 96]]); // prettier-ignore
  await expect(page.getByRole('log', { name: 'Monitor' })).toContainText(/^note 38, velocity 96/);
  // Ten strokes teach how hard they are meant.
  await app.button(`Learn velocity of ${PADS}`).click();
  for (let i = 0; i < 10; i++) await midi.send(PADS, [[0x90, 38, 40 + 5 * i], [0x80, 38, 0]]); // prettier-ignore
  await expect(page.getByText('Learnt: 40 is soft and 85 hard.')).toBeVisible();
  await app.button('Panic').click();
  expect((await midi.got(PADS)).some(({ bytes }) => bytes.join(' ') === '176 123 0 176 120 0')).toBe(true);
  await app.open();
  await new Midi(page).plug(PADS);
  await app.menu('Devices');
  await expect(app.button(`Settings of ${PADS}`)).toContainText('Controls only');
});

test('touch something and move a control; what the control works besides is shown; the map is carried away and brought in', async ({
  app,
  page,
}) => {
  const midi = await plugged(app, 'Desk');
  await app.button('Map a control').click();
  const bar = page.getByRole('region', { name: 'Mapping' });
  await page.getByRole('link', { name: 'Launch', exact: true }).click();
  await app.button('Mute Wheels').click();
  await expect(bar).toContainText('Mute track 1: now move a control.');
  await midi.send('Desk', [[0xb0, 50, 127], [0xb0, 50, 0]]); // prettier-ignore
  await expect(bar).toContainText('Control 50 of Desk: Mute track 1.');
  await expect(app.button('Mute Wheels')).toHaveAttribute('aria-pressed', 'false'); // it only was mapped
  // The other way round, and the same control for another function: nothing is taken away.
  await app.button('Stop all').click();
  await midi.send('Desk', [[0xb0, 50, 127], [0xb0, 50, 0]]); // prettier-ignore
  await expect(bar).toContainText('It works this too: Mute track 1.');
  await app.button('Not this').click();
  // A key of the computer is a control like any other.
  await app.button('Stop all').click();
  await page.keyboard.press('p');
  await expect(page.getByText('P is the key of Stop all now.')).toBeVisible();
  await app.button('Done mapping').click();
  await expect(bar).toHaveCount(0);
  await midi.send('Desk', [[0xb0, 50, 127], [0xb0, 50, 0]]); // prettier-ignore
  await expect(app.button('Mute Wheels')).toHaveAttribute('aria-pressed', 'true');

  await app.menu('Devices');
  await app.button('Settings of Desk').click();
  const [download] = await Promise.all([page.waitForEvent('download'), app.button('Export map of Desk').click()]);
  const text = await readFile(await download.path(), 'utf8');
  expect(JSON.parse(text)).toMatchObject({ name: 'Desk', bindings: [{ target: { do: 'mute', row: 0 } }] });
  await app.button('Forget Desk').click();
  const bringIn = async (content: string) => {
    const [chooser] = await Promise.all([page.waitForEvent('filechooser'), app.button('Bring in map of Desk').click()]);
    await chooser.setFiles({ name: 'desk.json', mimeType: 'application/json', buffer: Buffer.from(content) });
  };
  await bringIn('{"what": "a cake"}');
  await expect(page.getByText(/“desk.json”: This is no controller map/)).toBeVisible();
  await bringIn(text);
  await expect(page.getByText(/Desk has the map of “desk.json”: 1 controls/)).toBeVisible();
});

test('the bench: its pads are devices like real ones, are lit, and misbehave on request', async ({ app, page }) => {
  await open(app, '/bench');
  const pads = page.getByRole('region', { name: 'Simulated pads' });
  const grid = page.getByRole('region', { name: 'Simulated grid' });
  await expect(app.button('Unplug Simulated pads')).toBeVisible();
  for (const name of ['knobs', 'keyboard', 'clock', 'module']) {
    await expect(page.getByRole('region', { name: `Simulated ${name}` })).toBeVisible();
  }
  const pad = pads.getByRole('button', { name: 'Pad 3', exact: true });
  await pad.click();
  // A pad that there is, is lit; the first pattern of the first track plays from the start.
  await expect(pad).not.toHaveAttribute('data-light', '0');
  await app.play.click();
  const card = grid.getByRole('button', { name: 'Button 57', exact: true });
  await expect(card).toHaveAttribute('data-light', /^[2468]0?$|^1\d$/);
  const dim = await grid.getByRole('button', { name: 'Button 58', exact: true }).getAttribute('data-light');
  await grid.getByRole('button', { name: 'Button 58', exact: true }).click();
  // Bright is the next number of the same colour.
  await expect(grid.getByRole('button', { name: 'Button 58', exact: true })).toHaveAttribute('data-light', String(Number(dim) + 1)); // prettier-ignore
  await app.stop.first().click();
  await choose(app, 'Faults of Simulated pads', 'Clock bytes inside messages');
  await page.keyboard.press('Escape');
  await pad.click();
  await listen(page, 0.3);
  const live = of((await heard(page)).events, 'sounded').filter((event) => event.live);
  expect(live.map((event) => event.pad)).toEqual([2, 2]);
  await expectUsable(page);
  await app.button('Unplug Simulated pads').click();
  await expect(app.button('Plug in Simulated pads')).toBeVisible();
});

test('a track plays a module at the times of the song, each note ended; the module and the clock keep time with it', async ({
  app,
  page,
}) => {
  await open(app, '/bench');
  await app.button('Devices').click();
  await app.button('Settings of Simulated module').click();
  await app.button('A track plays Simulated module').click();
  await app.button('Simulated module gets the clock').click();
  await expectUsable(page, DIALOG);
  await page.keyboard.press('Escape');
  await app.play.click();
  const module = page.getByRole('region', { name: 'Simulated module' });
  await expect(module.getByRole('log')).toContainText(/note 36, velocity \d+, channel 10/);
  await app.stop.first().click();
  await expect(module).toContainText('No note is held.');
  await expect(module.getByRole('log')).toContainText('stop');

  // And the other way: the song follows a clock that jitters and loses ticks.
  await app.button('Devices').click();
  await app.button('Settings of Simulated clock').click();
  await app.button('The song follows the clock of Simulated clock').click();
  await page.keyboard.press('Escape');
  await app.strip('Clock tempo').fill('97');
  await app.strip('Clock tempo').press('Enter');
  await app.strip('Clock jitter').fill('2');
  await app.strip('Clock jitter').press('Enter');
  await app.button('Start the clock').click();
  await expect(app.stop.first()).toBeVisible();
  await expect.poll(async () => (await app.savedNow()).tempo, { timeout: 20_000 }).toBeCloseTo(97, 0);
  await app.button('Devices').click();
  await expect(page.getByText(/The song follows Simulated clock at 9[67][.\d]* BPM, steady within \d/)).toBeVisible();
  await page.keyboard.press('Escape');
  await app.button('Stop the clock').click();
  await expect(app.play).toBeVisible();
});

test('a map is made, changed and taken away by keys alone', async ({ app, page }) => {
  await plugged(app, 'Desk');
  const press = async (name: string) => {
    await app.button(name).focus();
    await page.keyboard.press('Enter');
  };
  await press('All maps');
  await chooseByKeys({ app, key: 'Device', item: 'Desk' });
  await page.getByRole('spinbutton', { name: 'Number of the control' }).focus();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('33');
  await page.keyboard.press('Enter');
  await chooseByKeys({ app, key: 'Function', item: 'Mute a track' });
  await press('Map this');
  const line = page.getByRole('button', { name: 'Control 33: Mute the shown track', exact: true });
  await expect(line).toBeVisible();
  await line.focus();
  await page.keyboard.press('Enter');
  await expectUsable(page, DIALOG);
  await chooseByKeys({ app, key: 'Button', item: 'While held' });
  await expect(app.button('Button')).toContainText('While held');
  await press('Unmap Control 33: Mute the shown track');
  await expect(page.getByText('Nothing is mapped yet.')).toBeVisible();
});

test('a key is given to any function; the one that had it is told of', async ({ app, page }) => {
  await app.open();
  await page.keyboard.press('Shift+?');
  await app.button('Key of Undo').click();
  await page.keyboard.press('m');
  await expect(page.getByText('M is the key of Undo now; Metronome has none.')).toBeVisible();
  await choose(app, 'Functions of', 'Launch');
  await choose(app, 'Function', 'Launch a pattern');
  await choose(app, 'Track', /^1 /);
  await app.button('Key of Launch pattern 1 of track 1').click();
  await page.keyboard.press('p');
  await app.button('No key for Undo').click();
  await expect(app.button('Key of Undo')).toContainText('–');
  await expectUsable(page, DIALOG);
  await page.keyboard.press('Escape');
  await app.play.click();
  await page.keyboard.press('p');
  await listen(page, 0.2);
  const launches = (await heard(page)).applied.filter(({ type }) => type === 'launch' || type === 'cancelLaunch');
  expect(launches.length).toBeGreaterThan(0);
});
