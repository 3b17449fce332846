// npm run sounds: renders every kit that ships, measures it, and writes a page of spectrograms and loudness.
import { build as esbuild } from 'esbuild';
import { inRoot, install, must } from './shared.mjs';

await install();
await esbuild({
  entryPoints: [inRoot('sounds/run.ts')],
  outfile: inRoot('build/sounds/run.mjs'),
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  alias: { '@': inRoot('src') },
  target: 'es2022',
  logLevel: 'warning',
});
await must('Measuring the sounds', 'node', [inRoot('build/sounds/run.mjs'), inRoot('build/sounds')]);
