import { padNote, type Tones } from '../document/tones';
import { gridTicks } from '../quantize/grid';
import { isWindowed, windowOf } from '../sequence/loopWindow';
import { soundingHits } from '../sequence/soundingHits';
import { channelChanges } from './mixInstructions';
import { type NoteLayout, type Instruction } from './commands';
import { feelRows, hitRows, moveRows } from '../sequence/hitRows';
import { PADS } from '../document/limits';
import type { Pattern } from '../document/pattern';
import { isPadHeard, type Track } from '../document/track';
import type { Metronome } from '../document/metronome';

/** Where a pattern lies, by the id of its track. */
export interface SlotPlace {
  track: number;
  slot: number;
}

let revisions = 0;

/** A number that names the contents of a pattern in a log: no two messages of this page have the same. */
export function nextRevision(): number {
  return ++revisions;
}

/**
 * Tells an engine what lies in a slot.
 * @param seen serial of the last recorded hit that the document has
 */
export function patternInstruction(place: SlotPlace, pattern: Pattern | null, seen = 0): Instruction<'pattern'> {
  const revision = nextRevision();
  if (!pattern) return { type: 'pattern', ...place, revision, length: 0, seen, hits: new Float64Array(0), feels: null };
  const hits = hitRows(soundingHits(pattern));
  return { type: 'pattern', ...place, revision, length: pattern.length, seen, hits, feels: feelRows(pattern) };
}

/**
 * Tells an engine the stretch of a pattern that goes round.
 * @param on step of song ticks at whose next line it takes over, 0 for at once
 */
export function windowInstruction(place: SlotPlace, pattern: Pattern | null, on = 0): Instruction<'loopWindow'> {
  const window = pattern && isWindowed(pattern) ? windowOf(pattern) : { start: 0, length: 0 };
  return { type: 'loopWindow', ...place, ...window, on };
}

/** Tells an engine the Moves of a pattern. */
export function movesInstruction(place: SlotPlace, pattern: Pattern | null): Instruction<'moves'> {
  return { type: 'moves', ...place, revision: nextRevision(), points: moveRows(pattern) };
}

/** All of a slot. An empty one needs no words to an engine that knows nothing of it yet. */
export function slotInstructions(place: SlotPlace, pattern: Pattern, seen = 0): Instruction[] {
  return [
    patternInstruction(place, pattern, seen),
    ...(isWindowed(pattern) ? [windowInstruction(place, pattern)] : []),
    ...(pattern.moves?.length ? [movesInstruction(place, pattern)] : []),
  ];
}

/** Tells an engine which pads' pattern hits are heard. */
export function heardPadsInstruction(track: number, document: Track): Instruction<'heardPads'> {
  let pads = 0;
  for (let pad = 0; pad < PADS; pad++) if (isPadHeard(document, pad)) pads |= 1 << pad;
  return { type: 'heardPads', track, pads };
}

/** Tells an engine which notes a track's pads play, if they play notes. */
export function notesInstruction(track: number, tones: Tones | undefined): Instruction<'notes'> {
  return { type: 'notes', track, layout: tones ? layoutOf(tones) : null };
}

function layoutOf(tones: Tones): NoteLayout {
  const notes = Float64Array.from({ length: PADS }, (_, pad) => padNote(tones, pad));
  const { voice, preset, octave, arpeggio, settings } = tones;
  return { voice, ...(preset && { preset }), notes, octave, ...(arpeggio && { arpeggio }), ...(settings && { settings }) }; // prettier-ignore
}

/** What an engine must be told about one track before it can play it, but for its patterns and what it plays. */
export function trackInstructions(track: number, document: Track): Instruction[] {
  return [
    { type: 'kit', track, kit: document.kit },
    ...(document.tones ? [notesInstruction(track, document.tones)] : []),
    { type: 'trackLevel', track, level: document.level },
    ...channelChanges(track, undefined, document.channel),
    heardPadsInstruction(track, document),
  ];
}

/** Tells an engine how the metronome clicks. */
export function metronomeInstruction({ between, ...click }: Metronome): Instruction<'metronome'> {
  return { type: 'metronome', ...click, between: between ? gridTicks(between) : 0 };
}
