import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { SHIPPED_KITS } from '@/core/shelf/shippedKits';
import { medians, reportOf } from './measure';
import { pageOf } from './page';

const folder = path.resolve(process.argv[2]!);
const kits = SHIPPED_KITS.map((entry) => {
  console.log(entry.name);
  return reportOf(entry);
});
mkdirSync(folder, { recursive: true });
const file = path.join(folder, 'index.html');
writeFileSync(file, pageOf(kits, medians(kits)));
console.log(`Open ${file}`);
