import type { Page } from '@playwright/test';
import { menuIsThere, touchItem } from './support/menu';
import { expect, test, type App } from './support/app';
import { heard, listen, of } from './support/ear';
import { demoSet } from './support/sets';
import { cutWords } from './support/words';

/** CSS px of devices that are common, upright and lying, and of a desk's window, also at 200 % zoom (common practice). */
const SIZES = {
  upright: [[390, 844], [375, 667], [320, 568], [768, 1024]],
  lying: [[844, 390], [667, 375], [640, 400]],
  wide: [[1280, 800], [1180, 820], [1000, 700], [1920, 1080], [2560, 1440]],
} as const; // prettier-ignore
/** The least side of a target for a finger, px: WCAG 2.2, 2.5.5 (enhanced). */
const TARGET = 44;
const PLACES = ['Pads', 'Steps', 'Launch', 'Sounds', 'Runs', 'Sets'];
/** Those that can stand together with another. */
const PANES = PLACES.filter((place) => place !== 'Sets');

interface Found {
  name: string;
  x: number;
  y: number;
  width: number;
  height: number;
  /** As much of it as can be seen within the boxes that scroll or clip. */
  seen: number;
}

/** Every control that can be pressed, with its box. */
const controls = (page: Page): Promise<Found[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('[role="button"], [role="spinbutton"], a[href]')].map((element) => {
      const target = element.matches('[role="spinbutton"]') ? element.parentElement! : element;
      const { x, y, width, height } = target.getBoundingClientRect();
      let [left, top, right, bottom] = [Math.max(0, x), Math.max(0, y), Math.min(innerWidth, x + width), Math.min(innerHeight, y + height)]; // prettier-ignore
      for (let box = target.parentElement; box; box = box.parentElement) {
        if (getComputedStyle(box).overflow === 'visible') continue;
        const clip = box.getBoundingClientRect();
        [left, top] = [Math.max(left, clip.left), Math.max(top, clip.top)];
        [right, bottom] = [Math.min(right, clip.right), Math.min(bottom, clip.bottom)];
      }
      const seen = (Math.max(0, right - left) * Math.max(0, bottom - top)) / (width * height);
      const name = element.getAttribute('aria-label') ?? element.textContent;
      return { name, x, y, width, height, seen };
    }),
  );

/** What scrolls into sight under a finger: cards and sections of Launch, lanes of Steps. */
const scrolls = ({ name }: Found, place: string) => {
  if (place === 'Launch') return !/^(Drop on|Override|Lift|Stop all|Launching)/.test(name);
  if (place === 'Sounds') return OF_SOUNDS.test(name);
  return /^(Hear|Mute|Solo) /.test(name);
};
const OF_SOUNDS = /^(Sound \d|Sound menu|Kit|Shelf|Hear|Alone|Swap sound|Load sample|Record sample|Slice|Shape|Out|Playing|Finer|Cuts off|Also plays|LFO|Pitch|Decay|Filter|Drive)/; // prettier-ignore

const overlapping = (all: readonly Found[]) =>
  all.flatMap((a, i) =>
    all
      .slice(i + 1)
      .filter(
        (b) =>
          Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x) > 1 &&
          Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y) > 1,
      )
      .map((b) => `${a.name} and ${b.name}`),
  );

for (const [held, sizes] of Object.entries(SIZES)) {
  test(`${held}, every place: controls whole, apart, large enough for a finger; pads larger still`, async ({
    app,
    page,
  }) => {
    await page.setViewportSize({ width: sizes[0][0], height: sizes[0][1] });
    await app.open();
    let isOpened = false;
    for (const [width, height] of sizes) {
      await page.setViewportSize({ width, height });
      const least = width === 320 ? 64 : 80;
      for (const place of PLACES) {
        const link = page.getByRole('link', { name: place, exact: true });
        // The head of a low, narrow screen has room for four links.
        if (await link.isVisible()) await link.click();
        else await app.menu(place === 'Sets' ? 'All sets' : place);
        await expect(link).toHaveAttribute('aria-current', 'page');
        if (place === 'Runs' && !isOpened) await openRun(app);
        isOpened ||= place === 'Runs';
        // They are loaded when they are opened.
        if (place === 'Sounds') await expect(app.button('Sound 1 Kick')).toBeVisible();
        if (place === 'Steps') await expect(page.getByRole('grid', { name: 'Steps' })).toBeVisible();
        const all = await controls(page);
        const small = all.filter((c) => c.width < TARGET || c.height < TARGET - 0.5);
        expect(small, `too small on ${place}`).toEqual([]);
        const fixed = all.filter((c) => !scrolls(c, place));
        expect(
          fixed.filter((c) => c.seen < 0.99),
          `cut on ${place}`,
        ).toEqual([]);
        expect(overlapping(fixed), `overlapping on ${place}`).toEqual([]);
        expect(await cutWords(page), `cut on ${place}, ${width} x ${height}`).toEqual([]);
        expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth), `wider on ${place}`).toBeLessThanOrEqual(0); // prettier-ignore
        if (place === 'Pads') {
          const pads = all.filter((c) => c.name.startsWith('Pad '));
          expect(pads).toHaveLength(16);
          expect(pads.filter((c) => c.width < least || c.height < least)).toEqual([]);
          // Beside the pads and the ways to other places; on a wide screen the steps stand there too.
          const others = fixed.filter((c) => !c.name.startsWith('Pad ') && !PLACES.includes(c.name));
          if (width < 900) expect(others.length, others.map(({ name }) => name).join(', ')).toBeLessThanOrEqual(12);
        } else if (place === 'Runs') {
          const { width: wide, height: high } = (await page
            .getByRole('application', { name: 'Timeline' })
            .boundingBox())!;
          expect(Math.min(wide / 200, high / 90)).toBeGreaterThanOrEqual(1);
        } else if (place === 'Sets') {
          await expect(page.getByRole('listitem', { name: 'Rink Night' })).toBeInViewport();
        } else if (place === 'Sounds') {
          // All of the nest, or at the least most of it; the rest scrolls.
          expect(all.filter((c) => /^Sound \d/.test(c.name) && c.seen > 0.9).length).toBeGreaterThanOrEqual(8);
        } else {
          // What the place is for can be reached: at least two lanes, at least one card.
          const job = place === 'Steps' ? /^Hear / : /^(Wheels|Rails) /;
          expect(all.filter((c) => job.test(c.name) && c.seen > 0.9).length).toBeGreaterThanOrEqual(place === 'Steps' ? 2 : 1); // prettier-ignore
        }
      }
    }
  });
}

/** Plays for a moment, and opens what was captured of it. */
async function openRun(app: App): Promise<void> {
  await app.play.click();
  await listen(app.page, 1);
  await app.stop.click();
  // Once more: back to the top, where there is nothing to stop.
  await app.stop.click();
  await app.page.getByRole('button', { name: /^Open / }).click();
  await expect(app.button('Listen')).toBeVisible();
}

for (const [width, height, way] of [
  [768, 1024, 'below'],
  [1000, 700, 'beside'],
] as const) {
  test.describe(`${width} x ${height}, two panes`, () => {
    test.use({ viewport: { width, height } });

    test(`each place stands ${way} each other one that the player chooses, whole and apart, and stays chosen`, async ({
      app,
      page,
    }) => {
      await app.open();
      const marks: Record<string, string> = {
        Pads: 'Pad 1 Kick',
        Steps: 'Hear Kick',
        Sounds: 'Sound 1 Kick',
        Launch: 'Stop all',
        Runs: 'Listen',
      };
      await page.getByRole('link', { name: 'Runs', exact: true }).click();
      await openRun(app);
      for (const first of PANES) {
        await page.getByRole('link', { name: first, exact: true }).click();
        // Each two stand together once: both sides have the same room.
        for (const second of PANES.slice(0, PANES.indexOf(first))) {
          await app.button(way === 'below' ? 'Set menu' : 'Second pane').click();
          const item = way === 'below' ? `Below: ${second}` : second;
          await touchItem(page, item, true);
          const pane = page.getByRole('region', { name: `Second pane: ${second}` });
          await expect(pane.getByRole('button', { name: marks[second]!, exact: true })).toBeVisible();
          await expect(app.button(marks[first]!)).toBeVisible();
          const all = (await controls(page)).filter((c) => c.seen > 0);
          expect(all.filter((c) => c.width < TARGET || c.height < TARGET - 0.5)).toEqual([]);
          const fixed = all.filter((c) => PLACES.every((place) => place === 'Pads' || !scrolls(c, place)));
          expect(overlapping(fixed), `${first} with ${second}`).toEqual([]);
          const pads = all.filter((c) => c.name.startsWith('Pad '));
          expect(pads.filter((c) => c.width < 80 || c.height < 80)).toEqual([]);
        }
      }
      await app.savedNow();
      await page.reload();
      // Chosen last for Runs.
      await expect(page.getByRole('region', { name: 'Second pane: Sounds' })).toBeVisible();
      await app.button(way === 'below' ? 'Set menu' : 'Second pane').click();
      await touchItem(page, 'None');
      await expect(page.getByRole('region', { name: /Second pane/ })).toHaveCount(0);
    });
  });
}

test('type grows with the room, and what holds it: cards, keys, places and names of lanes', async ({ app, page }) => {
  await app.open();
  /** Size of type and width of what has a name, px. */
  const sizes = (role: 'button' | 'link' | 'menuitem', name: string) =>
    page.getByRole(role, { name, exact: true }).evaluate((of) => {
      const words = [...of.querySelectorAll('*')].filter(
        (part) => part.children.length === 0 && part.textContent !== '',
      );
      const type = Math.max(...words.map((word) => parseFloat(getComputedStyle(word).fontSize)));
      return { type, width: of.getBoundingClientRect().width };
    });
  const read = async (width: number, height: number) => {
    await page.setViewportSize({ width, height });
    await page.getByRole('link', { name: 'Launch', exact: true }).click();
    const launch = [await sizes('button', 'Wheels Fast Laps'), await sizes('button', 'Mute Rails')];
    await page.getByRole('link', { name: 'Steps', exact: true }).click();
    return [...launch, await sizes('link', 'Steps'), await sizes('button', 'Hear Kick')];
  };
  /** Size of type of an item of a menu, and of a field. */
  const words = async () => {
    await app.button('Set menu').click();
    await menuIsThere(page);
    const { type } = await sizes('menuitem', 'Setup');
    await touchItem(page, 'All sets');
    const field = page.getByRole('textbox', { name: 'Name of Rink Night' });
    return [type, parseFloat(await field.evaluate((of) => getComputedStyle(of).fontSize))];
  };
  const [phone, before] = [await read(390, 844), await read(1280, 800)];
  const hear = before.length - 1;
  const [item, field] = await words();
  expect(phone.map(({ type }) => type)).toEqual(before.map(({ type }) => type));
  for (const [width, height, times] of [[1920, 1080, 1.18], [2560, 1440, 1.4]] as const) {
    const after = await read(width, height);
    for (const [i, { type, width: px }] of after.entries()) {
      expect(type / before[i]!.type).toBeCloseTo(times, 2);
      if (i !== hear) expect(px / before[i]!.width).toBeGreaterThan(times - 0.01);
    }
    // The grid opens for a frame as on a phone, until it has measured how wide it is.
    await expect.poll(async () => (await sizes('button', 'Hear Kick')).width / before[hear]!.width).toBeGreaterThan(times - 0.01);
    const [largerItem, largerField] = await words();
    expect(largerItem! / item!).toBeCloseTo(times, 2);
    // In whole pixels.
    expect(Math.abs(largerField! - field! * times)).toBeLessThanOrEqual(0.5);
  } // prettier-ignore
});

test('names of pads, patterns and tracks are whole, however long and wherever', async ({ app, page }) => {
  const set = demoSet();
  set.name = 'Saturday at the Rink by the Canal';
  set.tracks[0]!.name = 'Wheels and Bearings';
  await app.openSet(set);
  // Stopped on the way, the transport has one key more.
  await app.play.click();
  await expect(app.stop).toBeVisible();
  await listen(page, 1);
  await app.stop.click();
  await expect(app.stop).toHaveAccessibleDescription('Back to the top');
  for (const [width, height] of [
    [320, 568],
    [390, 844],
    [667, 375],
    [1280, 800],
  ] as const) {
    // prettier-ignore
    await page.setViewportSize({ width, height });
    await expect(app.pad(1)).toBeVisible();
    const cut = await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('[aria-label^="Pad "] *, [aria-label="Set menu"] *, [aria-label="Patterns"] *, [aria-label="Record"] *, [aria-label="Play"] *')]
        .filter((e) => e.childElementCount === 0 && e.textContent !== '' && getComputedStyle(e).overflow !== 'visible')
        .filter((e) => e.scrollWidth > e.clientWidth + 1 || e.scrollHeight > e.clientHeight + 1)
        .filter((e) => e.clientWidth > 1) // words for screen readers alone
        .map((e) => e.textContent),
    ); // prettier-ignore
    expect(cut, `${width} x ${height}`).toEqual([]);
  }
});

test('turned fifty times while four pads are held and a roll is on, no note is stuck and no hit is lost', async ({
  app,
  page,
}) => {
  await app.open();
  await app.menu('Start empty');
  await app.countIn('None');
  await app.button('Note repeat').click();
  await app.record.click();
  await app.play.click();
  const fingers = await page.context().newCDPSession(page);
  const points = [];
  for (const [id, number] of [1, 3, 5, 7].entries()) {
    const box = (await app.pad(number).boundingBox())!;
    points.push({ x: box.x + box.width / 2, y: box.y + box.height / 2, id });
  }
  await fingers.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: points });
  await listen(page, 0.5);
  const size = page.viewportSize()!;
  for (let i = 0; i < 50; i++) {
    const lies = i % 2 === 0;
    await page.setViewportSize(lies ? { width: size.height, height: size.width } : size);
  }
  await listen(page, 0.5);
  await fingers.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await listen(page, 0.5);
  const { events, sampleRate } = await heard(page);
  const struck = of(events, 'sounded').filter((e) => e.live);
  await listen(page, 1);
  // Let go, nothing repeats any more.
  const after = of((await heard(page)).events, 'sounded').filter((e) => e.live);
  expect(after.length).toBe(struck.length);
  await app.stop.click();
  const recorded = (await app.savedNow()).tracks[0]!.patterns[0]!.hits.length;
  expect(recorded).toBe(struck.length);
  for (const pad of [0, 2, 4, 6]) {
    const frames = struck.filter((e) => e.pad === pad).map((e) => e.frame);
    expect(frames.length).toBeGreaterThan(6);
    // Sixteenths at 120 BPM lie 125 ms apart: none is missing from the second on. The first is where the finger came down.
    for (let i = 2; i < frames.length; i++) expect(frames[i]! - frames[i - 1]!).toBeCloseTo(sampleRate / 8, -1);
  }
});

test('what is said stands on the Flyway, and covers nothing that is touched', async ({ app, page }) => {
  await app.open();
  await app.unfold('Tempo and click');
  await app.unfold('More tools');
  // A phone that lies and has no width for a rail has none for it there.
  const withRail = SIZES.lying.filter(([width]) => width >= 740);
  for (const [width, height] of [...SIZES.upright, ...withRail, ...SIZES.wide]) {
    await page.setViewportSize({ width, height });
    await app.menu('Start empty');
    const undo = page.getByRole('button', { name: 'Undo this' });
    await expect(undo).toBeVisible();
    const said = (await page.getByText('An empty set is open.').boundingBox())!;
    const key = (await undo.boundingBox())!;
    const { top, bottom } = await page
      .getByRole('img', { name: 'Flyway' })
      .evaluate((element) => element.getBoundingClientRect());
    for (const { y, height: tall } of [said, key]) expect([y >= top, y + tall <= bottom]).toEqual([true, true]);
    const notice: Found = { name: 'notice', x: said.x - 16, y: key.y, width: key.x + key.width - said.x + 32, height: key.height, seen: 1 }; // prettier-ignore
    const others = (await controls(page)).filter(({ name, seen }) => seen > 0 && name !== 'Undo this');
    expect(overlapping([notice, ...others]).filter((pair) => pair.startsWith('notice'))).toEqual([]);
    await undo.click();
    await expect(undo).toHaveCount(0);
  }
});
