import { defineConfig } from '@playwright/test';
import { chromium, MICROPHONE, SOUND_AT_ONCE } from './e2e/support/chromium';

const PORT = 4199;

export default defineConfig({
  testDir: 'e2e',
  // npm run pictures takes pictures instead of testing.
  testMatch: process.env.PICTURES ? '*.pictures.ts' : '*.spec.ts',
  // One more than there are cores: most of a test's time is music that is waited for.
  workers: process.env.PICTURES ? 1 : 3,
  fullyParallel: true,
  // Generous: a shared machine may give the browser a fraction of its time.
  timeout: 240_000,
  expect: { timeout: 20_000 },
  // What a starved machine could spoil is measured again by the test itself: drummer.ts, `steadily`.
  retries: 0,
  reporter: [['list'], ['json', { outputFile: process.env.RESULTS ?? 'test-results/e2e.json' }]],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    // The ear of the tests (support/ear.ts) is a worklet made from a blob, which the app's own policy forbids.
    bypassCSP: true,
    acceptDownloads: true,
    // Each test loads what was built; offline.spec.ts allows them.
    serviceWorkers: 'block',
    launchOptions: { ...chromium, args: [...chromium.args, SOUND_AT_ONCE, ...MICROPHONE] },
  },
  webServer: {
    command: 'node scripts/start.mjs',
    env: { PORT: String(PORT) },
    url: `http://localhost:${PORT}`,
    reuseExistingServer: false,
    timeout: 600_000,
  },
});
