// Compiles TypeScript for the unit tests that need no React. esbuild leaves modern JavaScript as it is. Two things are done so that
// the engine runs as fast in Jest as it does elsewhere:
// - Each module gets the globals of arithmetic as constants: Jest runs it in a context in which every look-up of a global is slow.
// - A test is bundled with all of ours that it imports, as the app is. One by one, each use of another module's export would be the
//   call of a getter. What a test requires anew (jest.isolateModules) is compiled for itself.
const { createHash } = require('node:crypto');
const { readdirSync, readFileSync, statSync } = require('node:fs');
const path = require('node:path');
const { buildSync, transformSync, version } = require('esbuild');

const here = require.resolve('./jestTransform.cjs');
const root = path.join(here, '..', '..');
const own = readFileSync(here);
const banner =
  'const { Array, Float32Array, Float64Array, Int32Array, JSON, Map, Math, Number, Object, Reflect, Set, String, Symbol, Uint8Array, WeakMap } = ' +
  'globalThis, Infinity = 1 / 0, NaN = 0 / 0, undefined = void 0;';
/** Packages whose code is worth it: what runs for each number that is validated, and for each step that is taken back. */
const bundled = ['class-transformer', 'class-validator', 'immer', '@reduxjs/toolkit', 'redux', 'reselect'];
const { dependencies, devDependencies } = JSON.parse(readFileSync(path.join(root, 'package.json'), 'utf8'));
const external = Object.keys({ ...dependencies, ...devDependencies }).filter((name) => !bundled.includes(name));
const options = {
  format: 'cjs',
  target: 'node20',
  sourcemap: 'inline',
  supported: { 'dynamic-import': false },
  tsconfigRaw: { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false } },
};

/** Changes with any source: a bundle holds many of them. */
const sources = createHash('sha1');
for (const folder of ['src', 'server', 'sounds']) {
  for (const name of readdirSync(path.join(root, folder), { recursive: true })) {
    sources.update(`${name} ${statSync(path.join(root, folder, name)).mtimeMs}`);
  }
}
const stamp = sources.digest('hex');

module.exports = {
  canInstrument: false,
  getCacheKey: (source, file) =>
    createHash('sha1').update(own).update(version).update(stamp).update(file).update(source).digest('hex'),
  process: (source, file) => {
    if (!file.endsWith('.test.ts')) {
      return transformSync(source, { ...options, loader: file.endsWith('x') ? 'tsx' : 'ts', banner, sourcefile: file });
    }
    const { outputFiles } = buildSync({
      ...options,
      entryPoints: [file],
      outfile: file.replace(/\.ts$/, '.js'),
      bundle: true,
      write: false,
      platform: 'node',
      external,
      alias: { '@': path.join(root, 'src') },
      banner: { js: banner },
    });
    return { code: outputFiles[0].text };
  },
};
