// npm test: installs what is missing, then type check, lint, unit tests and browser tests. Ends with "N passed, N failed".
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { bin, build, inRoot, install, root, run, runBeside } from './shared.mjs';

const began = Date.now();

/** Debian packages that the tests use, each with how to see that it is there. */
const DEBIAN = [
  ['chromium-headless-shell', () => existsSync('/usr/bin/chromium-headless-shell')],
  ['sox', () => existsSync('/usr/bin/sox')],
  ['aubio-tools', () => existsSync('/usr/bin/aubioonset')],
  ['ffmpeg', () => existsSync('/usr/bin/ffmpeg')],
  ['openttd-openmsx', () => existsSync('/usr/share/games/openttd/baseset/openmsx')],
  ['unzip', () => existsSync('/usr/bin/unzip')],
  ['python3-mido', () => spawnSync('/usr/bin/python3', ['-c', 'import mido']).status === 0],
];

async function installDebian() {
  const missing = DEBIAN.filter(([, isThere]) => !isThere()).map(([name]) => name);
  if (missing.length === 0) return;
  console.log(`Installing ${missing.join(', ')} with apt-get ...`);
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    return run(command, rest, { DEBIAN_FRONTEND: 'noninteractive' });
  };
  if ((await apt('update', '-qq')) && (await apt('install', '-y', '-qq', '--no-install-recommends', ...missing)))
    return;
  console.error(
    `The tests need ${missing.join(' and ')} of Debian. Install with: apt-get install ${missing.join(' ')}`,
  );
  process.exit(1);
}

let passed = 0;
let failed = 0;
const count = (good, bad) => {
  passed += good;
  failed += bad;
};
const heading = (text) => console.log(`\n== ${text}`);
const report = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null);

await Promise.all([install(), installDebian()]);
rmSync(inRoot('test-results'), { recursive: true, force: true });
mkdirSync(inRoot('test-results'), { recursive: true });

heading('Types, lint and the built app');
const checks = [
  [bin('tsc'), '--noEmit', '-p', 'tsconfig.json'],
  [bin('tsc'), '--noEmit', '-p', 'tsconfig.core.json'],
  [bin('eslint'), '.', '--max-warnings', '0'],
  ['node', inRoot('scripts', 'cycles.mjs')],
];
// The build, the longest of them, uses one core; the checks and then the unit tests share the other meanwhile.
const building = build();
for (const fine of await Promise.all(checks.map(([command, ...args]) => runBeside(command, args)))) {
  count(...(fine ? [1, 0] : [0, 1]));
}

heading('Unit tests');
const unitFile = inRoot('test-results', 'unit.json');
await run(bin('jest'), ['--maxWorkers=2', '--json', `--outputFile=${unitFile}`]);
const unit = report(unitFile);
count(unit?.numPassedTests ?? 0, unit ? unit.numFailedTests + unit.numRuntimeErrorTestSuites : 1);

// Unit tests need nothing that is built.
await building;
heading('Browser tests');
// Those that strike by the clock come first, one at a time: what runs beside them would starve them, and they would measure again.
const alone = await browserTests('alone', ['--grep', '@alone', '--workers', '1']);
const others = await browserTests('others', ['--grep-invert', '@alone']);
const skipped = alone.skipped + others.skipped;
const browserTimes = [...alone.times, ...others.times];

heading('Where the time goes');
const unitTimes = (unit?.testResults ?? []).map(({ name, startTime, endTime }) => [
  endTime - startTime,
  path.relative(root, name),
]);
for (const [ms, name] of [...unitTimes, ...browserTimes].sort(([a], [b]) => b - a).slice(0, 20)) {
  console.log(`${(ms / 1000).toFixed(1).padStart(6)} s  ${name}`);
}
console.log(`${((Date.now() - began) / 60000).toFixed(1).padStart(6)} min in all`);
console.log(`\n${passed} passed, ${failed} failed${skipped ? `, ${skipped} skipped` : ''}`);
process.exit(failed === 0 ? 0 : 1);

/** Runs some of the browser tests. Resolves to how many were skipped, and how long each took. */
async function browserTests(name, args) {
  // Playwright empties its folder of results as it begins.
  const file = inRoot('build', `e2e-${name}.json`);
  rmSync(file, { force: true });
  await run(bin('playwright'), ['test', ...args], { RESULTS: file });
  const told = report(file);
  count(told?.stats.expected ?? 0, told ? told.stats.unexpected + told.errors.length : 1);
  return { skipped: told?.stats.skipped ?? 0, times: timesOf(told?.suites ?? []) };
}

/** How long each browser test took, in ms, with its name. */
function timesOf(suites) {
  return suites.flatMap((suite) => [
    ...(suite.specs ?? []).map((spec) => [
      spec.tests.flatMap((test) => test.results).reduce((ms, result) => ms + result.duration, 0),
      `${spec.file}: ${spec.title}`,
    ]),
    ...timesOf(suite.suites ?? []),
  ]);
}
