// Compiles TypeScript for the unit tests that need no React. esbuild leaves modern JavaScript as it is; and each module gets
// the globals of arithmetic as constants, because Jest runs it in a context in which every look-up of a global is slow: the
// engine runs five times as fast.
const { createHash } = require('node:crypto');
const { readFileSync } = require('node:fs');
const { transformSync, version } = require('esbuild');

const own = readFileSync(require.resolve('./jestTransform.cjs'));
const banner = 'const { Math, Float64Array, Float32Array, Number } = globalThis, Infinity = 1 / 0, NaN = 0 / 0;';

module.exports = {
  canInstrument: false,
  getCacheKey: (source, file) =>
    createHash('sha1').update(own).update(version).update(file).update(source).digest('hex'),
  process: (source, file) =>
    transformSync(source, {
      loader: file.endsWith('x') ? 'tsx' : 'ts',
      format: 'cjs',
      target: 'node20',
      banner,
      sourcemap: 'inline',
      sourcefile: file,
      supported: { 'dynamic-import': false },
      tsconfigRaw: { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false } },
    }),
};
