import { test, type Page } from '@playwright/test';
import { LIMITER_LATENCY } from '@/core/sound/limiter';
import { CHECK_CLICKS, LEAD_IN_CLICKS } from '@/core/time/latency';
import { EVENT_WIDTH, PACKED_KIND } from '@/core/protocol/events';
import { hears } from './ear';

/** One stroke: pad 1..16, and when, in ms from the moment at which the song's tick 0 is heard. */
export interface Stroke {
  pad: number;
  ms: number;
}

/**
 * A drummer in the page: listens for where tick 0 of the running song is heard and strikes the pads at given times after it. Each
 * pointer event has the time stamp of its stroke, as a touch screen gives it, however late a busy page comes to it.
 */
export async function drum(page: Page, strokes: readonly Stroke[]): Promise<void> {
  await strike(page, strokes, await songZero(page));
}

/** Drums while something else is done, and lays the sticks down when that is done. */
export async function drumDuring(page: Page, strokes: readonly Stroke[], act: () => Promise<void>): Promise<void> {
  const playing = drum(page, strokes);
  await act();
  await page.evaluate(() => {
    (window as unknown as { sticksDown: boolean }).sticksDown = true;
  });
  await playing;
}

/** How far the clocks of page and sound may move against each other while it is drummed, ms: strokes keep this far from the edge. */
const CLOCKS_MS = 20;
/** So often is it tried, and so often once a test of this run has given up: a machine that is starved stays so for minutes. */
const ATTEMPTS = { first: 6, afterGivingUp: 2 };
let gaveUp = false;
/** The longest time without a display frame in which it can still be told what a player would have seen, ms. */
const FRAMES_MS = 1000;

/**
 * Does something that strikes by the clock, and measures whether the machine let it: on a starved one the sound falls behind the
 * page's clock (an underrun), and what was heard when a pad was struck is not what was meant; or the browser shows no frame for
 * seconds, and what the page meant to show was never seen. Then it is done again, from `prepare` on, in time of its own. On a machine that
 * never lets it, the test is skipped and says so. The title of a test that uses this ends in @alone: `npm test` runs those one at a time,
 * with nothing beside them.
 * @param within how far the clocks may move meanwhile, ms
 */
export async function steadily(
  page: Page,
  prepare: () => Promise<void>,
  play: () => Promise<void>,
  within = CLOCKS_MS,
): Promise<void> {
  for (let attempt = 1; ; attempt++) {
    const began = Date.now();
    await prepare();
    // A slow machine shows the page before its sound has begun, and there is no clock to read yet.
    await hears(page);
    await watchFrames(page);
    const before = await clockOffset(page);
    // What a starved machine made of it may be anything, a failure too.
    const failure = await play().then(
      () => null,
      (error: unknown) => ({ error }),
    );
    const moved = Math.abs((await clockOffset(page)) - before);
    const frozen = await longestFrame(page);
    if (moved < within && frozen < FRAMES_MS) {
      if (failure) throw failure.error;
      return;
    }
    const why = `sound and page moved ${moved.toFixed(1)} ms apart, ${frozen.toFixed(0)} ms without a frame`;
    if (attempt === (gaveUp ? ATTEMPTS.afterGivingUp : ATTEMPTS.first)) {
      gaveUp = true;
      const reason = `This machine is too busy to drum on, ${attempt} times over: ${why}.`;
      console.log(`NOT MEASURED: ${test.info().title}. ${reason}`);
      test.skip(true, reason);
    }
    console.log(`The machine was starved (${why}): measured again.`);
    test.setTimeout(test.info().timeout + Date.now() - began);
  }
}

/** Measures from now on how long the page waits for its frames. */
function watchFrames(page: Page): Promise<void> {
  return page.evaluate(() => {
    const frames = { last: performance.now(), longest: 0 };
    (window as unknown as { frames: typeof frames }).frames = frames;
    const look = (now: number) => {
      if ((window as unknown as { frames: typeof frames }).frames !== frames) return;
      frames.longest = Math.max(frames.longest, now - frames.last);
      frames.last = now;
      requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
}

/** The longest time between two frames since `watchFrames`, ms; the one that is waited for counts too. */
function longestFrame(page: Page): Promise<number> {
  return page.evaluate(() => {
    const { frames } = window as unknown as { frames: { last: number; longest: number } };
    return Math.max(frames.longest, performance.now() - frames.last);
  });
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
export async function drumFreely(page: Page, strokes: readonly Stroke[]): Promise<void> {
  await strike(page, strokes, (await page.evaluate(() => performance.now())) + 150);
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

/** Strikes pads by pointer events, each stamped with its ms after `zero`. */
async function strike(page: Page, strokes: readonly Stroke[], zero: number): Promise<void> {
  const taps = strokes.map(({ pad, ms }) => ({ selector: `[data-pad="${pad - 1}"]`, pointerId: pad, at: zero + ms }));
  await tap(page, taps);
}

/** Taps a button again and again, `every` ms, by the time stamps of its pointer events. */
export async function tapEvenly(page: Page, name: string, every: number, times: number): Promise<void> {
  const start = (await page.evaluate(() => performance.now())) + 50;
  await tap(
    page,
    Array.from({ length: times }, (_, i) => ({
      selector: `[aria-label="${name}"]`,
      pointerId: 1,
      at: start + i * every,
    })),
  );
}

/**
 * A player whose device tells of every touch late: starts the latency check and taps along with its clicks.
 * @param lateMs how much later than its click is heard each tap is stamped
 */
export async function tapToTheCheck(page: Page, lateMs: number): Promise<void> {
  await page.getByRole('button', { name: 'Start latency check' }).waitFor();
  await page.evaluate(
    async ({ width, checked, latency, clicks, late }) => {
      type Message = { origin: number; events: Float64Array };
      const { ear } = window as unknown as { ear: { messages: Message[]; context: AudioContext } };
      const from = ear.messages.length;
      document.querySelector<HTMLElement>('[aria-label="Start latency check"]')!.click();
      const tapped = new Set<number>();
      while (tapped.size < clicks) {
        for (const { events, origin } of ear.messages.slice(from)) {
          for (let i = 0; i < events.length; i += width) {
            const frame = events[i + 1]!;
            if (events[i] !== checked || tapped.has(frame)) continue;
            const { contextTime, performanceTime } = ear.context.getOutputTimestamp();
            const heardAt =
              performanceTime! + ((frame + origin + latency) / ear.context.sampleRate - contextTime!) * 1000;
            if (performance.now() < heardAt + late) continue;
            tapped.add(frame);
            const event = new PointerEvent('pointerdown', { pointerType: 'touch', pointerId: 5, bubbles: true });
            Object.defineProperty(event, 'timeStamp', { value: heardAt + late });
            document.querySelector('[aria-label="Tap here"]')!.dispatchEvent(event);
          }
        }
        await new Promise((done) => setTimeout(done, 5));
      }
    },
    {
      width: EVENT_WIDTH,
      checked: PACKED_KIND.checked,
      latency: LIMITER_LATENCY,
      clicks: LEAD_IN_CLICKS + CHECK_CLICKS,
      late: lateMs,
    },
  );
}

function tap(page: Page, taps: readonly { selector: string; pointerId: number; at: number }[]): Promise<void> {
  return page.evaluate(async (all) => {
    const sticks = window as unknown as { sticksDown: boolean };
    sticks.sticksDown = false;
    for (const { selector, pointerId, at } of all) {
      await new Promise((done) => setTimeout(done, Math.max(0, at - performance.now())));
      if (sticks.sticksDown) return;
      const element = document.querySelector(selector)!;
      const box = element.getBoundingClientRect();
      const place = { clientX: box.x + box.width / 2, clientY: box.y + box.height / 2 };
      for (const type of ['pointerdown', 'pointerup']) {
        const event = new PointerEvent(type, { ...place, pointerId, pointerType: 'touch', bubbles: true });
        Object.defineProperty(event, 'timeStamp', { value: at });
        element.dispatchEvent(event);
      }
    }
  }, taps);
}
