import type { Browser } from 'playwright-core';
import { SOUND, type Run } from '@/core/document/run';
import { writeSet } from '@/core/document/readSet';
import { FIRST_STAGE, type Stage } from '@/core/document/stage';
import { Engine } from '@/core/engine/engine';
import { documentInstructions } from '@/core/engine/replay';
import { at, type Instruction } from '@/core/protocol/commands';
import { logText } from '@/core/protocol/performedLog';
import { fullMix } from '../fullMix';
import { storeEntries } from '../openPage';
import { crowded } from '../quanta';
import { median, row, steal } from '../table';

const SR = 48000;
const BEGIN = 512;
const SECONDS = 40;

const MIXES = ['dry', 'full'] as const;
type Times = Record<(typeof MIXES)[number], number[]>;

/** Sixteen tracks, some 64 voices: a file of them, dry and with everything of the mix on, by one worker and by two. */
export async function carryRows(browser: Browser, base: string) {
  const one = await carryTimes(browser, base, 1);
  const two = await carryTimes(browser, base, 2);
  const share = median(two.dry) / median(two.full);
  row(
    `a WAV of ${SECONDS} s, 16 tracks, 64 voices, 4 groups, every effect of every channel on, by two workers: share of the speed of the same dry, medians of three`,
    `${share.toFixed(2)}: ${words(two.full)} against ${words(two.dry)} (${steal()})`,
    '>= 0.6',
    share >= 0.6,
  );
  const gain = median(one.full) / median(two.full);
  row('the same by one worker, everything on and dry; how much faster two are with everything on', `${words(one.full)} and ${words(one.dry)}; ${gain.toFixed(2)} times`); // prettier-ignore
}

const words = (times: number[]) => `${(median(times) / 1000).toFixed(1)} s`;

/** ms from the touch until the file is made. */
async function carryTimes(browser: Browser, base: string, processors: number): Promise<Times> {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await page.addInitScript((count) => {
    Object.defineProperty(navigator, 'hardwareConcurrency', { get: () => count });
  }, processors);
  await storeEntries(page, base, {
    ...stored('dry', []),
    ...stored('full', fullMix()),
    settings: JSON.stringify({ started: true }),
  });
  await page.goto(`${base}/runs`);
  const button = (name: string) => page.getByRole('button', { name, exact: true });
  const times: Times = { dry: [], full: [] };
  // The first of each: the page is still busy with itself.
  for (let round = 0; round < 4; round++) {
    for (const mix of MIXES) {
      await button(`Open ${mix}`).click();
      await button('Listen').waitFor();
      await button('Carry away').click();
      await page.getByRole('menuitem', { name: 'WAV mix', exact: true }).click();
      const start = performance.now();
      await button('Close report').waitFor({ timeout: 120_000 });
      if (round > 0) times[mix].push(performance.now() - start);
      await button('Close report').click();
      await button('All runs').click();
    }
  }
  await context.close();
  return times;
}

/** A run of a crowded set, as it lies in the app's storage. @param told before it begins to play */
function stored(name: string, told: Instruction[]): Record<string, string> {
  const set = crowded(1);
  const tracks = Object.fromEntries(set.order.map((id) => [id, FIRST_STAGE]));
  const stage: Stage = { shown: set.order[0]!, tracks };
  const engine = new Engine(SR);
  for (const instruction of documentInstructions(set, stage)) engine.post(at(0, instruction));
  for (const id of set.order) engine.post(at(0, { type: 'launch', track: id, slot: 0, on: 0, inPlace: false }));
  engine.process(new Float32Array(BEGIN), new Float32Array(BEGIN));
  engine.log.keep(true);
  engine.post(at(BEGIN, { type: 'snapshot', id: 1, state: null }));
  for (const instruction of told) engine.post(at(BEGIN + 1, instruction));
  engine.post(at(2 * BEGIN, { type: 'play', startTick: 0, countInTicks: 0 }));
  engine.skim(SECONDS * SR - BEGIN);
  const run: Run = {
    schema: 1,
    id: name,
    name,
    marked: false,
    at: new Date(0).toISOString(),
    log: name,
    from: 2 * BEGIN,
    to: SECONDS * SR,
    sampleRate: SR,
    sound: SOUND,
    set: `version ${name}`,
    stage,
    letters: 0,
    hits: 1000,
    launches: 0,
    tempo: { least: 120, most: 120 },
  };
  return {
    [`run ${name}`]: JSON.stringify(run),
    [`log ${name} 0`]: logText(engine.log.drain()),
    [`version ${name}`]: writeSet({ set, stage }),
  };
}
