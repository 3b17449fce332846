import { createSelector } from '@reduxjs/toolkit';
import { PADS } from '@/core/document/limits';
import { selectPattern, selectSounding } from '@/store/selectors';
import type { RootState } from '@/store/store';

/** So many places of hits can be told apart on a pad. */
const PLACES = 256;
const FREE = '.'.charCodeAt(0);
const HIT = '|'.charCodeAt(0);
const latin1 = new TextDecoder('latin1');

/**
 * Where each pad's hits lie in the shown pattern: the loop from its start to its end, `|` where a hit lies. A string to a pad, so
 * that a pad is drawn anew only when its own hits look otherwise.
 */
export const selectHitPlaces = createSelector(
  [selectSounding, (state: RootState) => selectPattern(state).length],
  (sounding, length): readonly string[] => {
    const places = new Uint8Array(PADS * PLACES).fill(FREE);
    for (const { pad, tick } of sounding) places[pad * PLACES + Math.floor((tick / length) * PLACES)] = HIT;
    const all = latin1.decode(places);
    return Array.from({ length: PADS }, (_, pad) => all.slice(pad * PLACES, (pad + 1) * PLACES));
  },
);

/** The path that draws a pad's hits, in a box of one by one. */
export function hitPath(places: string): string {
  return [...places].map((place, i) => (place === '|' ? `M${i / places.length} 0h0.016v1h-0.016z` : '')).join('');
}
