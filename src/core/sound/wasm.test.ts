import { readFileSync } from 'node:fs';
import path from 'node:path';
import wabt from 'wabt';
import { FOURIER_WASM } from './fourierWasm';
import { COMPRESSOR_LOOP_WASM } from './mix/compressorLoopWasm';
import { FILTER_LOOPS_WASM } from './mix/filterLoopsWasm';
import { SATURATION_LOOP_WASM } from './mix/saturationLoopWasm';
import { SEND_LOOP_WASM } from './mix/sendLoopWasm';
import { ROOM_LOOPS_WASM } from './mix/room/roomLoopsWasm';
import { SAMPLE_READER_WASM } from './sampleReaderWasm';
import { bytesOf } from './soundMemory';
import { VOICE_LOOPS_WASM } from './voiceLoopsWasm';

test.each([
  ['fourier', FOURIER_WASM],
  ['sampleReader', SAMPLE_READER_WASM],
  ['voiceLoops', VOICE_LOOPS_WASM],
  ['mix/filterLoops', FILTER_LOOPS_WASM],
  ['mix/saturationLoop', SATURATION_LOOP_WASM],
  ['mix/sendLoop', SEND_LOOP_WASM],
  ['mix/compressorLoop', COMPRESSOR_LOOP_WASM],
  ['mix/room/roomLoops', ROOM_LOOPS_WASM],
])('what runs of %s is what the text says, and this Node can run it', async (name, hex) => {
  const bytes = bytesOf(hex);
  const text = readFileSync(path.join(__dirname, `${name}.wat`), 'utf8');
  const { parseWat } = await wabt();
  expect([...parseWat(`${name}.wat`, text, { simd: true }).toBinary({}).buffer]).toEqual([...bytes]);
  expect(WebAssembly.validate(bytes)).toBe(true);
});
