import type { Page } from '@playwright/test';
import { LIMITER_LATENCY } from '@/core/sound/limiter';
import { EVENT_WIDTH } from '@/core/protocol/events';

/** One stroke: pad 1..16, and when, in ms from the moment at which the song's tick 0 is heard. */
export interface Stroke {
  pad: number;
  ms: number;
}

/**
 * A drummer in the page: listens for where tick 0 of the running song is heard and strikes the pads at given times after
 * it, by pointer events. Late strokes are struck all the same: see `steadily`.
 * @returns how late each stroke came, ms
 */
export async function drum(page: Page, strokes: readonly Stroke[]): Promise<number[]> {
  return strike(page, strokes, await songZero(page));
}

/** How far the clocks of page and sound may move against each other, and a stroke come late, for a measurement to count, ms. */
const CLOCKS_MS = 2;
const LATE_MS = 10;
const ATTEMPTS = 6;

/**
 * Does something that strikes or presses by the clock, and measures whether the machine let it: a starved machine lets the sound
 * fall behind the page's clock (an underrun) or a stroke come late, and then what was played is not what was meant. Such a
 * measurement is made again, from `prepare` on.
 * @param play returns how late each stroke came, ms
 */
export async function steadily(page: Page, prepare: () => Promise<void>, play: () => Promise<number[]>): Promise<void> {
  for (let attempt = 1; ; attempt++) {
    await prepare();
    const before = await clockOffset(page);
    const late = Math.max(...(await play()));
    const moved = Math.abs((await clockOffset(page)) - before);
    if (moved < CLOCKS_MS && late < LATE_MS) return;
    const why = `sound and page moved ${moved.toFixed(1)} ms apart, the latest stroke was ${late.toFixed(1)} ms late`;
    if (attempt === ATTEMPTS) throw new Error(`This machine is too busy to drum on, ${ATTEMPTS} times over: ${why}.`);
    console.log(`The machine was starved (${why}): measured again.`);
  }
}

/** The audio clock against the page's, ms: the median of several readings. */
function clockOffset(page: Page): Promise<number> {
  return page.evaluate(async () => {
    const { context } = (window as unknown as { ear: { context: AudioContext } }).ear;
    const readings: number[] = [];
    while (readings.length < 9) {
      const { contextTime, performanceTime } = context.getOutputTimestamp();
      if (contextTime) readings.push(contextTime * 1000 - performanceTime!);
      await new Promise((done) => setTimeout(done, 5));
    }
    return readings.sort((a, b) => a - b)[4]!;
  });
}

/** Strikes pads at given times without any song, counted from soon after the call. */
export async function drumFreely(page: Page, strokes: readonly Stroke[]): Promise<number[]> {
  return strike(page, strokes, (await page.evaluate(() => performance.now())) + 150);
}

/** When tick 0 of the running song is heard: ms on the page's clock. */
function songZero(page: Page): Promise<number> {
  return page.evaluate(
    async ({ latency, fields }) => {
      type Message = { origin: number; events: Float64Array };
      const { ear } = window as unknown as { ear: { messages: Message[]; context: AudioContext } };
      const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms));
      const startFrame = () => {
        for (const { events, origin } of [...ear.messages].reverse()) {
          for (let i = events.length - fields; i >= 0; i -= fields) {
            const [kind, frame, tick, framesPerTick, playing] = events.subarray(i, i + 5);
            if (kind === 0) return playing === 1 ? frame! + origin - tick! * framesPerTick! : null;
          }
        }
        return null;
      };
      let frame = startFrame();
      while (frame === null) {
        await sleep(10);
        frame = startFrame();
      }
      const seconds = (frame + latency) / ear.context.sampleRate;
      // The median of several readings of the two clocks.
      const readings: number[] = [];
      while (readings.length < 9) {
        const { contextTime, performanceTime } = ear.context.getOutputTimestamp();
        if (contextTime) readings.push(performanceTime! + (seconds - contextTime) * 1000);
        await sleep(5);
      }
      return readings.sort((a, b) => a - b)[4]!;
    },
    { latency: LIMITER_LATENCY, fields: EVENT_WIDTH },
  );
}

/** Strikes pads by pointer events, each at its ms after `zero`, and returns how late each came. */
function strike(page: Page, strokes: readonly Stroke[], zero: number): Promise<number[]> {
  return page.evaluate(
    async ({ all, start }) => {
      const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms));
      const late: number[] = [];
      for (const { pad, ms } of all) {
        await sleep(Math.max(0, start + ms - performance.now() - 8));
        while (performance.now() < start + ms);
        const element = document.querySelector(`[data-pad="${pad - 1}"]`)!;
        const box = element.getBoundingClientRect();
        const at = { clientX: box.x + box.width / 2, clientY: box.y + box.height / 2, pointerId: pad, bubbles: true };
        const down = new PointerEvent('pointerdown', { ...at, pointerType: 'touch' });
        element.dispatchEvent(down);
        element.dispatchEvent(new PointerEvent('pointerup', { ...at, pointerType: 'touch' }));
        late.push(down.timeStamp - start - ms);
      }
      return late;
    },
    { all: strokes, start: zero },
  );
}
