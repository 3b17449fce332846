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
 * it, by pointer events. Late strokes are struck all the same.
 * @returns when each stroke really came: the event's time stamp, in ms from tick 0
 */
export async function drum(page: Page, strokes: readonly Stroke[]): Promise<number[]> {
  return strike(page, strokes, await songZero(page));
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

/** Strikes pads by pointer events, each at its ms after `zero`, and returns when each really came. */
function strike(page: Page, strokes: readonly Stroke[], zero: number): Promise<number[]> {
  return page.evaluate(
    async ({ all, start }) => {
      const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms));
      const came: number[] = [];
      for (const { pad, ms } of all) {
        await sleep(Math.max(0, start + ms - performance.now() - 8));
        while (performance.now() < start + ms);
        const element = document.querySelector(`[data-pad="${pad - 1}"]`)!;
        const box = element.getBoundingClientRect();
        const at = { clientX: box.x + box.width / 2, clientY: box.y + box.height / 2, pointerId: pad, bubbles: true };
        const down = new PointerEvent('pointerdown', { ...at, pointerType: 'touch' });
        element.dispatchEvent(down);
        element.dispatchEvent(new PointerEvent('pointerup', { ...at, pointerType: 'touch' }));
        came.push(down.timeStamp - start);
      }
      return came;
    },
    { all: strokes, start: zero },
  );
}
