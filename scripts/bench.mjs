// npm run bench: measures what the project claims, and prints it beside its bars.
import { build as esbuild } from 'esbuild';
import { build, inRoot, install, must } from './shared.mjs';

await install();
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
for (const [file, out] of [
  ['page.ts', 'page.js'],
  ['scenes.ts', 'scenes.js'],
]) {
  await esbuild({
    ...shared,
    entryPoints: [inRoot('bench', file)],
    outfile: inRoot('build', 'bench', out),
    format: 'iife',
    minify: true,
  });
}
await must('The benchmark', 'node', [
  '--expose-gc',
  '--max-semi-space-size=256',
  inRoot('build/bench/run.mjs'),
  ...process.argv.slice(2),
]);
