// Compresses what the server sends, once, when the app is built: the server would do it anew for every request.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

const COMPRESSIBLE = /\.(css|html|js|json|svg|webmanifest)$/;
/** Smaller ones fit into a packet or two as they are. */
const SMALLEST = 1024;

/** Puts `name.br` and `name.gz` beside every file below a directory that gains by it. */
export async function compress(directory) {
  const names = readdirSync(directory, { recursive: true }).filter((name) => COMPRESSIBLE.test(name));
  await Promise.all(
    names.map(async (name) => {
      const file = path.join(directory, name);
      const content = readFileSync(file);
      if (content.length < SMALLEST) return;
      const hint = { params: { [constants.BROTLI_PARAM_SIZE_HINT]: content.length } };
      writeFileSync(`${file}.br`, await promisify(brotliCompress)(content, hint));
      writeFileSync(`${file}.gz`, await promisify(gzip)(content, { level: constants.Z_BEST_COMPRESSION }));
    }),
  );
}
