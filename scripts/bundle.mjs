// Bundles what Metro cannot: the audio worklet, the workers and the server.
import { build as esbuild, context } from 'esbuild';
import { inRoot } from './shared.mjs';

const workers = {
  entryPoints: [
    'engine.worklet.ts',
    'render.worker.ts',
    'replay.worker.ts',
    'carry.worker.ts',
    'sample.worker.ts',
    'slice.worker.ts',
    'recorder.worklet.ts',
  ].map((name) => inRoot('src/workers', name)),
  outdir: inRoot('public/workers'),
  bundle: true,
  format: 'iife',
  target: 'es2022',
  minify: true,
  tsconfigRaw: { compilerOptions: { target: 'ES2022' } },
  alias: { '@': inRoot('src') },
  // The code of encoders; and what one of them would ask of Node, which a worker is not.
  loader: { '.wasm': 'binary' },
  external: ['fs', 'path', 'crypto'],
  logLevel: 'warning',
};

export const bundleWorkers = () => esbuild(workers);

/** Bundles the workers again whenever they change. */
export async function watchWorkers() {
  const watching = await context({ ...workers, minify: false });
  await watching.rebuild();
  await watching.watch();
}

export const bundleServer = () =>
  esbuild({
    entryPoints: [inRoot('server/main.ts')],
    outfile: inRoot('build/server.mjs'),
    bundle: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'warning',
  });
