import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import type { Tones } from '../document/tones';
import { scaleDegree } from '../harmony/chords';
import { bounded } from './bounds';
import { notesMoved, type NoteStep } from './notes';
import { lengthened, moved, type Ids } from './select';

/** How far a finger has taken what it holds, in ticks; and from which lane to which (pads, or of a track of notes MIDI notes), or which end. */
export type Drag =
  | { kind: 'move'; ticks: number; from: number; to: number }
  /** `from`: tick at which the note ends that the finger has by its end. */
  | { kind: 'stretch'; ticks: number; from: number };

type DragOf<Kind extends Drag['kind']> = Extract<Drag, { kind: Kind }>;

/** What a drag goes by: whole steps of so many ticks and, of a track of notes, steps of its scale or semitones. */
interface DragWay {
  grid: number;
  tones?: Tones;
  by?: NoteStep;
}

/**
 * Chosen hits as a finger has dragged them, in time and to other lanes at once, or made them longer or shorter. Always reckoned from where they
 * were when it took hold of them: what goes out of its scale on the way, or as far as the loop reaches, comes back as it was.
 */
export function dragged(before: Pattern, chosen: readonly number[], drag: Drag, way: DragWay): Hit[] {
  const ids = new Set(chosen);
  const after = drag.kind === 'stretch' ? ended(before, ids, drag, way) : taken(before, ids, drag, way);
  return bounded(after).hits.filter(({ id }) => ids.has(id));
}

/** The end that the finger has comes to lie on the grid, and the others' go along. */
function ended(pattern: Pattern, ids: Ids, { from, ticks }: DragOf<'stretch'>, { grid }: DragWay): Pattern {
  return lengthened(pattern, ids, Math.round((from + ticks) / grid) * grid - from, grid / 2);
}

function taken(pattern: Pattern, ids: Ids, { ticks, from, to }: DragOf<'move'>, { grid, tones, by }: DragWay): Pattern {
  const later = Math.round(ticks / grid) * grid;
  if (!tones) return moved(pattern, ids, later, to - from);
  const steps = by === 'semitone' ? to - from : scaleDegree(tones, to) - scaleDegree(tones, from);
  return notesMoved(moved(pattern, ids, later, 0), ids, tones, by ?? 'step', steps);
}
