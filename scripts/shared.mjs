// What the commands share. Plain Node: it must run before anything is installed.
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
export const inRoot = (...parts) => path.join(root, ...parts);

const STOPPING = ['SIGTERM', 'SIGINT', 'SIGHUP'];

/** Runs a command in the project with its output shown as it comes. Resolves to whether it succeeded. */
export function run(command, args, env = {}) {
  return ended(command, spawn(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } }));
}

/** Runs a command beside others: its output is shown when it has ended. Resolves to whether it succeeded. */
export async function runBeside(command, args) {
  const child = spawn(command, args, { cwd: root });
  let output = '';
  for (const stream of [child.stdout, child.stderr]) stream.setEncoding('utf8').on('data', (text) => (output += text));
  const fine = await ended(command, child);
  process.stdout.write(output);
  return fine;
}

/** Resolves to whether a child process succeeded. It ends with this process, if somebody stops that. */
function ended(command, child) {
  const stop = (signal) => {
    child.kill(signal);
    process.exit(1);
  };
  for (const signal of STOPPING) process.once(signal, stop);
  child.on('exit', () => STOPPING.forEach((signal) => process.off(signal, stop)));
  return new Promise((done) => {
    child.on('error', (error) => {
      console.error(`${command}: ${error.message}`);
      done(false);
    });
    child.on('close', (code) => done(code === 0));
  });
}

/** Runs a command, or ends the process with what failed. */
export async function must(what, command, args, env) {
  if (await run(command, args, env)) return;
  console.error(`\n${what} failed.`);
  process.exit(1);
}

/** Runs a program that the project's packages bring. */
export const bin = (name) => inRoot('node_modules', '.bin', name);

function digest(files) {
  const hash = createHash('sha256');
  for (const file of files) hash.update(path.relative(root, file)).update(readFileSync(file));
  return hash.digest('hex');
}

function filesUnder(dir) {
  return readdirSync(dir, { withFileTypes: true }).flatMap((entry) => {
    const full = path.join(dir, entry.name);
    if (entry.isDirectory()) return full === inRoot('public', 'workers') ? [] : filesUnder(full);
    return /\.test\.tsx?$/.test(entry.name) ? [] : [full];
  });
}

/** Installs the packages unless those of this very lock file are there. */
export async function install() {
  const stamp = inRoot('node_modules', '.chaffinch-lock');
  const wanted = digest([inRoot('package-lock.json')]);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log('Installing packages ...');
  const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm';
  await must('Installing the packages', npm, ['ci', '--no-audit', '--no-fund']);
  writeFileSync(stamp, wanted);
}

/** Builds the app and the server unless they are of this very source. */
export async function build() {
  const stamp = inRoot('build', '.source');
  const sources = ['src', 'public', 'server', 'scripts']
    .flatMap((dir) => filesUnder(inRoot(dir)))
    .filter((f) => statSync(f).isFile());
  const config = ['package-lock.json', 'app.json', 'babel.config.js', 'metro.config.js'].map((f) => inRoot(f));
  const wanted = digest([...sources, ...config]);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  const { bundleWorkers, bundleServer } = await import('./bundle.mjs');
  const { compileAtOnce } = await import('./compileAtOnce.mjs');
  const { compress } = await import('./compress.mjs');
  const { makeServiceWorker, preloadFonts } = await import('./offline.mjs');
  console.log('Building the app: a minute or two the first time ...');
  await bundleWorkers();
  await bundleServer();
  await must('Building the app', bin('expo'), ['export', '-p', 'web', '--output-dir', 'build/app'], {
    EXPO_NO_TELEMETRY: '1',
    EXPO_OFFLINE: '1',
    CI: '1',
  });
  compileAtOnce(inRoot('build', 'app'));
  preloadFonts(inRoot('build', 'app'));
  await makeServiceWorker(inRoot('build', 'app'));
  await compress(inRoot('build', 'app'));
  writeFileSync(stamp, wanted);
}
