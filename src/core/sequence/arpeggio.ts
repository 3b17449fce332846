import type { ArpOrder } from '../document/tones';

/** After how many turns an arpeggio of so many places (notes times octaves) begins again. Up and down touch the outermost once, as is common practice. */
export function arpRound(order: ArpOrder, places: number): number {
  return order === 'upDown' ? Math.max(1, 2 * places - 2) : places;
}

/**
 * Which of the held notes sounds at a turn of an arpeggio.
 * @param notes how many are held, from the lowest up (or, as played, from the first pressed on), 1 or more
 * @param octaves over how many it goes, 1 or more
 * @returns the note's place, plus `notes` for each octave that it is higher
 * @example [0, 1, 2, 3, 4].map((turn) => arpPlace('upDown', 3, 1, turn)) // 0, 1, 2, 1, 0
 */
export function arpPlace(order: ArpOrder, notes: number, octaves: number, turn: number): number {
  const places = notes * octaves;
  const round = arpRound(order, places);
  const at = turn % round;
  if (order === 'down') return places - 1 - at;
  return at < places ? at : round - at;
}
