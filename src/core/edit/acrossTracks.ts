import { hitOn, type Hit, type NotePlace } from '../document/hit';
import { movedKey } from '../document/moves';
import type { Pattern } from '../document/pattern';
import { relaid, type Tones } from '../document/tones';

/** What plays a track: its notes, or undefined for a kit. */
type Plays = Tones | undefined;

/**
 * Where what lies on a pad of one track lies on another: from notes to notes where its pitch is found again, else on the same pad.
 * @param pitch semitones of the hit's own
 */
function padAcross(from: Plays, to: Plays): (pad: number, pitch: number) => NotePlace {
  return from && to ? relaid(from, to) : (pad, pitch) => ({ pad, pitch });
}

/** Hits of one track as another one plays them. */
export function hitsAcross(hits: readonly Hit[], from: Plays, to: Plays): Hit[] {
  const find = padAcross(from, to);
  return hits.map((hit) => hitOn(hit, find(hit.pad, hit.pitch ?? 0)));
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
    across.moves = firstOf(moved, movedKey);
  }
  return across;
}

/** The first of all that have the same key. */
function firstOf<T>(list: readonly T[], keyOf: (one: T) => unknown): T[] {
  const keys = list.map(keyOf);
  return list.filter((_, i) => keys.indexOf(keys[i]) === i);
}
