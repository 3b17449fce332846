import { noteIn, noteName } from '@/core/document/tones';
import type { Hit } from '@/core/document/hit';
import { expect, test } from './support/app';
import { demoSet, type StoredSet } from './support/sets';
import { cell, choose, drag, middle, openSheet, openSteps, typeInto } from './support/steps';

const KERB = 2;
const LAMPS = 3;

/** The demo on its track of chords, with some notes in the pattern that is open there. */
function setOf(hits: readonly Pick<Hit, 'pad' | 'tick' | 'length'>[]): StoredSet {
  const set = demoSet();
  const notes = hits.map((hit, i) => ({ id: 9001 + 2 * i, velocity: 0.7, snap: null, ...hit }));
  const lamps = { ...set.tracks[LAMPS]!, patterns: [{ name: 'Lines', length: 3840, hits: notes }] };
  const stage = { ...set.stage, shown: LAMPS, tracks: { ...set.stage.tracks, [LAMPS]: { ...set.stage.tracks[LAMPS]!, slot: 0 } } }; // prettier-ignore
  return { ...set, tracks: { ...set.tracks, [LAMPS]: lamps }, stage };
}
const hitsOf = (set: StoredSet) => set.tracks[LAMPS]!.patterns[0]!.hits;
const namesOf = (set: StoredSet) => hitsOf(set).map((hit) => noteName(noteIn(set.tracks[LAMPS]!.tones!)(hit)));

test('the lanes of notes are those of their scale, all twelve on request; a note between is painted, taken along in pitch and time at once, and made longer', async ({
  app,
  page,
}) => {
  await openSteps(app, setOf([{ pad: 0, tick: 0, length: 480 }]));
  const row = (name: string) => page.getByRole('row', { name, exact: true });
  await expect(row('B3')).toBeVisible();
  await expect(row('A♯3')).toHaveCount(0);
  await app.button('All notes').click();
  await expect(row('A♯3')).toBeVisible();
  const { x, y } = await middle(app, 'A♯3 bar 1 beat 3 step 1');
  await page.touchscreen.tap(x, y);
  expect(namesOf(await app.savedSet((set) => hitsOf(set).length === 2))).toEqual(['A3', 'A♯3']);
  // Folded again, the lane of what is played stays.
  await app.button('All notes').click();
  await expect(row('A♯3')).toBeVisible();
  await expect(row('C♯4')).toHaveCount(0);

  await app.button('Select').click();
  await page.keyboard.press('ControlOrMeta+a');
  const [from, to] = [await middle(app, 'A3 bar 1 beat 1 step 1'), await middle(app, 'C4 bar 1 beat 1 step 3')];
  await drag(app, from, { x: to.x, y: to.y });
  // Two steps of A minor up: A to C, and what lies a semitone above A a semitone above C.
  const taken = await app.savedSet((set) => hitsOf(set)[0]!.tick === 480);
  expect([namesOf(taken), hitsOf(taken).map(({ tick }) => tick)]).toEqual([
    ['C4', 'C♯4'],
    [480, 2400],
  ]);
  // By its end, which lies where beat 3 begins, C4 is taken to where beat 4 does: both notes are a beat longer.
  const [end, later] = [await cell(app, 'C4 bar 1 beat 2 step 1').boundingBox(), await cell(app, 'C4 bar 1 beat 3 step 1').boundingBox()]; // prettier-ignore
  const foot = { x: end!.x, y: end!.y + end!.height / 2 };
  await drag(app, foot, { ...foot, x: later!.x });
  const longer = await app.savedSet((set) => hitsOf(set)[0]!.length === 480 + 960);
  expect(hitsOf(longer)[1]!.length).toBe(120 + 960);
  for (let i = 0; i < 2; i++) await app.undo.click();
  expect(namesOf(await app.savedSet((set) => hitsOf(set)[0]!.tick === 0))).toEqual(['A3', 'A♯3']);
});

test('Trace shows the notes of another track with their names; chords are strummed and cut short, each one step of undo', async ({
  app,
  page,
}) => {
  const chord = [0, 2, 4].map((pad) => ({ pad, tick: 0, length: 960 }));
  const set = setOf(chord);
  await openSteps(app, set);
  const { name, hits } = set.tracks[KERB]!.patterns[0]!;
  await choose(app, 'Trace', `Kerb · ${name}`);
  // A bass note that has no lane here is seen in that of its octave, under its own name.
  const bass = noteName(noteIn(set.tracks[KERB]!.tones!)(hits[0]!));
  expect(bass).toMatch(/^A[12]$/);
  await expect(cell(app, 'A3 bar 1 beat 1 step 1')).toHaveAccessibleDescription(new RegExp(`on, .*, ${bass} beneath`));

  await page.keyboard.press('ControlOrMeta+a');
  await openSheet(app, 'Edit');
  await typeInto(app, 'Strum', '-20');
  const nudges = (saved: StoredSet) => hitsOf(saved).map(({ nudge = 0 }) => Math.round(nudge * 100) / 100);
  // 20 ms at 112 BPM are 35.84 ticks of 960 to the quarter; from the highest note down.
  expect(nudges(await app.savedSet((saved) => nudges(saved)[0] !== 0))).toEqual([71.68, 35.84, 0]);
  await app.button('Staccato').click();
  await app.savedSet((saved) => hitsOf(saved).every(({ length }) => length === 480));
  for (let i = 0; i < 2; i++) await app.undo.click();
  expect(hitsOf(await app.savedSet((saved) => nudges(saved)[0] === 0))).toEqual(hitsOf(set));
});

test('Generate offers a bass for the chords of another track, says how it comes about, and is heard before it is taken', async ({
  app,
  page,
}) => {
  const set = demoSet();
  const kerb = { ...set.tracks[KERB]!, patterns: [{ name: 'New', length: 7680, hits: [] }] };
  const slot = (track: number) => ({ ...set.stage.tracks[track]!, slot: 0 });
  const stage = { ...set.stage, shown: KERB, tracks: { ...set.stage.tracks, [KERB]: slot(KERB), [LAMPS]: slot(LAMPS) } }; // prettier-ignore
  await openSteps(app, { ...set, tracks: { ...set.tracks, [KERB]: kerb }, stage });
  await openSheet(app, 'Generate');
  await expect(app.button('Goes by')).toContainText(`Lamps · ${set.tracks[LAMPS]!.patterns[0]!.name}`);
  // The demo's chords begin on A minor, the tonic of its key.
  await expect(page.getByText(/^Am .*: .*root.*\.$/)).toBeVisible();
  await app.button('Hear it').click();
  await expect(app.button('Hear the pattern')).toBeVisible();
  await app.button('Take it').click();
  const taken = await app.savedSet((saved) => saved.tracks[KERB]!.patterns[0]!.hits.length > 0);
  const [first] = taken.tracks[KERB]!.patterns[0]!.hits;
  expect(noteName(noteIn(kerb.tones!)(first!))).toBe('A1');
  await app.undo.click();
  await app.savedSet((saved) => saved.tracks[KERB]!.patterns[0]!.hits.length === 0);
});
