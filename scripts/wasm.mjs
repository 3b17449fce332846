// npm run wasm: assembles what of the engine is written in WebAssembly. A unit test assembles it again and compares.
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import wabt from 'wabt';
import { inRoot } from './shared.mjs';

const inSound = (file) => inRoot('src', 'core', 'sound', file);

const { parseWat } = await wabt();
for (const [name, constant] of [
  ['fourier', 'FOURIER_WASM'],
  ['sampleReader', 'SAMPLE_READER_WASM'],
  ['voiceLoops', 'VOICE_LOOPS_WASM'],
  ['mix/filterLoops', 'FILTER_LOOPS_WASM'],
  ['mix/saturationLoop', 'SATURATION_LOOP_WASM'],
  ['mix/sendLoop', 'SEND_LOOP_WASM'],
  ['mix/compressorLoop', 'COMPRESSOR_LOOP_WASM'],
  ['mix/room/roomLoops', 'ROOM_LOOPS_WASM'],
]) {
  const module = parseWat(`${name}.wat`, readFileSync(inSound(`${name}.wat`), 'utf8'), { simd: true });
  const bytes = [...module.toBinary({}).buffer];
  const lines = [];
  for (let at = 0; at < bytes.length; at += 24) lines.push(`  ${bytes.slice(at, at + 24).join(', ')},`);
  writeFileSync(
    inSound(`${name}Wasm.ts`),
    `// Made by npm run wasm of ${path.basename(name)}.wat.
// prettier-ignore
/** A WebAssembly module, in its binary form: a thread that makes sound has nothing to load it with. */
export const ${constant} = Uint8Array.of(
${lines.join('\n')}
);
`,
  );
  console.log(`${name}Wasm.ts: ${bytes.length} bytes`);
}
