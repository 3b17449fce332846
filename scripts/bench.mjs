// npm run bench: measures what the project claims, and prints it beside its bars.
import { build as esbuild } from 'esbuild';
import { build, inRoot, install, must } from './shared.mjs';

install();
await build();
const shared = { bundle: true, alias: { '@': inRoot('src') }, logLevel: 'warning', target: 'es2022' };
await esbuild({
  ...shared,
  entryPoints: [inRoot('bench/run.ts')],
  outfile: inRoot('build/bench/run.mjs'),
  platform: 'node',
  format: 'esm',
  packages: 'external',
});
await esbuild({
  ...shared,
  entryPoints: [inRoot('bench/page.ts')],
  outfile: inRoot('build/bench/page.js'),
  format: 'iife',
});
must('The benchmark', 'node', [
  '--expose-gc',
  '--max-semi-space-size=256',
  inRoot('build/bench/run.mjs'),
  ...process.argv.slice(2),
]);
