import type { Page } from '@playwright/test';
import { LIMITER_LATENCY } from '@/core/dsp/limiter';
import { EVENT_FIELDS } from '@/core/engine/protocol';

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
  return page.evaluate(
    async ({ strokes: all, latency, fields }) => {
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
      const zero = readings.sort((a, b) => a - b)[4]!;
      const came: number[] = [];
      for (const { pad, ms } of all) {
        await sleep(Math.max(0, zero + ms - performance.now() - 8));
        while (performance.now() < zero + ms);
        const element = document.querySelector(`[data-pad="${pad - 1}"]`)!;
        const box = element.getBoundingClientRect();
        const at = { clientX: box.x + box.width / 2, clientY: box.y + box.height / 2, pointerId: pad, bubbles: true };
        const down = new PointerEvent('pointerdown', { ...at, pointerType: 'touch' });
        element.dispatchEvent(down);
        element.dispatchEvent(new PointerEvent('pointerup', { ...at, pointerType: 'touch' }));
        came.push(down.timeStamp - zero);
      }
      return came;
    },
    { strokes, latency: LIMITER_LATENCY, fields: EVENT_FIELDS },
  );
}

/**
 * Strikes pads at given times (ms from the first call) without any song, each as near its time as the page can.
 * The strokes are struck even when the page is late.
 */
export async function drumFreely(page: Page, strokes: readonly Stroke[]): Promise<void> {
  await page.evaluate(async (all) => {
    const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms));
    const zero = performance.now() + 100;
    for (const { pad, ms } of all) {
      await sleep(Math.max(0, zero + ms - performance.now() - 8));
      while (performance.now() < zero + ms);
      const element = document.querySelector(`[data-pad="${pad - 1}"]`)!;
      const box = element.getBoundingClientRect();
      const at = { clientX: box.x + box.width / 2, clientY: box.y + box.height / 2, pointerId: pad, bubbles: true };
      element.dispatchEvent(new PointerEvent('pointerdown', { ...at, pointerType: 'touch' }));
      element.dispatchEvent(new PointerEvent('pointerup', { ...at, pointerType: 'touch' }));
    }
  }, strokes);
}
