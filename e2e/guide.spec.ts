import { expectAccessible, expectUsable } from './support/access';
import { expect, test, type App } from './support/app';
import { drum, steadily } from './support/drummer';
import { heard, listen, of } from './support/ear';
import type { StoredSet } from './support/sets';

// It is measured when something sounds.
test.use({ warmUp: true });

/** What a newcomer may need, by the measure of a first beat: "within a minute". */
const SECONDS = 60;
const TOUCHES = 40;

/** The drums of the General MIDI Level 1 percussion map (MIDI Association) by the pads of the kit: 36, 38 and 42. */
const [KICK, SNARE, HAT] = [1, 3, 5];

/** Who knows nothing of the app: reads the guide's sentence, does what it says with what is lit, and counts. */
class Newcomer {
  touches = 0;
  private readonly began = Date.now();

  constructor(private readonly app: App) {}

  get seconds(): number {
    return (Date.now() - this.began) / 1000;
  }

  get guide() {
    return this.app.page.getByRole('region', { name: 'Guide' });
  }

  /** Waits for a sentence, and touches what is lit with it. */
  async follow(sentence: RegExp): Promise<void> {
    await this.reads(sentence);
    await this.app.page.locator('[data-meant]').locator('..').click();
    this.touches++;
  }

  async reads(sentence: RegExp): Promise<void> {
    await expect(this.guide.getByRole('status')).toHaveText(sentence);
    await expect(this.app.page.locator('[data-meant]')).toHaveCount(1);
    await expect(this.app.page.locator('[data-meant]')).toBeInViewport();
  }

  async next(): Promise<void> {
    await this.app.button('Next').click();
    this.touches++;
  }

  /** Strikes the pad that is lit with its sound, on beats counted from 0 of some bar that is still to come. */
  async strikes(sentence: RegExp, pad: number, beats: readonly number[]): Promise<void> {
    await this.reads(sentence);
    await expect(this.app.pad(pad).locator('[data-meant]')).toHaveCount(1);
    const bar = Number((await this.app.position.textContent())!.split('.')[0]);
    const nextBar = Number.isNaN(bar) || bar < 1 ? 0 : bar;
    // At 120 BPM a beat lasts 500 ms; hands are not machines.
    await drum(
      this.app.page,
      beats.map((beat, i) => ({ pad, ms: (nextBar * 4 + beat) * 500 + [-9, 14, 6, -12][i % 4]! })),
    );
    this.touches += beats.length;
  }
}

test('a newcomer who only follows the guide has a looping beat, saved, within a minute and forty touches @alone', async ({
  app,
  page,
  context,
}) => {
  const browser = await context.newCDPSession(page);
  let newcomer!: Newcomer;
  let seconds = Infinity;
  const firstVisit = async () => {
    await page.goto('/wingbars.svg');
    const origin = new URL(page.url()).origin;
    await browser.send('Storage.clearDataForOrigin', { origin, storageTypes: 'indexeddb' });
    await page.goto('/');
    await expect(page.getByRole('heading', { name: 'Chaffinch' })).toBeVisible();
    newcomer = new Newcomer(app);
  };
  const follow = async () => {
    await app.button('Guide').click();
    newcomer.touches++;
    await newcomer.reads(/How fast\?/);
    await newcomer.next();
    await newcomer.follow(/Turn the click on/);
    await newcomer.reads(/counted in for one bar/);
    await newcomer.next();
    await newcomer.follow(/Touch Record/);
    await newcomer.follow(/Touch Play, wait while it counts four/);
    await newcomer.strikes(/Strike Kick on one and three/, KICK, [0, 2]);
    await newcomer.strikes(/Strike Snare on two and four/, SNARE, [1, 3]);
    await newcomer.strikes(/Strike Closed hat evenly/, HAT, [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5]);
    await newcomer.follow(/Touch Record once more/);
    await newcomer.follow(/Touch Feel/);
    await newcomer.follow(/Choose 1\/8/);
    await newcomer.follow(/Close Feel/);
    await newcomer.reads(/saved on this device/);
    seconds = newcomer.seconds;
  };
  // Within an eighth that Feel puts right, hands and sound may lie apart.
  await steadily(page, firstVisit, follow, 60);
  const { tracks, metronome } = await app.savedSet((set) => set.tracks[0]!.patterns[0]!.hits.length === 12);
  expect(seconds).toBeLessThan(SECONDS);
  expect(newcomer.touches).toBeLessThan(TOUCHES);
  expect(metronome.on).toBe(true);
  const { hits } = tracks[0]!.patterns[0]!;
  expect([KICK, SNARE, HAT].map((pad) => hits.filter((hit) => hit.pad === pad - 1).length)).toEqual([2, 2, 8]);
  await newcomer.follow(/leave the guide/);
  await expect(newcomer.guide).toHaveCount(0);

  // It goes round: in each bar of two seconds the backbeat lies on two and four.
  await listen(page, 4.2);
  const { events, sampleRate } = await heard(page);
  const snares = of(events, 'sounded').filter(({ pad, live }) => pad === SNARE - 1 && !live);
  expect(snares.length).toBeGreaterThanOrEqual(3);
  const frames = snares.slice(-3).map(({ frame }) => frame);
  for (let i = 1; i < frames.length; i++) expect((frames[i]! - frames[i - 1]!) / sampleRate).toBeCloseTo(1, 3);
});

test('the guide is followed by keys alone, and can be left anywhere', async ({ app, page }) => {
  await page.goto('/');
  await expect(app.button('Guide')).toBeVisible();
  const focused = () => page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '');
  const tabTo = async (name: string) => {
    for (let i = 0; i < 60 && (await focused()) !== name; i++) await page.keyboard.press('Tab');
    expect(await focused()).toBe(name);
  };
  await tabTo('Guide');
  await page.keyboard.press('Enter');
  const guide = page.getByRole('region', { name: 'Guide' });
  await expect(guide).toBeVisible();
  // The control that is meant is described by the sentence, for who comes to it with a screen reader.
  await expect(app.tempo.locator('..').locator('[data-meant]')).toHaveCount(1);
  await tabTo('Next');
  await page.keyboard.press('Enter');
  await expect(app.button('Metronome')).toHaveAccessibleDescription(/Turn the click on/);
  await tabTo('Metronome');
  await page.keyboard.press('Space');
  await expect(guide.getByRole('status')).toHaveText(/counted in/);
  await expectUsable(page);
  // What it unfolded it folds again.
  await tabTo('Leave guide');
  await page.keyboard.press('Enter');
  await expect(guide).toHaveCount(0);
  await expect(app.button('Tempo and click')).toHaveAttribute('aria-expanded', 'false');
});

test('who came straight to a place gets back to it from the start page, with what was made', async ({ app, page }) => {
  await app.open();
  await app.setTempo(91);
  await app.menu('Start page');
  await app.button('Back').click();
  await expect(app.pad(1)).toBeVisible();
  await app.menu('Start page');
  await app.button('Empty set').click();
  await app.savedSet((set) => set.name === 'New set');
  await page.getByRole('button', { name: 'Undo this' }).click();
  await app.savedSet((set) => set.tempo === 91);
});

test('the guide says what is missing: another place, a sheet, a song that was stopped', async ({ app, page }) => {
  await page.goto('/');
  await app.button('Guide').click();
  const says = (sentence: RegExp) =>
    expect(page.getByRole('region', { name: 'Guide' }).getByRole('status')).toHaveText(sentence);
  for (let i = 0; i < 3; i++) await app.button('Next').click();
  await says(/Touch Record/);
  await page.getByRole('link', { name: 'Launch', exact: true }).click();
  await says(/Go to Pads/);
  await page.getByRole('link', { name: 'Pads', exact: true }).click();
  await app.record.click();
  await app.play.click();
  await says(/Strike Kick/);
  await app.button('Keep').click();
  await says(/Close this sheet/);
  await app.button('Close keep').click();
  await app.stop.click();
  await says(/Touch Record/);
  // Begun anew from the Set menu, it opens an empty set, and Undo brings back what was there.
  await app.setTempo(90);
  await app.menu('Start page');
  await app.button('Guide').click();
  await says(/How fast/);
  await app.savedSet((set) => set.tempo === 120);
  await app.button('Undo this').click();
  await app.savedSet((set) => set.tempo === 90);
});

test('three ways at the first visit, and again from the Set menu; the demo plays, the empty set is empty', async ({
  app,
  page,
}) => {
  await page.goto('/');
  await expect(app.button('Play the demo')).toBeVisible();
  await expectAccessible(page);
  await expect(app.button('Back')).toHaveCount(0);
  await app.button('Play the demo').click();
  await expect(app.stop).toBeVisible();
  await listen(page, 1.5);
  expect(of((await heard(page)).events, 'sounded').length).toBeGreaterThan(8);
  await app.savedSet((set) => set.name === 'Rink Night');
  // Shown once.
  await page.goto('/');
  await expect(app.pad(1)).toBeVisible();
  await app.menu('Start page');
  await expectUsable(page);
  await app.button('Empty set').click();
  await expect(app.pad(1)).toBeVisible();
  await app.savedSet((set) => set.name === 'New set');
  await app.menu('Start page');
  await app.button('Back').click();
  await expect(app.pad(1)).toBeVisible();
  expect((await app.savedNow()).name).toBe('New set');
});

test('the start page fits a phone that lies, a small one and a desk, at the first visit and later', async ({
  app,
  page,
}) => {
  await page.goto('/');
  const sizes = [
    { width: 844, height: 390 },
    { width: 320, height: 568 },
    { width: 1280, height: 800 },
  ];
  for (const size of sizes) {
    await page.setViewportSize(size);
    await expect(app.button('Empty set')).toBeVisible();
    await expectAccessible(page);
  }
  await app.button('Empty set').click();
  await expect(app.pad(1)).toBeVisible();
  await app.menu('Start page');
  for (const size of sizes) {
    await page.setViewportSize(size);
    await expect(app.button('Back')).toBeVisible();
    await expectUsable(page);
  }
});

test('the simple view: its pads are large, it records, and pinned it is left by a hold', async ({ app, page }) => {
  await app.open();
  await app.menu('Start empty');
  await app.tool('Simple view');
  const pads = page.getByRole('button', { name: /^Pad \d/ });
  await expect(pads).toHaveCount(4);
  for (const [width, height] of [
    [844, 390],
    [390, 844],
  ] as const) {
    await page.setViewportSize({ width, height });
    // What is said of the empty set stands there, and makes the page no wider.
    expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
    await expectUsable(page);
    for (const pad of await pads.all()) {
      const box = (await pad.boundingBox())!;
      expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(100);
    }
  }
  const isEmpty = (set: StoredSet) => set.tracks[0]!.patterns[0]!.hits.length === 0;
  await app.record.click();
  await app.play.click();
  // Counted in, and in the loop.
  await expect(app.position).toHaveText(/^[2-9]\./);
  await pads.first().click();
  await app.stop.click();
  await app.savedSet((set) => set.tracks[0]!.patterns[0]!.hits.length === 1);
  await app.undo.click();
  await app.savedSet(isEmpty);
  await app.button('Choose pads').click();
  for (const name of ['Rim', 'Clap', 'Crash', 'Ride']) await app.button(`Show ${name}`).click();
  await expect(app.button('Show Snap')).toHaveAttribute('aria-disabled', 'true');
  await app.button('Pin simple view').click();
  await page.keyboard.press('Escape');
  await expect(pads).toHaveCount(8);
  await page.reload();
  await expect(pads).toHaveCount(8);
  // A wrong key changes nothing here.
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('m');
  await app.button('Leave simple view').click();
  await expect(pads).toHaveCount(8);
  const box = (await app.button('Leave simple view').boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + 20);
  await page.mouse.down();
  await expect(pads).toHaveCount(16);
  await page.mouse.up();
  const { tempo, metronome } = await app.savedNow();
  expect([tempo, metronome.on]).toEqual([120, false]);
});

test('two more demos are a touch away: one slow, one for lessons', async ({ app }) => {
  await app.open();
  for (const [name, tempo] of [
    ['Late Tram', 84],
    ['One at a Time', 100],
  ] as const) {
    // prettier-ignore
    await app.menu('Start page');
    await app.button(name).click();
    await expect(app.stop).toBeVisible();
    await expect(app.pad(1)).toBeVisible();
    const set = await app.savedSet((saved) => saved.name === name);
    expect(set.tempo).toBe(tempo);
    await app.stop.click();
  }
});
