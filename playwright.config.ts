import { defineConfig } from '@playwright/test';

const PORT = 4199;

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // Sound needs the machine for itself.
  workers: 1,
  timeout: 90_000,
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    // The ear of the tests (support/ear.ts) is a worklet made from a blob, which the app's own policy forbids.
    bypassCSP: true,
    acceptDownloads: true,
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        ...['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
        ...['--disable-background-networking', '--disable-component-update', '--disable-sync'],
        '--autoplay-policy=no-user-gesture-required',
      ],
    },
  },
  webServer: {
    command: 'node scripts/start.mjs',
    env: { PORT: String(PORT) },
    url: `http://localhost:${PORT}`,
    reuseExistingServer: false,
    timeout: 600_000,
  },
});
