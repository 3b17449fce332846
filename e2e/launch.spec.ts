import { tracksOf } from '@/core/document/set';
import { demoSet, emptySet } from './support/sets';
import { lanesOf } from '@/core/document/lanes';
import { LIMITER_LATENCY } from '@/core/sound/limiter';
import { expect, test } from './support/app';
import { heard, listen, of } from './support/ear';
import { band, dropOn, openLaunch, says } from './support/launch';
import { typeInto } from './support/steps';
import type { EngineEvent } from '@/core/protocol/events';

const BEAT = 960;
const BAR = 3840;
const SILENT = -1;
const loops = (events: readonly EngineEvent[]) => of(events, 'loop');
/** BPM at which even a slow machine touches what waits before it drops. */
const SLOW = 40;

/** The changes of what plays since the song began, as [track, slot, bar]. */
const changes = (events: readonly EngineEvent[]) => {
  const start = events.find((e) => e.kind === 'anchor' && e.playing)!.frame;
  return loops(events).filter((e) => e.frame > start).map((e) => [e.track, e.slot, e.tick / BAR]); // prettier-ignore
};

test('twelve patterns of seven lengths, touched one after the other, all change on the sample of one bar line', async ({
  app,
  page,
}) => {
  const lengths = [3, 4, 5, 7, 12, 16, 28].map((steps) => steps * 240);
  await openLaunch(app, band(Array.from({ length: 12 }, (_, t) => [lengths[t % 7]!, lengths[(t + 3) % 7]!]), 117)); // prettier-ignore
  await dropOn(app, '4 bars');
  await app.play.click();
  // In the page, since a slow machine may need longer for twelve touches from outside than there is until the drop.
  await page.evaluate(() => {
    for (let t = 1; t <= 12; t++) document.querySelector<HTMLElement>(`[aria-label="T${t} b"]`)!.click();
  });
  await says(app, 'T7 b', /^queued in \d+ beats?$/);
  await says(app, 'T7 a', /^stopping in \d+ beats?$/);
  await says(app, 'T7 b', 'playing');
  await listen(page, 0.5);
  const { events } = await heard(page);
  const { frame, tick } = loops(events).find((e) => e.slot === 1)!;
  expect(tick % (4 * BAR)).toBe(0);
  const all = loops(events).filter((e) => e.slot === 1);
  expect(new Set(all.map((e) => e.track)).size).toBe(12);
  expect(new Set(all.map((e) => e.frame))).toEqual(new Set([frame]));
  const strokes = events.filter((e) => e.kind === 'sounded');
  for (let t = 0; t < 12; t++) {
    const first = strokes.find((e) => e.track === t && e.id % 200 === 3)!;
    expect(Math.abs(first.frame - frame)).toBeLessThanOrEqual(1);
  }
});

test('the beats left that a card shows are those until the sample of its change, through tempo changes', async ({
  app,
  page,
}) => {
  await openLaunch(app, band([[BAR, BAR]]));
  await dropOn(app, '4 bars');
  await app.play.click();
  await listen(page, 0.3);
  // At every display frame: which moment of the sound is heard, by the two clocks as they are then, and what the card says.
  await page.evaluate(() => {
    const w = window as unknown as { shown: [number, string][]; ear: { context: AudioContext } };
    w.shown = [];
    const card = document.querySelector('[aria-label="T1 b"]')!;
    const look = () => {
      const { contextTime, performanceTime } = w.ear.context.getOutputTimestamp();
      const heard = contextTime! + (performance.now() - performanceTime!) / 1000;
      w.shown.push([heard, card.getAttribute('aria-description')!]);
      requestAnimationFrame(look);
    };
    look();
  });
  await app.button('T1 b').click();
  await listen(page, 1.2);
  await app.setTempo(90);
  await listen(page, 1.2);
  await app.setTempo(151);
  await says(app, 'T1 b', 'playing');
  const { events, sampleRate } = await heard(page);
  const shown = await page.evaluate(() => (window as unknown as { shown: [number, string][] }).shown);
  const origin = await page.evaluate(() => (window as unknown as { ear: { messages: { origin: number }[] } }).ear.messages.at(-1)!.origin); // prettier-ignore
  const change = loops(events).find((e) => e.slot === 1)!;
  const anchors = of(events, 'anchor').filter((e) => e.playing);
  const tickAt = (seconds: number) => {
    const frame = seconds * sampleRate - origin - LIMITER_LATENCY;
    const anchor = anchors.findLast((a) => a.frame <= frame) ?? anchors[0]!;
    return anchor.tick + (frame - anchor.frame) / anchor.framesPerTick;
  };
  const beatsLeft = (tick: number) => Math.ceil((change.tick - tick) / BEAT);
  // Each picture shows the beats left at its own moment, or at that of the two before it, within the clocks' jitter (60 ticks).
  const counted = shown.flatMap(([at, words], i) => {
    const n = Number(/^queued in (\d+)/.exec(words)?.[1]);
    return n ? [{ n, now: tickAt(at) + 60, before: tickAt(shown[Math.max(0, i - 2)]![0]) - 60 }] : [];
  });
  expect(counted.length).toBeGreaterThan(20);
  expect(counted.filter(({ n, now, before }) => n < beatsLeft(now) || n > beatsLeft(before))).toEqual([]);
  expect(counted.at(-1)!.n).toBe(1);
});

test('what waits is taken back by the same touch, what plays waits to stop, and the override drops at once', async ({
  app,
  page,
}) => {
  await openLaunch(app, band([[BAR, BAR], [BAR, BAR]], SLOW)); // prettier-ignore
  await dropOn(app, '4 bars');
  await app.play.click();
  await app.button('T1 b').click();
  await says(app, 'T1 b', /^queued/);
  await app.button('T1 b').click();
  await says(app, 'T1 b', 'not playing');
  await app.button('T2 a').click();
  await says(app, 'T2 a', /^stopping in \d+ beats?$/);
  await app.button('T2 a').click();
  await says(app, 'T2 a', 'playing');
  // A short touch of the override sticks; then everything drops now.
  await app.button('Override Now').click();
  await expect(app.button('Override Now')).toHaveAttribute('aria-pressed', 'true');
  await app.button('T2 a').click();
  await says(app, 'T2 a', 'not playing');
  await app.button('T1 b').click();
  await says(app, 'T1 b', 'playing');
  await app.button('Override Now').click();
  // Keys walk from card to card.
  await app.button('T1 a').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowDown');
  await expect(app.button('T2 b')).toBeFocused();
  await page.keyboard.press('Enter');
  await says(app, 'T2 b', /^queued/);
  await page.keyboard.press('Enter');
  await says(app, 'T2 b', 'not playing');
  // Held, it holds; by key too.
  await page.keyboard.down('o');
  await app.button('T2 b').click();
  await says(app, 'T2 b', 'playing');
  await page.keyboard.up('o');
  await expect(app.button('Override Now')).toHaveAttribute('aria-pressed', 'false');
  const saved = await app.savedSet((s) => s.stage.tracks[1]!.slot === 1 && s.stage.tracks[0]!.slot === 1);
  expect(saved.stage.tracks[1]!.stopped).toBe(false);
});

test('Lift: taken out and in while it is held, by hand and by key, everything returns on Drop on', async ({
  app,
  page,
}) => {
  await openLaunch(app, band([[3 * BEAT, BEAT], [BAR, BEAT], [BAR, BEAT]])); // prettier-ignore
  await app.button('T3 a').click(); // taken out before it begins
  await dropOn(app, 'Now');
  await app.play.click();
  await listen(page, 0.5);
  await page.keyboard.down('l');
  await says(app, 'Lift', 'lifting');
  await app.button('T1 a').click();
  await app.button('T2 b').click();
  await app.button('T3 b').click();
  await app.button('Mute T2').click();
  await says(app, 'T3 b', 'playing');
  await app.setTempo(137);
  await dropOn(app, 'Bar');
  await page.keyboard.up('l');
  await says(app, 'T1 a', 'playing');
  await says(app, 'T2 a', 'playing');
  await says(app, 'T3 b', 'not playing');
  await says(app, 'Mute T2', 'off');
  await listen(page, 0.5);
  const { events } = await heard(page);
  const back = loops(events).slice(-3);
  expect(new Set(back.map((e) => e.tick)).size).toBe(1);
  expect(back[0]!.tick % BAR).toBe(0);
  // In the phase that they had: as if nobody had touched them.
  expect(back.map((e) => [e.track, e.slot]).sort()).toEqual([[0, 0], [1, 0], [2, SILENT]]); // prettier-ignore
  expect(back.filter((e) => e.slot >= 0).map((e) => e.launchTick)).toEqual([0, 0]);
  const lift = (await app.button('Lift').boundingBox())!;
  await dropOn(app, 'Now');
  await page.mouse.move(lift.x + 30, lift.y + 20);
  await page.mouse.down();
  await says(app, 'Lift', 'lifting');
  await page.keyboard.press('0'); // everything out at once
  await says(app, 'T1 a', 'not playing');
  await page.mouse.up();
  await says(app, 'T1 a', 'playing');
  await says(app, 'Lift', 'not lifting');
  // For one hand: a short touch lifts until the next one.
  await app.button('Lift').click();
  await says(app, 'Lift', 'lifting');
  await app.button('T1 a').click();
  await says(app, 'T1 a', 'not playing');
  await app.button('Lift').click();
  await says(app, 'T1 a', 'playing');
});

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
  await page.getByRole('menuitem', { name: 'All stop' }).click();
  await app.button('Section earlier').click();
  let saved = await app.savedSet((s) => s.sections[0]?.name === 'Last Lap' && s.sections[0].then === 'stop');
  expect(saved.sections[0]).toMatchObject({ colour: 5, rounds: 1 });
  expect(saved.sections[0]!.parts).toEqual([{ track: 0, plays: 1 }, { track: 1, plays: null }]); // prettier-ignore
  await sheet.getByRole('button', { name: 'Edit section Section 1' }).click();
  await app.button('T2 plays').click();
  await page.getByRole('menuitem', { name: '2 b' }).click();
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
  await page.getByRole('menuitem', { name: '2 b' }).click();
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

test('stop all waits for Drop on and comes at once when asked again; mutes and solos wait too; a fade ends in silence', async ({
  app,
  page,
}) => {
  await openLaunch(app, band([[BEAT], [BEAT]], SLOW)); // prettier-ignore
  await dropOn(app, '2 bars');
  await app.play.click();
  await app.button('Mute T1').click();
  await says(app, 'Mute T1', /^changes in \d beats?$/);
  await app.button('Mute T1').click();
  await says(app, 'Mute T1', 'off');
  await dropOn(app, 'Beat');
  await app.button('Solo T2').click();
  await says(app, 'Solo T2', 'on');
  await app.savedSet((s) => s.stage.tracks[1]!.solo === true);
  await app.button('Solo T2').click();
  await dropOn(app, '4 bars');
  await app.button('Stop all').click();
  await says(app, 'Stop all', /^stopping in \d+ beats?; once more: at once$/);
  await app.button('Stop all').click();
  await says(app, 'T1 a', 'not playing');
  await app.setTempo(120);
  await dropOn(app, 'Bar');
  await app.button('T1 a').click();
  await says(app, 'T1 a', 'playing');
  await app.button('Launching').click();
  await app.button('Fade out over 1 bar').click();
  await expect(app.button('Stop fading')).toBeVisible();
  await expect(app.button('Fade out over 1 bar')).toBeVisible(); // it is over
  await says(app, 'T1 a', 'not playing');
  const nudge = (await app.button('Nudge faster').boundingBox())!;
  await page.mouse.move(nudge.x + 20, nudge.y + 20);
  await page.mouse.down();
  await listen(page, 0.3);
  await page.mouse.up();
  await listen(page, 0.3);
  const { events } = await heard(page);
  const paces = of(events, 'anchor')
    .filter((e) => e.playing)
    .map((e) => e.framesPerTick);
  expect(paces.at(-2)! / paces.at(-1)!).toBeCloseTo(1 / 1.02, 6);
  expect(paces.at(-1)).toBe(paces.at(-3));
});

test('a pattern that is recorded into is the one that plays: struck after its change, hits lie in it', async ({
  app,
  page,
}) => {
  const set = band([[BAR, BAR]]);
  for (const pattern of set.tracks[0]!.patterns) if (pattern) pattern.hits = [];
  await openLaunch(app, set);
  await app.record.click();
  await app.play.click();
  await app.button('T1 empty 3').click(); // a new pattern, on the bar
  await says(app, 'T1 Pattern 3', 'playing');
  await page.keyboard.press('x');
  const saved = await app.savedSet((s) => (s.tracks[0]!.patterns[2]?.hits.length ?? 0) === 1);
  expect(saved.stage.tracks[0]!.slot).toBe(2);
  expect(saved.tracks[0]!.patterns[0]!.hits).toEqual([]);
  await app.undo.click();
  await app.savedSet((s) => s.tracks[0]!.patterns[2]?.hits.length === 0);
});

test('tracks are added, named, coloured, doubled, put in order and removed, and undo brings all back', async ({
  app,
  page,
}) => {
  await openLaunch(app, demoSet());
  const order = async () => tracksOf(await app.savedNow()).map((track) => track.name);
  await app.button('Add track').click();
  await page.getByRole('textbox', { name: 'Track name' }).fill('Canal');
  await page.getByRole('textbox', { name: 'Track name' }).press('Enter');
  await app.button('Plays Keys').click();
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
  await app.button('All twelve notes').click();
  await says(app, 'Pad 2 A♯1', 'not in the scale');
  await says(app, 'Pad 3 B1', 'in the scale');
  await app.button('Octave up').click();
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

test('pads and their keys launch patterns of the shown track, or sections', async ({ app, page }) => {
  await openLaunch(app, { ...demoSet(), tempo: SLOW });
  await app.button('Launching').click();
  await app.button('Pads Launch patterns').click();
  await page.getByRole('link', { name: 'Pads', exact: true }).click();
  await app.play.click();
  await app.button('Launch Four Wheels').click();
  await says(app, 'Launch Four Wheels', 'playing');
  await page.keyboard.press('c'); // the third pad
  await says(app, 'Launch Brake', /^queued/);
  await page.keyboard.press('c');
  await says(app, 'Launch Brake', 'not playing');
  await page.keyboard.press('.'); // the next track
  await page.keyboard.press('x');
  await says(app, 'Launch Ticks', 'playing');
  await page.getByRole('link', { name: 'Launch', exact: true }).click();
  await app.button('Pads Launch sections').click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('z');
  await says(app, 'Section Doors', 'playing');
});

test.describe('wide', () => {
  test.use({ viewport: { width: 1280, height: 800 } });

  test('the plan shows what drops where, and a change is dragged or moved with keys to another bar', async ({
    app,
    page,
  }) => {
    await openLaunch(app, band([[BAR, BAR], [BAR, BAR]], SLOW)); // prettier-ignore
    const plan = page.getByRole('region', { name: 'Plan of the next 8 bars' });
    await expect(plan.getByRole('group', { name: 'Plan of T2' })).toContainText('a');
    await dropOn(app, '4 bars');
    await app.play.click();
    await app.button('T1 b').click();
    await app.button('Move T1').focus();
    await page.keyboard.press('ArrowRight');
    await app.button('T2 b').click();
    const flag = (await app.button('Move T2').boundingBox())!;
    const other = (await app.button('Move T1').boundingBox())!;
    const bar = other.x - flag.x;
    expect(bar).toBeGreaterThan(20);
    await page.mouse.move(flag.x + 22, flag.y + 30);
    await page.mouse.down();
    await page.mouse.move(flag.x + 22 + bar * 2.1, flag.y + 30, { steps: 4 });
    await page.mouse.up();
    await app.setTempo(200);
    await says(app, 'T1 b', 'playing');
    await says(app, 'T2 b', 'playing');
    const done = changes((await heard(page)).events);
    expect(Number(done[0]![2]) % 4).toBe(1);
    expect(Number(done[1]![2]) - Number(done[0]![2])).toBe(1);
  });
});

test('an empty set says what to do, and the first section is one touch', async ({ app }) => {
  await openLaunch(app, emptySet());
  await expect(app.button('Drums Pattern 1')).toBeVisible();
  await app.button('Store section').click();
  await expect(app.button('Section Section 1')).toBeVisible();
});

test('with a thumb on Lift other fingers touch cards, sections and mutes; a finger that scrolls touches nothing', async ({
  app,
  page,
}) => {
  const set = demoSet();
  await openLaunch(app, { ...set, launching: { ...set.launching, dropOn: 'now' } });
  await app.button('Section First Laps').click();
  await app.play.click();
  const fingers = await page.context().newCDPSession(page);
  const at = async (name: string, id: number) => {
    const box = (await app.button(name).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + 20, id };
  };
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', touchPoints: { x: number; y: number; id: number }[]) =>
    fingers.send('Input.dispatchTouchEvent', { type, touchPoints });
  const thumb = await at('Lift', 0);
  await touch('touchStart', [thumb]);
  await says(app, 'Lift', 'lifting');
  for (const name of ['Rails Hand-offs', 'Mute Wheels', 'Kerb Low Kerb']) {
    const finger = await at(name, 1);
    await touch('touchStart', [thumb, finger]);
    await touch('touchEnd', [finger]); // the one that goes; the thumb stays
  }
  await says(app, 'Rails Hand-offs', 'playing');
  await says(app, 'Kerb Low Kerb', 'not playing');
  await says(app, 'Mute Wheels', 'on');
  await touch('touchEnd', []);
  await says(app, 'Lift', 'not lifting');
  await says(app, 'Rails Ticks', 'playing');
  await says(app, 'Kerb Low Kerb', 'playing');
  await says(app, 'Mute Wheels', 'off');
  // A swipe along the row.
  const from = await at('Rails Ticks', 0);
  await touch('touchStart', [from]);
  for (let i = 1; i <= 8; i++) await touch('touchMove', [{ ...from, x: from.x - 14 * i }]);
  await touch('touchEnd', []);
  await listen(page, 0.3);
  await says(app, 'Rails Ticks', 'playing');
  expect((await app.button('Rails Ticks').boundingBox())!.x).toBeLessThan(from.x - 60);
});
