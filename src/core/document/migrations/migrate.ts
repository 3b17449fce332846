import { from1 } from './from1';
import { from2 } from './from2';
import { from3 } from './from3';
import { from4 } from './from4';
import { from5 } from './from5';
import { from6 } from './from6';
import type { Plain } from '../../plain';

/** Each brings a document of one version to the next. They do not judge: what is wrong in it stays wrong. */
const STEPS: Record<number, (set: Plain) => Plain> = { 1: from1, 2: from2, 3: from3, 4: from4, 5: from5, 6: from6 };

/** Brings a document of an older version to the present one. */
export function migrate(plain: Plain): Plain {
  let set = plain;
  for (let step = STEPS[set.schema as number]; step; step = STEPS[set.schema as number]) set = step(set);
  return set;
}
