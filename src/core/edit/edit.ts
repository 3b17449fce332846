import { noteIn, type Tones } from '../document/tones';
import type { Moved, MovePoint } from '../document/moves';
import { cropped, doubled, doubledEmpty, withLength, withWindow } from './length';
import { bounded } from './bounds';
import { withPoints } from './editMoves';
import { notesMoved, type NoteStep } from './notes';
import { dotted, legato, moved, replaced, reversed, rotated, staccato, stretched, transposed, withoutHits } from './select'; // prettier-ignore
import { strummed } from './strum';
import { withValues, type ValueKind } from './values';
import { idsFrom, type Hit } from '../document/hit';
import type { LoopWindow, Pattern } from '../document/pattern';

/** Ids of the hits that an edit is for. */
type OfHits = { ids: readonly number[] };

/** One edit of a pattern by hand, as a message. Ticks throughout; what each does is said where it is done. */
export type Edit =
  | { kind: 'paint'; hits: readonly Hit[] }
  | ({ kind: 'erase' } & OfHits)
  /** Takes hits away and puts others in their place. */
  | ({ kind: 'replace'; hits: readonly Hit[] } & OfHits)
  | { kind: 'values'; of: ValueKind; values: readonly (readonly [id: number, value: number])[]; over: number }
  | ({ kind: 'rotate'; ticks: number } & OfHits)
  | ({ kind: 'move'; ticks: number; lanes: number } & OfHits)
  | ({ kind: 'transpose'; semitones: number } & OfHits)
  | ({ kind: 'notes'; tones: Tones; by: NoteStep; steps: number } & OfHits)
  | ({ kind: 'reverse'; step: number } & OfHits)
  | ({ kind: 'stretch'; factor: number; step: number } & OfHits)
  | ({ kind: 'dot' } & OfHits)
  | ({ kind: 'legato' } & OfHits)
  | ({ kind: 'staccato' } & OfHits)
  /** Chords are strummed: their notes are those that `tones` has on its pads. */
  | ({ kind: 'strum'; tones: Tones; ticks: number } & OfHits)
  /** A hand has moved hits, or made them longer or shorter: each becomes the one that is given. */
  | { kind: 'drag'; hits: readonly Hit[] }
  | { kind: 'length'; length: number }
  | { kind: 'doubleEmpty' }
  /** `firstId`: ids from there, every second number, are free. */
  | { kind: 'double'; firstId: number }
  | { kind: 'crop'; start: number; length: number }
  | { kind: 'window'; window: LoopWindow | null }
  | { kind: 'moves'; moved: Moved; points: readonly MovePoint[] };

/** What each edit is called where it can be undone. */
export const EDIT_LABELS: Record<Edit['kind'], string> = {
  paint: 'painting',
  erase: 'erasing',
  replace: 'replacing',
  values: 'values',
  rotate: 'rotation',
  move: 'moving',
  transpose: 'transposing',
  notes: 'transposing',
  reverse: 'reversing',
  stretch: 'stretching',
  dot: 'dotted lengths',
  legato: 'legato',
  staccato: 'staccato',
  strum: 'strumming',
  drag: 'dragging',
  length: 'loop length',
  doubleEmpty: 'doubling',
  double: 'doubling',
  crop: 'crop',
  window: 'loop window',
  moves: 'Moves',
};

/** The pattern after an edit, within the bounds of what can be stored. */
export function edited(pattern: Pattern, edit: Edit): Pattern {
  const now = apply(pattern, edit);
  return now === pattern ? pattern : bounded(now);
}

function apply(pattern: Pattern, edit: Edit): Pattern {
  switch (edit.kind) {
    case 'paint':
      return { ...pattern, hits: [...pattern.hits, ...edit.hits] };
    case 'erase':
      return withoutHits(pattern, new Set(edit.ids));
    case 'replace': {
      const rest = withoutHits(pattern, new Set(edit.ids));
      return { ...rest, hits: [...rest.hits, ...edit.hits] };
    }
    case 'values':
      return withValues(pattern, edit.of, new Map(edit.values), edit.over);
    case 'rotate':
      return rotated(pattern, new Set(edit.ids), edit.ticks);
    case 'move':
      return moved(pattern, new Set(edit.ids), edit.ticks, edit.lanes);
    case 'notes':
      return notesMoved(pattern, new Set(edit.ids), edit.tones, edit.by, edit.steps);
    case 'transpose':
      return transposed(pattern, new Set(edit.ids), edit.semitones);
    case 'reverse':
      return reversed(pattern, new Set(edit.ids), edit.step);
    case 'stretch':
      return stretched(pattern, new Set(edit.ids), edit.factor, edit.step);
    case 'dot':
      return dotted(pattern, new Set(edit.ids));
    case 'legato':
      return legato(pattern, new Set(edit.ids));
    case 'staccato':
      return staccato(pattern, new Set(edit.ids));
    case 'strum':
      return strummed(pattern, new Set(edit.ids), noteIn(edit.tones), edit.ticks);
    case 'drag':
      return replaced(pattern, edit.hits);
    case 'length':
      return withLength(pattern, edit.length);
    case 'doubleEmpty':
      return doubledEmpty(pattern);
    case 'double':
      return doubled(pattern, idsFrom(edit.firstId));
    case 'crop':
      return cropped(pattern, edit.start, edit.length);
    case 'window':
      return withWindow(pattern, edit.window);
    case 'moves':
      return withPoints(pattern, edit.moved, edit.points);
  }
}
