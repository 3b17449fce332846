// npm run wasm: assembles what of the engine is written in WebAssembly. A unit test assembles it again and compares.
import { readFileSync, writeFileSync } from 'node:fs';
import wabt from 'wabt';
import { inRoot } from './shared.mjs';

const NAME = 'sampleReader';
const inSound = (file) => inRoot('src', 'core', 'sound', file);

const { parseWat } = await wabt();
const module = parseWat(`${NAME}.wat`, readFileSync(inSound(`${NAME}.wat`), 'utf8'), { simd: true });
const bytes = [...module.toBinary({}).buffer];
const lines = [];
for (let at = 0; at < bytes.length; at += 24) lines.push(`  ${bytes.slice(at, at + 24).join(', ')},`);
writeFileSync(
  inSound(`${NAME}Wasm.ts`),
  `// Made by npm run wasm of ${NAME}.wat.
// prettier-ignore
/** A WebAssembly module, in its binary form: a thread that makes sound has nothing to load it with. */
export const SAMPLE_READER_WASM = Uint8Array.of(
${lines.join('\n')}
);
`,
);
console.log(`${NAME}Wasm.ts: ${bytes.length} bytes`);
