import type { Browser } from 'playwright-core';
import { row, steal } from '../table';

interface Onsets {
  expected: number;
  within: number;
  missing: number;
  worstMs: number;
}

/** `npm run bench -- --long` plays for ten minutes as well. */
const LONG = process.argv.includes('--long');

export async function schedulerRows(browser: Browser, base: string) {
  const runs: [name: string, label: string, seconds: number][] = [
    ['engine', 'Chaffinch, engine in the audio thread', 30],
    ['lookahead', 'look-ahead scheduler on the main thread', 30],
    ['tone', 'Tone.js transport', 30],
  ];
  if (LONG) runs.push(['engine', 'Chaffinch', 600]);
  for (const [name, label, seconds] of runs) {
    steal();
    const page = await browser.newPage();
    await page.goto(`${base}/bench/index.html`);
    const result = await page.evaluate(
      ([which, length]) =>
        (window as unknown as { measure: (name: string, seconds: number) => Promise<unknown> }).measure(which, length),
      [name, seconds] as const,
    );
    const { expected, within, missing, worstMs } = result as Onsets;
    const ok = name === 'engine' ? within === expected && missing === 0 : null;
    row(
      `sixteenths at 174 BPM for ${seconds} s, page blocked 400 ms at a time: ${label}`,
      `${within} of ${expected} within 1 sample, ${missing} missing, worst ${worstMs.toFixed(2)} ms (${steal()})`,
      name === 'engine' ? 'all, none missing' : 'for comparison',
      ok,
    );
    await page.close();
  }
}
