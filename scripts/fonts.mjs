// npm run fonts: takes of the typefaces (SIL Open Font License 1.1) what the app writes, and what names that players give may hold: Latin letters with all
// their accents, marks and signs. The rest would be a third of their size over the wire. What else a name holds is shown in a typeface of the device.
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import subsetFont from 'subset-font';
import { inRoot } from './shared.mjs';

const FACES = [
  'barlow-condensed/500Medium/BarlowCondensed_500Medium',
  'barlow-condensed/600SemiBold/BarlowCondensed_600SemiBold',
  'martian-mono/600SemiBold/MartianMono_600SemiBold',
];
/** Blocks of Unicode, first and last: Latin with its supplements, some Greek, punctuation, super- and subscripts, currencies, letter-like signs, arrows, arithmetic, notes. */
const BLOCKS = [[0x20, 0x7e], [0xa0, 0x24f], [0x1e00, 0x1eff], [0x3a0, 0x3c9], [0x2010, 0x20bf], [0x2100, 0x214f], [0x2190, 0x2199], [0x2200, 0x2265], [0x2669, 0x266f]]; // prettier-ignore
const text = BLOCKS.flatMap(([first, last]) => Array.from({ length: last - first + 1 }, (_, i) => String.fromCodePoint(first + i))).join(''); // prettier-ignore
/** In the table of names: copyright, licence, and where that can be read. */
const NAMES = [0, 13, 14];

for (const face of FACES) {
  const whole = readFileSync(inRoot('node_modules', '@expo-google-fonts', `${face}.ttf`));
  // With hints: without them letters stand a tenth further apart where a screen gives each whole pixels.
  const part = await subsetFont(whole, text, { targetFormat: 'woff2', preserveNameIds: NAMES });
  const name = `${path.basename(face)}.woff2`;
  writeFileSync(inRoot('src', 'ui', 'theme', 'typefaces', name), part);
  console.log(`${name}: ${part.length} bytes of ${whole.length}`);
}
