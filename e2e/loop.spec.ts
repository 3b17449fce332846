import { loopPosition } from '@/core/sequence/loopWindow';
import { expect, test } from './support/app';
import { heard, listen, of } from './support/ear';
import { drag, openSheet, openSteps, patternOf, setWith, typeInto } from './support/steps';

const BAR = 3840;
/** Two bars of sixteenths, each hit of its own pitch of tick: a hit's id tells where in the pattern it lies. */
const sixteenths = () =>
  setWith(
    Array.from({ length: 32 }, (_, i) => ({ pad: 4, tick: i * 240 })),
    2 * BAR,
    140,
  );
const tickOf = (id: number) => ((id - 1) / 2) * 240;

test('only the window goes round, from the next bar on and without a gap; the whole is back where it would have been', async ({
  app,
  page,
}) => {
  await openSteps(app, sixteenths());
  await openSheet(app, 'Length');
  await app.button('A moved window takes over Next bar').click();
  await app.button('Close length').click();
  await app.play.click();
  await listen(page, 0.4);
  await app.button('Loop window').click();
  await expect(app.button('Loop window')).toHaveAttribute('aria-pressed', 'true');
  await listen(page, 3);
  await app.button('Whole pattern').click();
  await listen(page, 4);
  const { events } = await heard(page);
  const windows = of(events, 'loop').filter((e) => e.track === 0);
  const [whole, bar, again] = windows.slice(-3);
  expect([whole!.span, bar!.span, again!.span]).toEqual([2 * BAR, BAR, 2 * BAR]);
  expect(bar!.tick % BAR).toBe(0);
  expect(again!.tick % BAR).toBe(0);
  // Every stroke is the one that the definition gives for its moment, and none is missing.
  const strokes = of(events, 'sounded');
  const window = (tick: number) => {
    const { start, span: length } = tick >= again!.tick ? again! : tick >= bar!.tick ? bar! : whole!;
    return { start, length };
  };
  for (const { id, placed } of strokes) expect(tickOf(id)).toBe(loopPosition(window(placed), placed));
  expect(strokes.map((e) => e.placed)).toEqual(strokes.map((_, i) => i * 240));
  expect(strokes.some((e) => e.placed > again!.tick && tickOf(e.id) >= BAR)).toBe(true);
});

test('the window’s ends are dragged on the ruler, down to a sixteenth, and moved with keys; each drag is one step of undo', async ({
  app,
  page,
}) => {
  await openSteps(app, sixteenths());
  const saved = (start: number, length: number) =>
    app.savedSet((s) => {
      const { window } = patternOf(s);
      return window?.start === start && window.length === length;
    });
  await app.button('Zoom out').click(); // both bars are in view
  const grid = (await page.getByRole('grid', { name: 'Steps' }).boundingBox())!;
  const grip = async (name: string) => {
    const box = (await page.getByRole('slider', { name }).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const beat = grid.width / 8;
  const end = await grip('Loop end');
  await drag(app, { x: end.x - 4, y: end.y }, { x: end.x - 4 - 4 * beat, y: end.y });
  await saved(0, BAR);
  const start = await grip('Loop start');
  await drag(app, start, { x: start.x + 20 * beat, y: start.y });
  await saved(BAR - 240, 240);
  // The bracket between the grips takes the whole window along.
  await page.getByRole('slider', { name: 'Loop end' }).press('ArrowRight');
  await saved(BAR - 240, 480);
  await page.getByRole('slider', { name: 'Loop start' }).press('ArrowLeft');
  await saved(BAR - 480, 720);
  await expect(page.getByRole('slider', { name: 'Loop start' })).toHaveAttribute(
    'aria-valuetext',
    'bar 1 beat 4 step 3',
  );
  for (const [s, l] of [
    [BAR - 240, 480],
    [BAR - 240, 240],
    [0, BAR],
  ] as const) {
    // prettier-ignore
    await app.undo.click();
    await saved(s, l);
  }
  await app.undo.click();
  expect(patternOf(await app.savedSet((s) => !patternOf(s).window))).toEqual(patternOf(sixteenths()));
});

test('length in bars, beats and steps; halved, doubled with repeat and empty, cropped: the tape keeps everything', async ({
  app,
}) => {
  const before = sixteenths();
  await openSteps(app, before);
  await openSheet(app, 'Length');
  const length = (ticks: number, hits: number) =>
    app.savedSet((s) => patternOf(s).length === ticks && patternOf(s).hits.length === hits);
  await app.button('Unit Beats').click();
  await typeInto(app, 'Pattern length', '3');
  await length(3 * 960, 32);
  await app.button('Unit Steps').click();
  await typeInto(app, 'Pattern length', '7');
  await length(7 * 240, 32);
  await app.button('Halve').click();
  await length(840, 32);
  await typeInto(app, 'Pattern length', '0,25'); // less than a sixteenth: brought to it, and said so
  await expect(app.page.getByText(/Pattern length can be from 1 to 1024 steps/)).toBeVisible();
  await length(240, 32);
  await app.button('Unit Bars').click();
  await typeInto(app, 'Pattern length', '2');
  await app.button('Double with empty').click();
  await length(4 * BAR, 32);
  await app.button('Double with repeat').click();
  await length(8 * BAR, 64);
  await typeInto(app, 'Window start', '1');
  await typeInto(app, 'Window length', '1');
  await app.button('Crop to window').click();
  const cropped = await length(BAR, 64);
  const bar2 = patternOf(cropped).hits.filter((h) => h.tick < BAR);
  expect(bar2.map((h) => h.id)).toEqual(
    patternOf(before)
      .hits.slice(16)
      .map((h) => h.id),
  );
  for (let i = 0; i < 10; i++) await app.undo.click();
  // Changed once, it has a place among the sets of this device.
  expect(await length(2 * BAR, 32)).toEqual({ ...before, id: (await app.savedNow()).id });
});
