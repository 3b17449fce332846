import { isOfReturn, type Move } from '@/core/document/moves';
import { FIRST_ROOM } from '@/core/document/mix';
import type { Track } from '@/core/document/track';
import { DIALOG, expectReadableInOtherThemes, expectUsableEverywhere } from './support/access';
import { expect, test, type App } from './support/app';
import { heard } from './support/ear';
import { unmixedSet } from './support/sets';
import { choose } from './support/steps';

const slider = (app: App, name: string) => app.page.getByRole('slider', { name, exact: true });
const WHEELS = 0;

/** The Moves of the echo and the room that a track's patterns have. */
const returnMoves = ({ patterns }: Track) => patterns.flatMap((pattern) => (pattern?.moves ?? []).filter(isOfReturn));

async function openMix(app: App): Promise<void> {
  await app.page.getByRole('link', { name: 'Sounds', exact: true }).click();
  await app.button('Mix').click();
  await expect(app.page.getByRole('dialog', { name: 'Mix', exact: true })).toBeVisible();
}

/** Records in the place Mix, where what is turned is written as Moves, once the demo's count-in is over. */
async function writeInMix(app: App): Promise<void> {
  await app.open();
  await app.record.click();
  await app.play.click();
  await openMix(app);
  await app.button('Write Moves').click();
  await expect(app.position).toHaveText(/^[2-9]\./);
}

/** What was set of the mix, by the log of the engine. */
const told = async (app: App) =>
  (await heard(app.page)).applied.flatMap((command) => {
    if (command.type === 'channel') return [`${command.channel} ${command.control} ${command.value}`];
    if (command.type === 'padGoesTo') return [`${command.track} pad ${command.pad} to ${command.group}`];
    if (command.type === 'goesTo') return [`${command.channel} to ${command.group}`];
    if (command.type === 'duckedBy') return [`${command.channel} under ${command.track} ${command.pad}`];
    if (command.type === 'room') return [`room ${command.size} s after ${command.preDelay} ms`];
    return command.type === 'echo'
      ? [`echo ${command.ticks} ticks ${command.ms} ms${command.tape ? ' bent' : ''}`]
      : [];
  });

test('levels are dragged and typed, and heard; the loudness is a number; a muted track is silent', async ({
  app,
  page,
}) => {
  await app.open();
  await openMix(app);
  const loudness = page.getByRole('status', { name: 'Loudness' });
  await expect(loudness).toContainText('silent');
  await app.play.click();
  await expect(loudness).toContainText(/-[12]\d\.\d LUFS/);
  // The wing bar goes where the finger is: half of the strip is 12 dB down.
  const box = (await slider(app, 'Wheels level').boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + 12);
  await expect(slider(app, 'Wheels level')).toHaveAttribute('aria-valuetext', /^-1[12]\.\d dB$/);
  const number = app.strip('Wheels level number');
  await number.click();
  await expect.poll(() => number.evaluate((field: HTMLInputElement) => field.selectionEnd! - field.selectionStart!)).toBeGreaterThan(3); // prettier-ignore
  await page.keyboard.type('-6');
  await app.strip('Wheels level number').press('Enter');
  const set = await app.savedSet(({ tracks }) => Math.abs(tracks[WHEELS]!.level - 10 ** (-6 / 20)) < 1e-6);
  expect(set.tracks[1]!.level).toBeGreaterThan(0);
  await slider(app, 'Wheels level').press('End');
  await expect(slider(app, 'Wheels level')).toHaveAttribute('aria-valuetext', '0.0 dB');
  await app.button('Mute Wheels').click();
  await expect(app.button('Mute Wheels')).toHaveAttribute('aria-pressed', 'true');
  await expect(loudness).toContainText(/silent|-[3-9]\d\.\d LUFS/);
});

test('what a channel does is set, heard, kept and undone; tracks go to a group; echo and room are told', async ({
  app,
  page,
}) => {
  await app.openSet(unmixedSet());
  const before = (await app.savedNow()).tracks[WHEELS];
  await openMix(app);
  await app.play.click();
  await app.button('Channel of Wheels').click();
  await slider(app, 'Wheels pan').press('Home');
  await slider(app, 'Wheels Echo').press('End');
  await slider(app, 'Wheels Drive').press('End');
  await app.button('Equaliser of Wheels').click();
  await app.strip('Wheels Low number').fill('-9');
  await app.strip('Wheels Low number').press('Enter');
  await app.button('Compressor of Wheels').click();
  await slider(app, 'Wheels Ratio').press('End');
  await expect
    .poll(() => told(app))
    .toEqual(expect.arrayContaining(['0 pan -1', '0 echo 1', '0 drive 1', '0 low -9', '0 ratio 20']));
  // What begins to duck is heard to do so at once.
  await app.button('Ducking of Wheels').click();
  await choose(app, 'Ducks under', 'All of Kerb');
  await expect(slider(app, 'Wheels Is back in')).toBeVisible();
  await expect.poll(() => told(app)).toEqual(expect.arrayContaining(['0 under 2 -1', '0 duck 10']));
  await choose(app, 'Ducks under', 'Nothing');
  await expect.poll(() => told(app)).toContain('0 under -1 -1');
  await choose(app, 'Goes to', 'A new group');
  const group = page.getByRole('group', { name: 'Mix of Group 1' });
  await expect(group).toBeVisible();
  // A group is muted by muting all that goes through it.
  for (const is of ['true', 'false']) {
    await app.button('Mute Group 1').click();
    for (const name of ['Group 1', 'Wheels'])
      await expect(app.button(`Mute ${name}`)).toHaveAttribute('aria-pressed', is);
    await expect(app.button('Mute Kerb')).toHaveAttribute('aria-pressed', 'false');
  }
  await choose(app, 'Echo time', '1/4');
  await expect.poll(() => told(app)).toEqual(expect.arrayContaining(['0 to 0', 'echo 960 ticks 0 ms']));
  await choose(app, 'Echo time', 'In ms');
  await app.strip('Echo ms number').fill('250');
  await app.strip('Echo ms number').press('Enter');
  await expect.poll(() => told(app)).toContain('echo 0 ticks 250 ms');
  await app.button('To a new time Pitch bends').click();
  await expect.poll(() => told(app)).toContain('echo 0 ticks 250 ms bent');
  await slider(app, 'Room size').press('End');
  await app.strip('Room pre-delay number').fill('35');
  await app.strip('Room pre-delay number').press('Enter');
  await expect.poll(() => told(app)).toContain('room 4 s after 35 ms');
  // All of it is kept.
  const kept = await app.savedSet(({ mix }) => mix?.echo?.time === 250 && mix.room?.preDelay === 35);
  const { channel, goesTo } = kept.tracks[WHEELS] as Track;
  expect(kept.mix?.echo?.tape).toBe(true);
  expect(channel).toEqual({ pan: -1, echo: 1, drive: 1, low: -9, ratio: 20, duck: 10 });
  expect([goesTo, kept.mix?.groups?.map(({ id, name }) => [id, name])]).toEqual([0, [[0, 'Group 1']]]);
  await app.open();
  await openMix(app);
  await app.button('Channel of Group 1').click();
  await page.getByRole('textbox', { name: 'Group name' }).fill('Drums');
  await page.getByRole('textbox', { name: 'Group name' }).press('Enter');
  await app.button('Channel of Drums').click();
  await app.button('Channel of Wheels').click();
  await expect(app.button('Goes to')).toContainText('Drums');
  await expect(slider(app, 'Wheels pan')).toHaveAttribute('aria-valuenow', '-100');
  // A double touch brings a strip back; what was made can be undone, step by step.
  const pan = (await slider(app, 'Wheels pan').boundingBox())!;
  await page.mouse.dblclick(pan.x + 60, pan.y + 20);
  await expect(slider(app, 'Wheels pan')).toHaveAttribute('aria-valuenow', '0');
  while (await app.undo.isEnabled()) await app.undo.click();
  expect((await app.savedNow()).tracks[WHEELS]).toEqual(before);
});

test('pads are chosen on the board and go to a group of their own, which is muted, undone and removed', async ({
  app,
  page,
}) => {
  await app.openSet(unmixedSet());
  await openMix(app);
  await app.button('Channel of Wheels').click();
  await app.button('Pads apart of Wheels').click();
  const pads = (...names: string[]) => page.getByRole('button', { name: new RegExp(`^Pad apart \\d+ (${names.join('|')})$`) }); // prettier-ignore
  for (const hat of await pads('Closed hat', 'Open hat').all()) await hat.click();
  await choose(app, 'Pads go to', 'A new group');
  for (const hat of await pads('Closed hat', 'Open hat').all()) await expect(hat).toContainText('Group 1');
  await pads('Kick').click();
  await choose(app, 'Pads go to', 'A new group');
  const ways = ['0 pad 0 to 1', '0 pad 4 to 0', '0 pad 6 to 0'];
  await expect.poll(() => told(app)).toEqual(expect.arrayContaining(ways));
  const kept = await app.savedSet(({ tracks }) => (tracks[WHEELS] as Track).padsTo?.length === 3);
  expect((kept.tracks[WHEELS] as Track).padsTo?.map(({ pad, group }) => `0 pad ${pad} to ${group}`)).toEqual(ways);
  // What patterns play on them is muted at once, and told in Steps.
  await app.button('Mute Group 1').click();
  await expect(app.button('Mute Group 1')).toHaveAttribute('aria-pressed', 'true');
  await app.savedSet(({ tracks }) => (tracks[WHEELS] as Track).mutedPads?.join() === '4,6');
  await app.button('Mute Group 1').click();
  await app.savedSet(({ tracks }) => (tracks[WHEELS] as Track).mutedPads?.length === 0);
  await expectUsableEverywhere(page, DIALOG);
  // A group that is removed lets them go with their track again; undo brings it back with them.
  await app.button('Channel of Group 2').click();
  await app.button('Remove group Group 2').click();
  await app.savedSet(({ tracks }) => (tracks[WHEELS] as Track).padsTo?.length === 2);
  await app.undo.click();
  await app.savedSet(({ tracks }) => (tracks[WHEELS] as Track).padsTo?.length === 3);
  await app.open();
  await openMix(app);
  await expect(app.button('Channel of Group 2')).toBeVisible();
});

test('Mix is usable at every size, with a channel open, and readable in every theme', async ({ app, page }) => {
  await app.open();
  await openMix(app);
  await expectUsableEverywhere(page, DIALOG);
  await app.button('Channel of Kerb').click();
  for (const name of ['Equaliser of Kerb', 'Compressor of Kerb']) await app.button(name).click();
  await choose(app, 'Goes to', 'A new group');
  await app.button('Channel of Group 3').click();
  await expectUsableEverywhere(page, DIALOG);
  await expectReadableInOtherThemes(page, DIALOG);
});

test('while Moves are written, a send that is ridden becomes the pattern’s; the lane shows it, and the hand has it until it lets go', async ({
  app,
  page,
}) => {
  await writeInMix(app);
  await app.button('Channel of Wheels').click();
  const { x, y, width, height } = (await slider(app, 'Wheels Echo').boundingBox())!;
  await page.mouse.move(x + 4, y + height / 2);
  await page.mouse.down();
  for (const share of [0.2, 0.4, 0.6, 0.8]) {
    const bar = await app.position.innerText();
    await page.mouse.move(x + width * share, y + height / 2);
    // The song goes on between two movements of the hand.
    await expect(app.position).not.toHaveText(bar);
  }
  await page.mouse.up();
  // The set is saved while the hand is on its way, too.
  const isWhole = (move: Move) => 'on' in move && move.points.some(({ value }) => value > 0.75);
  const saved = await app.savedSet(({ tracks }) => (tracks[WHEELS] as Track).patterns.some((pattern) => pattern?.moves?.some(isWhole))); // prettier-ignore
  const track = saved.tracks[WHEELS] as Track;
  expect(track.channel?.echo).toBeUndefined();
  const move = track.patterns.flatMap((pattern) => pattern?.moves ?? []).find((one) => 'on' in one)!;
  expect(move).toMatchObject({ on: 'track', control: 'echo' });
  expect(Math.max(...move.points.map(({ value }) => value))).toBeCloseTo(0.8, 1);
  // What is moved says so, and is ridden from now on: its setting stays.
  await expect(page.getByText('Echo · Moves')).toBeVisible();
  await app.record.click();
  // A line goes where the Moves have it, from bar to bar, and the fill stays at what it is set to.
  const line = page.locator('[data-moved="track echo"] > div');
  const places = new Set<string>();
  await expect
    .poll(async () => places.add(await line.evaluate(({ style }) => `${style.opacity} ${style.transform}`)).size)
    .toBeGreaterThan(2);
  for (const place of places) expect(place).toMatch(/^1 translateX\((\d|[1-7]\d|80)(\.\d+)?%\)$/);
  await slider(app, 'Wheels Echo').press('End');
  const ridden = (await heard(app.page)).applied.flatMap((command) => (command.type === 'ride' ? [command.value] : []));
  expect(ridden.slice(-2)).toEqual([1, NaN]);
  await expectUsableEverywhere(page, DIALOG);
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Steps', exact: true }).click();
  await choose(app, 'Moves lane', 'Track Echo');
  await expect(page.getByRole('img', { name: /^Moves of track echo of Wheels: .*80 %/ })).toBeVisible();
});

test('while Moves are written, the echo’s time and the room that are changed become the pattern’s, and play so', async ({
  app,
  page,
}) => {
  await writeInMix(app);
  await choose(app, 'Echo time', '1/4');
  await slider(app, 'Room size').press('End');
  const saved = await app.savedSet(({ tracks }) => returnMoves(tracks[WHEELS] as Track).length >= 2);
  expect(returnMoves(saved.tracks[WHEELS] as Track)).toEqual([
    { on: 'echo', control: 'time', points: [{ tick: expect.any(Number), value: 6 }] },
    { on: 'room', control: 'size', points: [{ tick: expect.any(Number), value: 4 }] },
  ]);
  expect(saved.mix?.room ?? FIRST_ROOM).not.toHaveProperty('size', 4);
  await expect(page.getByText('Comes after · Moves')).toBeVisible();
  await expect(page.getByText('Size · Moves')).toBeVisible();
  const told = (await heard(page)).applied.filter(({ type }) => type === 'rideReturn');
  expect(told).toMatchObject([{ on: 'echo', control: 'time', value: 6 }, { value: NaN }, { on: 'room', control: 'size', value: 4 }, { value: NaN }]); // prettier-ignore
  await app.record.click();
  // From now on what is chosen is what holds where nothing moves it.
  await choose(app, 'Echo time', '1/2');
  await app.savedSet(({ mix }) => mix?.echo?.time === '1/2');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Steps', exact: true }).click();
  await choose(app, 'Moves lane', 'Echo time');
  await expect(page.getByRole('img', { name: /^Moves of echo time of Wheels: [0-9]+: 1\/4$/ })).toBeVisible();
  await choose(app, 'Moves lane', 'Record Moves');
  await choose(app, 'Moves of', 'Room');
  await expect(page.getByRole('spinbutton', { name: 'Room size', exact: true })).toHaveValue('4');
  await expectUsableEverywhere(page, DIALOG);
});
