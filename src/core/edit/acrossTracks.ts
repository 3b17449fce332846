import type { Hit } from '../document/hit';
import { FARTHEST_PITCH } from '../document/limits';
import type { Pattern } from '../document/pattern';
import { padsOfNotes, padNote, type Tones } from '../document/tones';

/** What plays a track: its notes, or undefined for a kit. */
type Plays = Tones | undefined;

/**
 * Where what lies on a pad of one track lies on another: from notes to notes where its pitch is found again, else on the same pad.
 * @param pitch semitones of the hit's own
 */
export function padAcross(from: Plays, to: Plays): (pad: number, pitch: number) => { pad: number; pitch: number } {
  if (!from || !to) return (pad, pitch) => ({ pad, pitch });
  const find = padsOfNotes(to);
  return (pad, pitch) => find(padNote(from, pad) + pitch);
}

/** Hits of one track as another one plays them. */
export function hitsAcross(hits: readonly Hit[], from: Plays, to: Plays): Hit[] {
  const find = padAcross(from, to);
  return hits.map(({ pitch: away = 0, ...hit }) => {
    const { pad, pitch } = find(hit.pad, away);
    const kept = Math.min(FARTHEST_PITCH, Math.max(-FARTHEST_PITCH, pitch));
    return { ...hit, pad, ...(kept !== 0 && { pitch: kept }) };
  });
}

/**
 * A pattern of one track as another one plays it. What is of a pad, its treatments and its Moves, goes with the note that lies on it; of two
 * that would lie on one pad the first stays.
 */
export function patternAcross(pattern: Pattern, from: Plays, to: Plays): Pattern {
  const find = padAcross(from, to);
  const { colour: _, lanes, moves, ...rest } = pattern;
  const across: Pattern = { ...rest, hits: hitsAcross(pattern.hits, from, to) };
  if (lanes) across.lanes = firstOf(lanes.map((lane) => ({ ...lane, pad: find(lane.pad, 0).pad })), ({ pad }) => pad); // prettier-ignore
  if (moves) {
    const moved = moves.map((move) => ('pad' in move ? { ...move, pad: find(move.pad, 0).pad } : move));
    across.moves = firstOf(moved, (move) => `${'pad' in move ? move.pad : move.on} ${move.control}`);
  }
  return across;
}

/** The first of all that have the same key. */
function firstOf<T>(list: readonly T[], keyOf: (one: T) => unknown): T[] {
  const keys = list.map(keyOf);
  return list.filter((_, i) => keys.indexOf(keys[i]) === i);
}
