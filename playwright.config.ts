import { defineConfig } from '@playwright/test';
import { chromium, SOUND_AT_ONCE } from './e2e/support/chromium';

const PORT = 4199;
/** Tests that look and do not listen. */
const SILENT = /(usable|screen|storage|start|patterns|edits|export|policy)\.spec\.ts$/;
const SOUNDING = /(craft|journey|launch|locked|loop|recording|sound|steps)\.spec\.ts$/;
/** npm test runs the two parts one after the other. */
const part = process.env.E2E_PART;
const SILENT_PART = part === 'silent';
const SOUNDING_PART = part === 'sounding';

export default defineConfig({
  testDir: 'e2e',
  // npm run pictures takes pictures instead of testing.
  testMatch: process.env.PICTURES ? '*.pictures.ts' : SILENT_PART ? SILENT : SOUNDING_PART ? SOUNDING : '*.spec.ts',
  // What is listened to sample by sample needs the machine for itself; the rest shares it.
  workers: SILENT_PART ? 2 : 1,
  fullyParallel: SILENT_PART,
  // Generous: a shared machine may give the browser a fraction of its time.
  timeout: 240_000,
  expect: { timeout: 20_000 },
  // Two tests of timing can still be failed by a machine that starves the page (the journey's drummer, the beats left on a card).
  retries: SOUNDING_PART ? 1 : 0,
  reporter: [['list'], ['json', { outputFile: `test-results/e2e${part ? `-${part}` : ''}.json` }]],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    // The ear of the tests (support/ear.ts) is a worklet made from a blob, which the app's own policy forbids.
    bypassCSP: true,
    acceptDownloads: true,
    launchOptions: { ...chromium, args: [...chromium.args, SOUND_AT_ONCE] },
  },
  webServer: {
    command: 'node scripts/start.mjs',
    env: { PORT: String(PORT) },
    url: `http://localhost:${PORT}`,
    reuseExistingServer: false,
    timeout: 600_000,
  },
});
