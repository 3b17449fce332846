import type { Plain } from '../../plain';

/** 6: a set's id, note, and what it was duplicated from: none of which has to be there. */
export function from5(set: Plain): Plain {
  return { ...set, schema: 6 };
}
