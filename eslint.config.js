const { defineConfig, globalIgnores } = require('eslint/config');
const expo = require('eslint-config-expo/flat');
const prettier = require('eslint-config-prettier/flat');

/** Forbids imports of a layer, by regular expression. Arrows run app -> ui -> instrument -> store and audio -> core. */
const layer = (files, patterns, ignores = ['**/*.test.ts', '**/*.test.tsx']) => ({
  files,
  ignores,
  rules: { 'no-restricted-imports': ['error', { patterns: patterns.map(([regex, message]) => ({ regex, message })) }] },
});
const upwards = (...names) =>
  names.map((name) => [`^(@/|(\\.\\./)+)${name}(/|$)`, `This layer knows nothing of ${name}/.`]);

/** The rooms of src/core. Each imports only those before it. */
const ROOMS = [
  'time',
  'quantize',
  'document',
  'sample',
  'sequence',
  'edit',
  'slice',
  'record',
  'launch',
  'generate',
  'sound',
  'shelf',
  'protocol',
  'engine',
  'formats',
  'library',
  'midi',
];

/** Packages that src/core may use: they need no browser, no React and no Node. */
const CORE_PACKAGES = [
  'class-transformer',
  'class-validator',
  'fft.js',
  'midi-file',
  'reflect-metadata',
  '@tonaljs/note',
  '@tonaljs/scale',
];
const BROWSER_AND_NODE = [
  ...[
    'window',
    'document',
    'navigator',
    'performance',
    'localStorage',
    'indexedDB',
    'fetch',
    'crypto',
    'self',
    'globalThis',
  ],
  ...['setTimeout', 'setInterval', 'requestAnimationFrame', 'AudioContext', 'Worker', 'postMessage', 'console'],
  ...['process', 'Buffer', 'require', 'module', '__dirname', 'global', 'Date'],
];

/** What is said of components and hooks: where there are none, the compiler behind it takes a third of all the time. */
const OF_COMPONENTS = Object.fromEntries(
  expo
    .flatMap(({ rules = {} }) => Object.keys(rules))
    .filter((rule) => /^react(-hooks)?\//.test(rule))
    .map((rule) => [rule, 'off']),
);

module.exports = defineConfig([
  globalIgnores(['build/*', 'dist/*', 'public/*', '.expo/*', 'node_modules/*', 'test-results/*']),
  expo,
  prettier,
  {
    rules: {
      // These two mistake the documented default imports of fast-check and axe for slips.
      'import/no-named-as-default': 'off',
      'import/no-named-as-default-member': 'off',
      // TypeScript checks it, in a tenth of the time.
      'import/namespace': 'off',
    },
  },
  {
    files: ['src/{core,store,instrument,midi,storage,audio,workers}/**/*.ts', '{server,bench,scripts,e2e,sounds}/**/*'],
    rules: OF_COMPONENTS,
  },
  {
    files: ['jest.setup.js', '**/*.test.{ts,tsx}'],
    languageOptions: { globals: { jest: 'readonly', test: 'readonly', expect: 'readonly' } },
  },
  ...ROOMS.map((room, i) =>
    layer(
      [`src/core/${room}/**/*.ts`],
      [
        [
          `^(?!\\.{1,2}/)(?!(${CORE_PACKAGES.join('|')})$)`,
          'src/core imports only itself and the packages named in eslint.config.js.',
        ],
        ...upwards('audio', 'workers', 'store', 'instrument', 'storage', 'ui', 'app'),
        ...ROOMS.slice(i + 1).map((later) => [
          `^(\\.\\./)+${later}(/|$)`,
          `core/${room} knows nothing of core/${later}.`,
        ]),
      ],
      ['**/*.test.ts', '**/*.testing.ts'],
    ),
  ),
  {
    // No file is a hall. Tables of data may be long.
    files: ['src/**/*.{ts,tsx}', 'server/**/*.ts'],
    ignores: ['**/*.test.{ts,tsx}', 'src/core/sound/recipes.ts'],
    rules: { 'max-lines': ['error', 400] },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...BROWSER_AND_NODE.map((name) => ({
          name,
          message: 'src/core runs in the audio thread, in workers and in Node alike.',
        })),
      ],
    },
  },
  {
    // These round differently from engine to engine; core/sound/math.ts has exact ones.
    files: [
      'src/core/sample/{kernel,levels}.ts',
      'src/core/sound/**/*.ts',
      'src/core/engine/**/*.ts',
      'src/core/sequence/**/*.ts',
      'src/core/record/**/*.ts',
    ],
    ignores: ['**/*.test.ts', '**/*.testing.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        ...['sin', 'cos', 'tan', 'exp', 'pow', 'log', 'log2', 'log10', 'tanh', 'random', 'hypot', 'cbrt'].map(
          (property) => ({
            object: 'Math',
            property,
            message: 'Not the same to the bit everywhere: use core/sound/math.ts.',
          }),
        ),
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "BinaryExpression[operator='**']", message: 'Rounds differently from engine to engine.' },
      ],
    },
  },
  layer(['src/audio/**/*.ts'], upwards('workers', 'midi', 'store', 'instrument', 'storage', 'ui', 'app')),
  layer(['src/midi/**/*.ts'], upwards('audio', 'workers', 'store', 'instrument', 'storage', 'ui', 'app')),
  layer(['src/workers/**/*.ts'], upwards('store', 'instrument', 'storage', 'ui', 'app')),
  layer(['src/store/**/*.ts'], upwards('workers', 'audio', 'instrument', 'storage', 'ui', 'app')),
  layer(['src/instrument/**/*.ts'], upwards('workers', 'ui', 'app')),
  layer(['src/storage/**/*.ts'], upwards('workers', 'instrument', 'ui', 'app')),
  layer(['src/ui/**/*.{ts,tsx}'], upwards('audio', 'workers', 'app')),
]);
