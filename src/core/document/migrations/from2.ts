import type { Plain } from '../../plain';

/** 3: a hit's pitch, odds, roll and nudge, loop windows, Moves, colours: none of which has to be there. */
export function from2(set: Plain): Plain {
  return { ...set, schema: 3 };
}
