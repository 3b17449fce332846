// Finds files that import each other in a circle. What is imported late (`import()`) and types alone make none.
// In the place of eslint's import/no-cycle, which took half of the time of all checks for it.
import { build } from 'esbuild';
import { readdirSync } from 'node:fs';
import { inRoot, root } from './shared.mjs';

const entryPoints = ['src', 'server']
  .flatMap((folder) => readdirSync(inRoot(folder), { recursive: true }).map((file) => `${folder}/${file}`))
  .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file));
const { metafile } = await build({
  absWorkingDir: root,
  entryPoints,
  outdir: 'unused',
  bundle: true,
  write: false,
  metafile: true,
  packages: 'external',
  alias: { '@': inRoot('src') },
  jsx: 'automatic',
  loader: { '.woff2': 'empty' },
  logLevel: 'error',
});

const imports = (file) => metafile.inputs[file].imports.filter(({ kind, external }) => kind === 'import-statement' && !external).map(({ path }) => path); // prettier-ignore
const done = new Set();
const circles = [];
function visit(file, way) {
  if (way.includes(file)) return circles.push([...way.slice(way.indexOf(file)), file]);
  if (done.has(file)) return;
  for (const next of imports(file)) visit(next, [...way, file]);
  done.add(file);
}
for (const file of Object.keys(metafile.inputs)) visit(file, []);
for (const circle of circles) console.error(`These import each other: ${circle.join(' -> ')}`);
process.exit(circles.length === 0 ? 0 : 1);
