import { demoSet, emptySet } from './support/sets';
import { expect, test } from './support/app';
import { heard, listen } from './support/ear';
import { cell, hitsOf, middle, openSheet, openSteps as open } from './support/steps';

const hits = hitsOf;

test('four taps make a kick on every beat; a swipe fills hats; from a filled step a swipe erases; each is one step of undo', async ({
  app,
  page,
}) => {
  await open(app);
  for (const beat of [1, 2, 3, 4]) {
    const { x, y } = await middle(app, `Kick bar 1 beat ${beat} step 1`);
    await page.touchscreen.tap(x, y);
  }
  await app.savedSet((s) => hits(s).length === 4);
  const from = await middle(app, 'Closed hat bar 1 beat 1 step 1');
  const to = await middle(app, 'Closed hat bar 1 beat 3 step 4');
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 2 }); // a fast finger leaps over steps
  await page.mouse.up();
  let set = await app.savedSet((s) => hits(s).length === 16);
  expect(hits(set).filter((h) => h.pad === 4).map((h) => h.tick)).toEqual(Array.from({ length: 12 }, (_, i) => i * 240)); // prettier-ignore
  const back = await middle(app, 'Closed hat bar 1 beat 2 step 3');
  await page.mouse.move(to.x, to.y);
  await page.mouse.down();
  await page.mouse.move(back.x, back.y, { steps: 3 });
  await page.mouse.up();
  set = await app.savedSet((s) => hits(s).length === 10);
  await app.undo.click();
  await app.savedSet((s) => hits(s).length === 16);
  await app.undo.click();
  await app.savedSet((s) => hits(s).length === 4);
});

test('painted while it plays, a step is heard at its next pass, on its tick', async ({ app, page }) => {
  await open(app, { ...emptySet(), tempo: 120 });
  await app.play.click();
  await listen(page, 0.3);
  const { x, y } = await middle(app, 'Snare bar 1 beat 3 step 3');
  await page.touchscreen.tap(x, y);
  await listen(page, 4.5);
  const { events } = await heard(page);
  const snares = events.filter((e) => e.kind === 'sounded').filter((e) => e.pad === 2);
  expect(snares.length).toBeGreaterThan(1);
  expect(snares.every((e) => e.placed % 3840 === 2400)).toBe(true);
});

test('fingers on the ruler and the labels scroll and never paint; on the cells they paint and never scroll', async ({
  app,
  page,
}) => {
  await open(app, demoSet());
  await app.button('Zoom in').click();
  const before = hits(await app.savedNow());
  const glass = await page.context().newCDPSession(page);
  const swipe = async (x: number, y: number, dx: number, dy: number) => {
    await glass.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ x, y }] });
    for (let i = 1; i <= 4; i++) {
      const touchPoints = [{ x: x + (dx * i) / 4, y: y + (dy * i) / 4 }];
      await glass.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints });
    }
    await glass.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  };
  const grid = (await page.getByRole('grid', { name: 'Steps' }).boundingBox())!;
  const label = (await app.button('Hear Kick').boundingBox())!;
  for (let i = 0; i < 25; i++) {
    await swipe(grid.x + 60 + (i % 5) * 40, grid.y - 14, i % 2 ? 160 : -160, 0);
    await swipe(label.x + 40, grid.y + 60 + (i % 5) * 40, 0, i % 2 ? -120 : 120);
  }
  const scrolled = await app.savedNow();
  expect(hits(scrolled)).toEqual(before);
  await page.waitForTimeout(500); // the cells' names follow once scrolling rests
  // Painting gestures: wherever they go, the picture stays where it is.
  const kick = await app.button('Hear Kick').boundingBox();
  const first = await page.getByRole('gridcell').first().getAttribute('aria-label');
  for (let i = 0; i < 50; i++) {
    await swipe(grid.x + 10 + (i % 7) * 30, grid.y + 20 + (i % 8) * 44, i % 2 ? 90 : -90, i % 3 ? 60 : -60);
  }
  expect(hits(await app.savedNow())).not.toEqual(hits(scrolled));
  expect(await app.button('Hear Kick').boundingBox()).toEqual(kick);
  expect(await page.getByRole('gridcell').first().getAttribute('aria-label')).toBe(first);
  expect(await page.evaluate(() => [scrollX, scrollY])).toEqual([0, 0]);
});

test('a cell of a lane out of view can be asked for by name: it comes into view and is painted', async ({ app }) => {
  await open(app);
  await cell(app, 'Crash bar 1 beat 3 step 1').click();
  const set = await app.savedSet((s) => hits(s).length === 1);
  expect(hits(set)[0]).toMatchObject({ pad: 10, tick: 1920 });
  await expect(cell(app, 'Crash bar 1 beat 3 step 1')).toHaveAttribute('aria-selected', 'true');
  await cell(app, 'Kick bar 1 beat 1 step 1').click();
  await app.savedSet((s) => hits(s).some((h) => h.pad === 0 && h.tick === 0));
});

test('two fingers paint at once, each along its own lane', async ({ app, page }) => {
  await open(app);
  const kick = await middle(app, 'Kick bar 1 beat 1 step 1');
  const hat = await middle(app, 'Closed hat bar 1 beat 2 step 1');
  const step = (await middle(app, 'Kick bar 1 beat 1 step 2')).x - kick.x;
  const glass = await page.context().newCDPSession(page);
  const send = (type: 'touchStart' | 'touchMove' | 'touchEnd', at: number[][]) =>
    glass.send('Input.dispatchTouchEvent', { type, touchPoints: at.map(([x, y], id) => ({ x: x!, y: y!, id })) });
  await send('touchStart', [[kick.x, kick.y]]);
  await send('touchStart', [[kick.x, kick.y], [hat.x, hat.y]]); // prettier-ignore
  for (const i of [1, 2, 3]) await send('touchMove', [[kick.x + i * step, kick.y], [hat.x + i * step, hat.y]]); // prettier-ignore
  await send('touchEnd', []);
  const set = await app.savedSet((s) => hits(s).length === 8);
  const ticks = (pad: number) => hits(set).filter((h) => h.pad === pad).map((h) => h.tick); // prettier-ignore
  expect([ticks(0), ticks(4)]).toEqual([[0, 240, 480, 720], [960, 1200, 1440, 1680]]); // prettier-ignore
});

test('a line drawn across the velocities is followed by every hit that it passes; rotate, clear, and back', async ({
  app,
  page,
}) => {
  const set = emptySet();
  set.tracks[0]!.patterns[0]!.hits = Array.from({ length: 16 }, (_, i) => ({ id: i + 1, pad: 0, tick: i * 240, length: 1, velocity: 0.5, snap: null })); // prettier-ignore
  await open(app, set);
  const lane = (await page.getByRole('img', { name: /^Velocities of Kick/ }).boundingBox())!;
  await page.mouse.move(lane.x + 2, lane.y + lane.height - 2);
  await page.mouse.down();
  await page.mouse.move(lane.x + lane.width - 2, lane.y + 2, { steps: 2 });
  await page.mouse.up();
  const drawn = await app.savedSet((s) => hits(s)[15]!.velocity > 0.85);
  const velocities = hits(drawn).map((h) => h.velocity);
  expect(velocities.every((v, i) => i === 0 || v > velocities[i - 1]!)).toBe(true);
  expect(velocities[0]).toBeLessThan(0.15);
  await openSheet(app, 'Edit');
  await app.button('Rotate right').click();
  const turned = await app.savedSet((s) => hits(s)[15]!.tick === 0);
  expect(hits(turned)[0]!.tick).toBe(240);
  await app.button('Clear lane').click();
  await app.savedSet((s) => hits(s).length === 0);
  for (let i = 0; i < 3; i++) await app.undo.click();
  expect(hits(await app.savedSet((s) => hits(s)[15]?.velocity === 0.5)).map((h) => h.velocity)).toEqual(Array(16).fill(0.5)); // prettier-ignore
});

test('a lane is muted and heard alone in the pattern, and its label is its pad all the while', async ({
  app,
  page,
}) => {
  const set = emptySet();
  const strokes = [0, 4].flatMap((pad) => Array.from({ length: 8 }, (_, i) => ({ pad, tick: i * 480 })));
  set.tracks[0]!.patterns[0]!.hits = strokes.map((hit, i) => ({ id: i + 1, length: 1, velocity: 0.8, snap: null, ...hit })); // prettier-ignore
  await open(app, set);
  await app.button('Hear Closed hat').click();
  await app.button('Mute Closed hat').click();
  await expect(app.button('Hear Closed hat')).toHaveAttribute('aria-description', 'muted');
  await app.play.click();
  await listen(page, 1.2);
  const pattern = async () => (await heard(page)).events.filter((e) => e.kind === 'sounded').filter((e) => !e.live);
  const muted = await pattern();
  expect(muted.length).toBeGreaterThan(2);
  expect(muted.every((e) => e.pad === 0)).toBe(true);
  await app.button('Mute Closed hat').click();
  await app.button('Solo Closed hat').click();
  const before = (await pattern()).length;
  await listen(page, 1.5);
  const solo = (await pattern()).slice(before + 1); // one may have been on its way
  expect(solo.length).toBeGreaterThan(2);
  expect(solo.every((e) => e.pad === 4)).toBe(true);
  await app.button('Hear Kick').click();
  await listen(page, 0.3);
  const live = (await heard(page)).events.filter((e) => e.kind === 'sounded').filter((e) => e.live);
  expect(live.map((e) => e.pad)).toEqual([4, 0]);
});

test('a finger held on a step opens it: every value of its hit, without erasing it', async ({ app, page }) => {
  await open(app, demoSet());
  const before = hits(await app.savedNow()).length;
  const { x, y } = await middle(app, 'Snare bar 1 beat 2 step 1');
  await page.mouse.move(x, y);
  await page.mouse.down();
  const sheet = page.getByRole('dialog', { name: 'Step' });
  await expect(sheet).toBeVisible();
  await page.mouse.up();
  await expect(sheet.getByText('Snare, bar 1 beat 2 step 1')).toBeVisible();
  await app.button('Roll 3').click();
  await app.strip('Odds').fill('40');
  await app.strip('Odds').press('Enter');
  const set = await app.savedSet((s) => hits(s).some((h) => h.roll && h.odds));
  expect(hits(set)).toHaveLength(before);
  expect(hits(set).find((h) => h.roll)).toMatchObject({ pad: 2, odds: 0.4, roll: { strokes: 3, over: 240 } });
  await expect(cell(app, 'Snare bar 1 beat 2 step 1')).toHaveAttribute('aria-description', /odds 40 %, roll of 3/);
  // A press that is short empties it.
  await app.button('Close step').click();
  await page.mouse.click(x, y);
  await app.savedSet((s) => hits(s).length === before - 1);
});

test('keys: arrows go from cell to cell and scroll along, Enter fills and empties', async ({ app, page }) => {
  await open(app);
  await page.getByRole('grid', { name: 'Steps' }).focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Enter');
  await expect(cell(app, 'Rim bar 1 beat 2 step 2')).toHaveAttribute('aria-selected', 'true');
  const set = await app.savedSet((s) => hits(s).length === 1);
  expect(hits(set)).toMatchObject([{ pad: 1, tick: 1200 }]);
  await page.keyboard.press('PageDown');
  await app.savedSet((s) => Math.abs(hits(s)[0]!.velocity - (0.8 - 5 / 127)) <= 0.5 / 127);
  await page.keyboard.press(' ');
  await app.savedSet((s) => hits(s).length === 0);
  await expect(app.play).toBeVisible(); // Space went to the cell, not to the transport
});
