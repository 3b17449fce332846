import { execSync } from 'node:child_process';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import express from 'express';
import { chromium } from 'playwright-core';
import { chromium as debian, SOUND_AT_ONCE } from '../e2e/support/chromium';
import { createApp } from '../server/app';
import { calibrate, renderSpeed } from './engineLoad';
import { carryRows } from './rows/carry';
import { controllerRows } from './rows/controllers';
import { engineRows } from './rows/engine';
import { firstLoadRow } from './rows/firstLoad';
import { keepRow } from './rows/keep';
import { launchRow } from './rows/launch';
import { mixRow } from './rows/mix';
import { pageRows } from './rows/page';
import { recordRow } from './rows/record';
import { runsRows } from './rows/runs';
import { schedulerRows } from './rows/scheduler';
import { slowRows, visitRows } from './rows/slow';
import { stepsRow } from './rows/steps';
import { threadRows } from './rows/thread';
import { printTable, row } from './table';

const HERE = path.dirname(fileURLToPath(import.meta.url));

function baseOf(server: Server): string {
  return `http://localhost:${(server.address() as AddressInfo).port}`;
}

/** `npm run bench -- --only=launch` measures one part: engine, scheduler, page, firstLoad, keep, record, controllers, steps,
 *  launch, mix, runs, carry, visit, slow, thread. */
const ONLY = process.argv.find((argument) => argument.startsWith('--only='))?.slice(7);

const render = process.argv.find((argument) => argument.startsWith('--render='))?.slice(9);
if (render) {
  renderSpeed(Number(render));
  const calibration = calibrate();
  process.stdout.write(JSON.stringify({ ...renderSpeed(Number(render)), calibration }));
  process.exit(0);
}

/** Measures one part. What fails there is a row of its own: the rest is still measured and printed. */
async function measure(part: string, run: () => void | Promise<void>): Promise<void> {
  if (ONLY !== undefined && ONLY !== part) return;
  try {
    await run();
  } catch (error) {
    row(
      part,
      `failed: ${error instanceof Error ? error.message.split('\n').slice(0, 4).join(' ') : String(error)}`,
      'to be measured',
      false,
    );
  }
}

console.error('Measuring. Nothing else should run on this machine meanwhile.');
await measure('engine', engineRows);
const app = express();
app.use('/bench', express.static(HERE));
app.get(
  '/bench/index.html',
  (_request, response) =>
    void response.send('<!doctype html><title>bench</title><script src="/bench/page.js"></script>'),
);
app.get(
  '/bench/empty.html',
  (_request, response) => void response.send('<!doctype html><title>empty</title><main>.</main>'),
);
app.use(createApp(path.join(HERE, '..', 'app')));
const server = app.listen(0);
const base = baseOf(server);
const browser = await chromium.launch({ ...debian, args: [...debian.args, SOUND_AT_ONCE] });
await measure('scheduler', () => schedulerRows(browser, base));
await measure('page', () => pageRows(browser, base));
await measure('firstLoad', () => firstLoadRow(browser, base));
await measure('keep', () => keepRow(browser, base));
await measure('record', () => recordRow(browser, base));
await measure('controllers', () => controllerRows(browser, base));
await measure('steps', () => stepsRow(browser, base));
await measure('launch', () => launchRow(browser, base));
await measure('mix', () => mixRow(browser, base));
await measure('runs', () => runsRows(browser, base));
await measure('carry', () => carryRows(browser, base));
await measure('visit', () => visitRows(browser, base));
await measure('slow', () => slowRows(browser, base));
await measure('thread', () => threadRows(browser, base, HERE));
await browser.close();
server.close();

console.log(`\n${execSync(`${debian.executablePath} --version`).toString().trim()}, Node ${process.version}\n`);
printTable();
