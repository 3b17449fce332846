import { padNote } from '@/core/document/tones';
import { demoSet, type StoredSet } from './support/sets';
import { soundingHits } from '@/core/sequence/soundingHits';
import { expect, test, type App } from './support/app';
import { heard, listen } from './support/ear';
import { choose, hitsOf, openSheet, openSteps, patternOf, setWith } from './support/steps';

/** The demo's drums with their first pattern alone. */
function wheelsAlone(): StoredSet {
  const set = demoSet();
  const wheels = set.tracks[0]!;
  const alone = { ...wheels, patterns: wheels.patterns.map((p, i) => (i === 0 ? p : null)) };
  return { ...set, tracks: { 0: alone }, order: [0], sections: [] };
}

const openSlots = (app: App) => openSheet(app, 'Patterns', /^Patterns of/);
const names = (s: ReturnType<typeof demoSet>) => s.tracks[0]!.patterns.map((p) => p?.name ?? null).slice(0, 5);

test('slots: variation, copy, swap, name, colour, clear, more; each card has a picture of its hits; undo brings all back', async ({
  app,
  page,
}) => {
  await openSteps(app, wheelsAlone());
  await openSlots(app);
  await expect(page.getByRole('button', { name: /^Slot \d+$/ })).toHaveCount(16);
  await expect(app.button('Slot 1').locator('svg path')).toHaveAttribute('d', /M/);
  await app.button('Variation').click();
  let set = await app.savedSet((s) => s.stage.tracks[0]!.slot === 1);
  expect(names(set)).toEqual(['Fast Laps', 'Fast Laps 2', null, null, null]);
  const ids = set.tracks[0]!.patterns.flatMap((p) => p?.hits.map((h) => h.id) ?? []);
  expect(new Set(ids).size).toBe(ids.length);
  await page.getByRole('textbox', { name: 'Pattern name' }).fill('Couples Only');
  await page.getByRole('textbox', { name: 'Pattern name' }).press('Enter');
  await app.button('Colour Teal').click();
  await app.button('Copy to slot').click();
  await app.button('Slot 5').click();
  await app.button('Swap with slot').click();
  await app.button('Slot 1').click();
  set = await app.savedSet((s) => names(s)[0] === 'Couples Only' && s.stage.tracks[0]!.slot === 0);
  expect(names(set)).toEqual(['Couples Only', 'Fast Laps', null, null, 'Couples Only 2']);
  expect(patternOf(set).colour).toBe(5);
  await app.button('Clear slot').click();
  await app.savedSet((s) => hitsOf(s).length === 0);
  // Of an empty slot there is nothing to copy or to clear.
  for (const name of ['Variation', 'Copy to slot', 'Clear slot']) await expect(app.button(name)).toBeDisabled();
  await expect(app.button('Copy to track')).toHaveCount(0);
  await app.button('Slot 5').click();
  await app.savedSet((s) => s.stage.tracks[0]!.slot === 4);
  await app.button('More slots').click();
  await expect(page.getByRole('button', { name: /^Slot \d+$/ })).toHaveCount(20);
  for (let i = 0; i < 6; i++) await app.undo.click();
  await app.savedSet((s) => JSON.stringify(names(s)) === JSON.stringify(['Fast Laps', null, null, null, null]));
});

test('Trace: another pattern is seen beneath, and is still there after a reload', async ({ app, page }) => {
  const set = wheelsAlone();
  set.tracks[0]!.patterns[1] = { name: 'Last Lap', length: 3840, hits: [{ id: 999, pad: 1, tick: 960, length: 1, velocity: 1, snap: null }] }; // prettier-ignore
  await openSteps(app, set);
  const picture = () => page.locator('[role="grid"] canvas').evaluate((c) => (c as HTMLCanvasElement).toDataURL());
  const before = await picture();
  await choose(app, 'Trace', '2 Last Lap');
  await expect(app.button('Trace')).toHaveAttribute('aria-pressed', 'true');
  const traced = await picture();
  expect(traced).not.toBe(before);
  await app.savedSet((s) => s.trace?.slot === 1);
  await page.reload();
  await expect(app.button('Trace')).toHaveAttribute('aria-pressed', 'true');
  await choose(app, 'Trace', 'None');
  await expect.poll(picture).toBe(before);
});

test('pads are the steps of a bar: pressed while it plays they fill and empty, by finger and by key', async ({
  app,
  page,
}) => {
  await app.openSet(setWith([{ pad: 2, tick: 960 }], 2 * 3840, 140));
  await app.tool('Pads as steps');
  await choose(app, 'Steps of', 'Snare');
  const step = (name: string) => app.button(`Snare ${name}`);
  await expect(step('bar 1 beat 2 step 1')).toHaveAttribute('aria-pressed', 'true');
  await app.play.click();
  await step('bar 1 beat 3 step 3').tap();
  await page.keyboard.press('z'); // the first step
  await app.savedSet((s) => hitsOf(s).map((h) => h.tick).sort((a, b) => a - b).join() === '0,960,2400'); // prettier-ignore
  await listen(page, 4);
  const { events } = await heard(page);
  const strokes = events.filter((e) => e.kind === 'sounded');
  expect(strokes.some((e) => !e.live && e.placed % 7680 === 2400)).toBe(true);
  expect(strokes.every((e) => !e.live)).toBe(true); // a step is no strike
  await app.button('Bar right').click();
  await step('bar 2 beat 1 step 2').tap();
  await app.savedSet((s) => hitsOf(s).some((h) => h.tick === 3840 + 240));
  await app.button('Bar left').click();
  await step('bar 1 beat 2 step 1').tap();
  await app.savedSet((s) => hitsOf(s).every((h) => h.tick !== 960));
  await app.button('Pads again').click();
  await expect(app.pad(1)).toBeVisible();
});

test('Generate offers, lets hear, keeps what is locked; nothing changes before it is taken, and undo brings the old back', async ({
  app,
  page,
}) => {
  const before = demoSet();
  await openSteps(app, before);
  await openSheet(app, 'Generate');
  await choose(app, 'Style', 'Four on the floor, 120–140');
  await app.button('Keep Snare').click();
  await app.button('Another').click();
  await app.button('Hear it').click();
  await app.play.click();
  await listen(page, 2.2);
  const { events } = await heard(page);
  const kicks = events.filter((e) => e.kind === 'sounded').filter((e) => e.pad === 0);
  expect(kicks.length).toBeGreaterThan(2);
  expect(kicks.every((e) => e.placed % 960 === 0)).toBe(true); // a kick on every beat (common practice), and no other
  expect(patternOf(await app.savedNow())).toEqual(patternOf(before));
  const take = app.button('Take it');
  const count = Number(/(\d+) hits/.exec((await take.textContent()) ?? '')![1]);
  await take.click();
  const set = await app.savedSet((s) => hitsOf(s).length !== hitsOf(before).length);
  const snare = hitsOf(before).filter((h) => h.pad === 2);
  expect(hitsOf(set).filter((h) => h.pad === 2)).toEqual(snare);
  expect(hitsOf(set)).toHaveLength(count + snare.length);
  expect(new Set(hitsOf(set).map((h) => h.id)).size).toBe(hitsOf(set).length);
  await app.undo.click();
  await app.savedSet((s) => JSON.stringify(patternOf(s)) === JSON.stringify(patternOf(before)));

  // Spread: five pulses over sixteen steps, as the published necklace x..x..x..x..x... has them (Toussaint 2005).
  await app.button('Generate Spread').click();
  await choose(app, 'For', 'Rim');
  await app.button('Take it').click();
  const spread = await app.savedSet((s) => hitsOf(s).some((h) => h.pad === 1));
  const rim = soundingHits(patternOf(spread)).filter((h) => h.pad === 1 && h.tick < 3840);
  expect(rim.map((h) => h.tick / 240)).toEqual([0, 3, 6, 9, 12]);
});

test('a bass line is copied to the track of chords: chosen notes by hand, and the whole pattern, each note at its pitch', async ({
  app,
  page,
}) => {
  const [KERB, LAMPS] = [2, 3];
  const set = demoSet();
  await openSteps(app, { ...set, stage: { ...set.stage, shown: KERB } });
  const notesOf = ({ tracks }: StoredSet, track: number, slot: number) => {
    const { tones, patterns } = tracks[track]!;
    return patterns[slot]?.hits.map(({ pad, pitch = 0, tick }) => [tick, padNote(tones!, pad) + pitch]) ?? [];
  };
  const { slot } = set.stage.tracks[KERB]!;
  const bass = notesOf(set, KERB, slot);
  const lamps = set.tracks[LAMPS]!.patterns;
  const free = lamps.findIndex((pattern) => (pattern?.hits.length ?? 0) === 0);
  await openSlots(app);
  await choose(app, 'Copy to track', 'Lamps');
  let saved = await app.savedSet(({ tracks }) => (tracks[LAMPS]!.patterns[free]?.hits.length ?? 0) > 0);
  expect(notesOf(saved, LAMPS, free)).toEqual(bass);
  expect(saved.tracks[LAMPS]!.tones!.voice).not.toBe(saved.tracks[KERB]!.tones!.voice);
  await app.undo.click();
  await page.keyboard.press('Escape');
  // The same by hand: all of it is chosen, copied, and pasted where the other track has an empty slot.
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.press('ControlOrMeta+c');
  await openSlots(app);
  await app.button('Show Lamps').click();
  await app.button(`Slot ${free + 1}`).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('ControlOrMeta+v');
  saved = await app.savedSet(({ tracks }) => (tracks[LAMPS]!.patterns[free]?.hits.length ?? 0) > 0);
  const pasted = notesOf(saved, LAMPS, free).map(([, note]) => note);
  expect(pasted.sort()).toEqual(bass.map(([, note]) => note).sort());
});
