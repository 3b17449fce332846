// npm run wasm: assembles what of the engine is written in WebAssembly. A unit test assembles it again and compares.
import { Buffer } from 'node:buffer';
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
  const hex = Buffer.from(module.toBinary({}).buffer).toString('hex');
  const lines = hex.match(/.{1,100}/g).map((digits) => `  '${digits}'`);
  writeFileSync(
    inSound(`${name}Wasm.ts`),
    `// Made by npm run wasm of ${path.basename(name)}.wat.
// prettier-ignore
/** A WebAssembly module, its bytes in hex: a thread that makes sound has nothing to load it with. */
export const ${constant} =
${lines.join(' +\n')};
`,
  );
  console.log(`${name}Wasm.ts: ${hex.length / 2} bytes`);
}
