import { renderLoop } from '@/core/engine/offline';
import { writeSampleWav } from '@/core/formats/sampleWav';
import { SAMPLE_RATE } from '@/core/sample/levels';
import { expect, test, type App } from './support/app';
import { touchItem } from './support/menu';
import { demoSet } from './support/sets';
import { choose, drag, typeInto } from './support/steps';

// npm run pictures: takes the pictures of docs/screenshots anew, from the demo.

const PHONE = { width: 390, height: 844 };
const LYING = { width: 844, height: 390 };
const WIDE = { width: 1280, height: 800 };

/** Far enough into the second time round that the Flyway is full. */
const playing = async (app: App) => {
  await app.play.click();
  await expect(app.position).toHaveText('3.3', { timeout: 20_000 });
};

/** A second pattern over the first one's trace, with a roll, a pitch, odds and a window. */
const shaped = async (app: App) => {
  await app.button('Patterns').click();
  await app.button('Variation').click();
  await app.page.getByRole('textbox', { name: 'Pattern name' }).fill('Last Lap');
  await app.page.getByRole('textbox', { name: 'Pattern name' }).press('Enter');
  await app.button('Close patterns of wheels').click();
  await app.page.getByRole('link', { name: 'Steps' }).click();
  await choose(app, 'Trace', 'Wheels · Fast Laps');
  const value = async (cellName: string, kind: string, text: string) => {
    await app.page.getByRole('gridcell', { name: cellName, exact: true }).click({ force: true });
    await app.undo.click(); // the cursor stays, the hit comes back
    await choose(app, 'Value', kind);
    await typeInto(app, kind, text);
  };
  await value('Closed hat bar 1 beat 2 step 2', 'Roll', '3');
  await value('Snare bar 1 beat 2 step 4', 'Odds', '40');
  await value('Kick bar 1 beat 4 step 3', 'Pitch', '5');
  await choose(app, 'Value', 'Velocity');
  await app.button('Hear Closed hat').click();
};

/** The chords of the demo over the trace of its bass. */
const ofNotes = async (app: App) => {
  const set = demoSet();
  await app.openSet({ ...set, stage: { ...set.stage, shown: 3 } });
  await app.page.getByRole('link', { name: 'Steps' }).click();
  await choose(app, 'Trace', 'Kerb · Low Kerb');
};

const light = async (app: App) => {
  await app.menu('Setup');
  await app.page.getByText('Light', { exact: true }).click();
  await app.button('Close setup').click();
};

/** The stand-ins, played while the song goes on. */
const bench = async (app: App) => {
  await app.page.goto('/bench');
  await app.play.click();
  const grid = app.page.getByRole('region', { name: 'Simulated grid' });
  await grid.getByRole('button', { name: 'Button 51', exact: true }).click();
  const pads = app.page.getByRole('region', { name: 'Simulated pads' });
  for (const pad of [1, 5, 3, 5, 9]) await pads.getByRole('button', { name: `Pad ${pad}`, exact: true }).click();
  await expect(app.position).toHaveText('2.2', { timeout: 20_000 });
};

/** The mix of a section that plays, with what a channel does. */
const mixed = async (app: App) => {
  await app.page.getByRole('link', { name: 'Launch', exact: true }).click();
  await app.button('Section Fast Laps').click();
  await app.play.click();
  await app.page.getByRole('link', { name: 'Sounds', exact: true }).click();
  await app.button('Mix').click();
  await app.button('Channel of Lamps').click();
  for (const [name, number] of [['Lamps Room', '24'], ['Lamps Echo', '18'], ['Lamps Filter', '-20']] as const) await typeInto(app, `${name} number`, number); // prettier-ignore
  await expect(app.position).toHaveText('4.3', { timeout: 20_000 });
};

/** First Laps play, and more is to come. */
const launched = async (app: App) => {
  await app.page.getByRole('link', { name: 'Launch', exact: true }).click();
  await app.button('Section First Laps').click();
  await app.play.click();
  await expect(app.position).toHaveText('2.4', { timeout: 20_000 });
  await app.button('Rails Hand-offs').click();
  await expect(app.button('Rails Hand-offs')).toHaveAccessibleDescription('playing', { timeout: 20_000 });
};

/** Two sections with hands over them, and what was captured of it, open. */
const performed = async (app: App) => {
  await launched(app);
  for (const key of ['KeyZ', 'KeyX', 'KeyA']) {
    await app.page.keyboard.press(key);
    await app.page.waitForTimeout(300);
  }
  await app.button('Section Fast Laps').click();
  await expect(app.position).toHaveText('7.2', { timeout: 20_000 });
  for (const key of ['KeyZ', 'KeyC', 'KeyA']) {
    await app.page.keyboard.press(key);
    await app.page.waitForTimeout(250);
  }
  await app.button('Wheels Brake').click();
  await expect(app.position).toHaveText('11.1', { timeout: 20_000 });
  await app.stop.first().click();
  await app.stop.first().click(); // to the top
  await app.page.getByRole('link', { name: 'Runs', exact: true }).click();
  await app.page.getByRole('button', { name: /^Open / }).click();
  await app.button('Listen').waitFor();
};

/** A set with a version that is compared, and others in the list. */
const compared = async (app: App) => {
  const { page } = app;
  const link = (place: string) => page.getByRole('link', { name: place, exact: true }).click();
  await link('Sets');
  await app.button('About Rink Night').click();
  await page
    .getByRole('textbox', { name: 'Note on Rink Night' })
    .fill('for the late skate; snare comes in at the second lap');
  await page.getByRole('textbox', { name: 'What is different' }).fill('before the rails were thinned out');
  await app.button('Keep version').click();
  await app.button('Duplicate').click();
  await link('Steps');
  for (const cell of ['Closed hat bar 1 beat 2 step 1', 'Closed hat bar 1 beat 4 step 1', 'Clap bar 2 beat 4 step 3']) {
    await page.getByRole('gridcell', { name: cell, exact: true }).click();
  }
  await app.setTempo(116);
  await link('Sets');
  await app.button('About Rink Night').click();
  await page.getByRole('button', { name: /^Compare before/ }).click();
  await page.getByText(/tempo 112 to 116/).waitFor();
  await page.getByRole('button', { name: /^(Undo this|Close notice)$/ }).waitFor({ state: 'hidden', timeout: 40_000 });
};

/** An open hat that a wave moves, while it plays. */
const shapedSound = async (app: App) => {
  await playing(app);
  await app.page.getByRole('link', { name: 'Sounds', exact: true }).click();
  await app.button('Sound 7 Open hat').click();
  await app.button('LFO').click();
  await app.button('Add a wave').click();
  await app.page.keyboard.press('Escape');
  for (const [name, number] of [['Pitch', '2'], ['Decay', '425'], ['Filter', '8400'], ['Drive', '3']] as const) await typeInto(app, `${name} number`, number); // prettier-ignore
  await app.button('Kit').scrollIntoViewIfNeeded();
  await app.page.waitForTimeout(1500); // pictures of sounds are drawn when nothing else is to be done
};

const shelf = async (app: App) => {
  await shapedSound(app);
  await app.button('Shelf').click();
  await app.button('Try Canal Brick').click();
  await app.page.waitForTimeout(1500);
};

/** A loop of the demo as a recording, cut at its onsets. */
const cutLoop = async (app: App) => {
  const { tracks, tempo } = demoSet();
  const { left, right } = renderLoop({
    track: tracks[0]!,
    pattern: tracks[0]!.patterns[0]!,
    tempo,
    sampleRate: SAMPLE_RATE,
  });
  const file = {
    name: 'Rink floor.wav',
    mimeType: 'audio/wav',
    buffer: Buffer.from(writeSampleWav({ channels: [left, right] })),
  };
  await app.open();
  await app.page.getByRole('link', { name: 'Sounds', exact: true }).click();
  await app.button('Sound 16 Snap').click();
  const [chooser] = await Promise.all([app.page.waitForEvent('filechooser'), app.button('Load sample').click()]);
  await chooser.setFiles([file]);
  await app.button('Slice').click();
  await app.page.getByRole('button', { name: /^Cut at / }).click();
  await app.button('Next piece').click();
  await expect(app.page.getByText('Loaded onto')).toHaveCount(0);
};

const VIEWS: [name: string, size: typeof PHONE, arrive: (app: App) => Promise<void>][] = [
  ['pads-phone', PHONE, playing],
  [
    'launch-phone',
    PHONE,
    async (app) => {
      await launched(app);
      await app.button('Rails Ticks').click();
      await app.button('Lamps Glow').click();
    },
  ],
  [
    'launch-wide',
    WIDE,
    async (app) => {
      await launched(app);
      await choose(app, 'Drop on', '4 bars');
      await app.button('Section Couples Only').click();
    },
  ],
  [
    'sections-phone',
    PHONE,
    async (app) => {
      await launched(app);
      await app.button('Edit sections').click();
      await app.button('Edit section Fast Laps').click();
    },
  ],
  ['sets-wide', WIDE, compared],
  ['sounds-phone', PHONE, shapedSound],
  ['slice-phone', PHONE, cutLoop],
  ['shelf-wide', WIDE, shelf],
  ['start-phone', PHONE, (app) => app.menu('Start page')],
  [
    'simple-lying',
    LYING,
    async (app) => {
      await app.tool('Simple view');
      await app.play.click();
      await app.page.waitForTimeout(1000);
    },
  ],
  [
    'steps-phone',
    PHONE,
    async (app) => {
      await ofNotes(app);
      await playing(app);
    },
  ],
  [
    'steps-wide',
    WIDE,
    async (app) => {
      await shaped(app);
      await choose(app, 'Moves lane', 'Filter');
      const lane = (await app.page.getByRole('img', { name: /^Moves of filter/ }).boundingBox())!;
      const at = (x: number, y: number) => ({ x: lane.x + lane.width * x, y: lane.y + lane.height * y });
      await drag(app, at(0.01, 0.9), at(0.5, 0.2), 12);
      await drag(app, at(0.51, 0.3), at(0.98, 0.7), 12);
      await app.button('Loop window').click();
      await playing(app);
    },
  ],
  [
    'runs-phone',
    PHONE,
    async (app) => {
      await performed(app);
      await app.button('Listen').click();
      await app.page.waitForTimeout(3000);
    },
  ],
  [
    'runs-wide',
    WIDE,
    async (app) => {
      await performed(app);
      await app.button('Fix').click();
      const timeline = app.page.getByRole('application', { name: 'Timeline' });
      await timeline.focus();
      await app.page.keyboard.press('PageDown');
      await app.page.keyboard.press('Enter');
    },
  ],
  [
    'devices-phone',
    PHONE,
    async (app) => {
      await bench(app);
      await app.button('Devices').click();
      await app.button('Settings of Simulated pads').click();
    },
  ],
  ['mix-phone', PHONE, mixed],
  ['pads-lying', LYING, playing],
  ['pads-wide', WIDE, playing],
  [
    'panes-wide-light',
    WIDE,
    async (app) => {
      await light(app);
      await launched(app);
      await app.button('Second pane').click();
      await touchItem(app.page, 'Pads');
    },
  ],
];

for (const [name, viewport, arrive] of VIEWS) {
  test.describe(name, () => {
    test.use({ viewport });
    test('picture', async ({ app, page }) => {
      await app.open();
      await arrive(app);
      await page.waitForTimeout(350); // until menus and lights have moved
      await page.screenshot({ path: `docs/screenshots/${name}.png` });
    });
  });
}
