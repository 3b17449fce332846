import type { Browser } from 'playwright-core';
import { demoSet } from '@/core/document/demo';
import { countFrames, storeSet, words } from '../openPage';
import { row, steal } from '../table';

/** 16 lanes x 16 bars of sixteenths with 2,000 hits, eight bars in view: how the display keeps up while it plays and scrolls. */
export async function stepsRow(browser: Browser, base: string) {
  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  const set = demoSet().set;
  const pattern = set.tracks[0]!.patterns[0]!;
  pattern.length = 16 * 3840;
  pattern.hits = Array.from({ length: 2000 }, (_, i) => {
    const cell = (i * 2.048) | 0;
    // An id that no other pattern of the demo has.
    return { id: 1_000_001 + 2 * i, pad: cell % 16, tick: (cell >> 4) * 240, length: 60, velocity: 0.6, snap: null };
  });
  await countFrames(page);
  await storeSet(page, base, set);
  await page.goto(`${base}/steps`);
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Zoom out', exact: true }).click();
  await page.waitForTimeout(500); // the cells' names follow the picture
  const cells = await page.getByRole('gridcell').count();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  /** While a wheel turns by so much a frame. */
  const frames = (deltaX: number, deltaY: number) =>
    page.evaluate(
      async ([x, y]) => {
        const grid = document.querySelector('[role="grid"]')!;
        const turn = (way: number) =>
          grid.dispatchEvent(new WheelEvent('wheel', { deltaX: x! * way, deltaY: y! * way, bubbles: true }));
        return frameGaps((way) => void (x || y ? turn(way) : 0), 40);
      },
      [deltaX, deltaY] as const,
    );
  const playing = await frames(0, 0);
  const lanes = await frames(0, 9);
  const time = await frames(9, 0);
  await page.waitForTimeout(500);
  // From the event of a press to the hit's own pixels, and whether the next display frame has them.
  const painted = await page.evaluate(async () => {
    const grid = document.querySelector('[role="grid"]')!;
    const context = grid.querySelector('canvas')!.getContext('2d')!;
    const box = grid.getBoundingClientRect();
    const empty = [...document.querySelectorAll<HTMLElement>('[role="gridcell"][aria-selected="false"]')]
      .map((cell) => cell.getBoundingClientRect())
      .filter((cell) => cell.top > box.top && cell.bottom < box.bottom);
    // Nothing captures a pointer that no hardware holds.
    Element.prototype.setPointerCapture = () => undefined;
    const times: number[] = [];
    let nextFrame = 0;
    for (let i = 0; i < 20; i++) {
      const cell = empty[i * 7]!;
      const look = () =>
        context.getImageData(cell.left - box.left, cell.top - box.top, 9, cell.height).data.reduce((a, b) => a + b, 0);
      const at = { clientX: cell.left + 1, clientY: cell.top + 5, pointerId: 1, pointerType: 'touch', bubbles: true };
      await new Promise((done) => requestAnimationFrame(done));
      await new Promise((done) => setTimeout(done, 3));
      const before = look();
      const start = performance.now();
      grid.dispatchEvent(new PointerEvent('pointerdown', at));
      const isDrawn = new Promise<boolean>((done) => requestAnimationFrame(() => done(look() !== before)));
      // What the event set off is drawn when its own tasks are over, not a timer's turn later.
      await Promise.resolve();
      await Promise.resolve();
      const drawn = performance.now() - start;
      if (look() === before) throw new Error('A step was pressed and not drawn at once.');
      times.push(drawn);
      grid.dispatchEvent(new PointerEvent('pointerup', at));
      if (await isDrawn) nextFrame++;
    }
    return { ms: times.sort((a, b) => a - b)[10]!, nextFrame, of: times.length };
  });
  row(
    `4,096 steps, 2,000 hits, ${cells} cells in view on a phone, playing`,
    `${words(playing)}; scrolling lanes ${words(lanes)}; scrolling time ${words(time)} (${steal()})`,
    'medians <= 17 ms',
    [playing, lanes, time].every((gaps) => gaps[gaps.length >> 1]! <= 17),
  );
  row(
    'the same: a step painted',
    `drawn ${painted.ms.toFixed(1)} ms after its press (median), by the next display frame ${painted.nextFrame} of ${painted.of}`,
    'within a frame',
    painted.ms <= 17,
  );
  await page.close();
}
