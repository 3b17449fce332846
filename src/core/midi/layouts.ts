import { PADS } from '../document/limits';
import type { Device } from './device';
import { newBinding, type Binding } from './binding';
import { CC } from './message';
import { placeOfNote, type GridPlace } from './gridLayout';
import type { Source } from './source';
import type { Target } from './target';

/** The lower left sixteen of a large grid are the pads. */
const PAD_ROWS = 4;
const PAD_COLUMNS = 4;

/** Beside them, in the two rows over the lowest two: sections. */
const FIRST_SECTION_ROW = 2;
const SECTIONS_IN_ROW = 4;

/** What the lowest row beside the pads does, from the left. */
const LOWEST: readonly Target[] = [{ do: 'play' }, { do: 'record' }, { do: 'lift' }, { do: 'stopAll' }];

/**
 * What a pad of a device that launches does. On eight by eight: the upper rows are tracks with their patterns, the first at the top;
 * below them on the left the sixteen pads, on the right two rows of sections, a row of mutes, and play, record, Lift, Stop all. On
 * fewer pads all are patterns.
 */
export function launchTarget({ grid }: Pick<Device, 'grid'>, { column, row }: GridPlace): Target {
  const { columns, rows } = grid;
  const hasPads = columns >= 2 * PAD_COLUMNS && rows >= 2 * PAD_ROWS;
  if (!hasPads || row >= PAD_ROWS) return { do: 'card', row: rows - 1 - row, slot: column };
  if (column < PAD_COLUMNS) return { do: 'pad', pad: row * PAD_COLUMNS + column };
  const beside = column - PAD_COLUMNS;
  if (row >= FIRST_SECTION_ROW) return { do: 'section', section: (PAD_ROWS - 1 - row) * SECTIONS_IN_ROW + beside };
  return row === 1 ? { do: 'mute', row: beside } : (LOWEST[beside] ?? { do: 'stopAll' });
}

/** What a note of a device with pads does, as it comes; null for none. */
export function gridTarget({ plays, grid }: Device, note: number): Target | null {
  if (plays !== 'pads' && plays !== 'launch') return null;
  const place = placeOfNote(grid, note);
  if (!place) return null;
  if (plays === 'launch') return launchTarget({ grid }, place);
  const across = grid.columns * grid.rows <= PADS ? grid.columns : PAD_COLUMNS;
  const pad = place.row * across + place.column;
  return place.column < across && pad < PADS ? { do: 'pad', pad } : null;
}

/** The functions of eight knobs in a row, to begin with: the chosen pad's sound, the rate of note repeat, the tempo. */
export const KNOB_TARGETS: readonly Target[] = [
  { do: 'turn', control: 'pitch' },
  { do: 'turn', control: 'filter' },
  { do: 'turn', control: 'decay' },
  { do: 'turn', control: 'level' },
  { do: 'turn', control: 'pan' },
  { do: 'rate' },
  { do: 'grid' },
  { do: 'tempo' },
];
/** And of eight faders: the tracks' levels. */
export const FADER_TARGETS: readonly Target[] = Array.from({ length: 8 }, (_, row) => ({ do: 'level', row }));

/** Controls of the first eight knobs, and of the eight faders after them: General Purpose 1-4 and what is undefined beside them (MIDI 1.0). */
export const FIRST_KNOB = 16;
export const FIRST_FADER = 24;

/** Control changes whose meaning is a standard: MIDI 1.0's volume and pan, and General MIDI 2's sound controllers 3 and 5. */
const STANDARD: Readonly<Record<number, Target>> = {
  [CC.volume]: { do: 'level' },
  [CC.pan]: { do: 'turn', control: 'pan' },
  72: { do: 'turn', control: 'decay' },
  74: { do: 'turn', control: 'filter' },
};

/** What a control does that nobody has mapped, or null. Program changes launch sections. */
export function builtIn(source: Source): Binding | null {
  const { kind, number } = source;
  if (kind === 'program') return newBinding(source, { do: 'section', section: Math.min(63, number) });
  if (kind !== 'control') return null;
  const target = STANDARD[number] ?? KNOB_TARGETS[number - FIRST_KNOB] ?? FADER_TARGETS[number - FIRST_FADER];
  return target ? newBinding(source, target) : null;
}
