/** Which note each pad of a device sends: the one at the bottom left, and how many further the next to the right and upwards is. */
export interface GridLayout {
  first: number;
  right: number;
  up: number;
  columns: number;
  rows: number;
}

/** Sixteen pads from the bass drum of General MIDI upwards (common practice). */
export const FOUR_BY_FOUR: GridLayout = { first: 36, right: 1, up: 4, columns: 4, rows: 4 };
/** Sixty-four pads in the same way. */
export const EIGHT_BY_EIGHT: GridLayout = { first: 36, right: 1, up: 8, columns: 8, rows: 8 };

/** A pad of a device, counted from the bottom left. */
export interface GridPlace {
  column: number;
  row: number;
}

/** The note that a pad sends. */
export function noteAt({ first, right, up }: GridLayout, { column, row }: GridPlace): number {
  return first + column * right + row * up;
}

/**
 * The pad that sends a note, or null.
 * @example placeOfNote(FOUR_BY_FOUR, 41) // { column: 1, row: 1 }
 */
export function placeOfNote(layout: GridLayout, note: number): GridPlace | null {
  for (let row = 0; row < layout.rows; row++) {
    for (let column = 0; column < layout.columns; column++) {
      if (noteAt(layout, { column, row }) === note) return { column, row };
    }
  }
  return null;
}

/**
 * The layout of a device learnt from three strokes: the pad at the bottom left, the one to its right, the one above it.
 * @throws Error in words, when the three cannot be such pads
 */
export function learntLayout(notes: readonly [number, number, number], columns: number, rows: number): GridLayout {
  const [first, beside, above] = notes;
  const layout = { first, right: beside - first, up: above - first, columns, rows };
  const all = new Set<number>();
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) all.add(noteAt(layout, { column, row }));
  }
  const inRange = [...all].every((note) => note >= 0 && note <= 127);
  if (all.size < columns * rows || !inRange) {
    throw new Error(
      `Notes ${notes.join(', ')} do not lie on ${columns} by ${rows} pads. Strike the pad at the bottom left, the one to its right, the one above it.`,
    );
  }
  return layout;
}
