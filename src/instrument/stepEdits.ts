import { hitsAcross } from '@/core/edit/acrossTracks';
import { chordNotes } from '@/core/edit/notes';
import { CHORDS } from '@/core/harmony/chords';
import type { Edit } from '@/core/edit/edit';
import type { ChordKind } from '@/core/document/tones';
import { copied, hitsInLoop, pasted, spanOf } from '@/core/edit/select';
import type { Instrument } from './instrument';
import { selectPattern, selectPlace, selectTrack } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { clipTaken, hitsSelected, selectNoteStep, selectStepTicks, selectTargets } from '@/store/stepsSlice';
import type { RootState, Store } from '@/store/store';
import { MAX_HITS } from '@/core/document/limits';
import { idsFrom, type Hit } from '@/core/document/hit';
import type { Pattern } from '@/core/document/pattern';
import { edited } from '@/store/patternsSlice';

/** The edits that need more than the pattern: the clip, new ids, the cursor, the playhead. */

/** Copies what an edit is for. Returns how many hits. */
export function copy(store: Store): number {
  const state = store.getState();
  const pattern = selectPattern(state);
  const clip = pattern && copied(pattern, new Set(selectTargets(state)), selectStepTicks(state));
  const { tones } = selectTrack(state);
  if (clip) store.dispatch(clipTaken({ ...clip, ...(tones && { tones }) }));
  return clip?.hits.length ?? 0;
}

export function cut(store: Store): void {
  const ids = selectTargets(store.getState());
  if (copy(store) > 0) store.dispatch(edited({ place: selectPlace(store.getState()), edit: { kind: 'erase', ids } }));
}

/** Pastes from the cursor's step on, or without a cursor from the loop's start. */
export function pasteAtCursor(store: Store, instrument: Instrument): void {
  paste(store, instrument, store.getState().steps.cursor?.tick ?? 0);
}

/** Pastes from the step on in which the playhead is. */
export function pasteAtPlayhead(store: Store, instrument: Instrument): void {
  const { performance } = instrument;
  const tick = performance.anchor.playing ? performance.tickHeard(window.performance.now()) : performance.anchor.tick;
  const step = selectStepTicks(store.getState());
  paste(store, instrument, Math.floor(performance.positionAt(tick) / step) * step);
}

/** Plays what an edit is for once more, right after it. */
export function duplicate(store: Store, instrument: Instrument): void {
  const state = store.getState();
  const pattern = selectPattern(state);
  const ids = new Set(selectTargets(state));
  const step = selectStepTicks(state);
  const span = pattern && spanOf(pattern, ids, step);
  const clip = pattern && copied(pattern, ids, step);
  if (span && clip) insert(store, instrument, pattern, clip, span.to);
}

/** Into another track as that one plays it. */
function paste(store: Store, instrument: Instrument, at: number): void {
  const state = store.getState();
  const pattern = selectPattern(state);
  const { clip } = state.steps;
  if (!clip) return void store.dispatch(noticed('Nothing was copied yet.'));
  const hits = hitsAcross(clip.hits, clip.tones, selectTrack(state).tones);
  if (pattern) insert(store, instrument, pattern, { ...clip, hits }, at);
}

function insert(
  store: Store,
  instrument: Instrument,
  pattern: Pattern,
  clip: NonNullable<RootState['steps']['clip']>,
  at: number,
): void {
  const hits = pasted(clip, at, pattern.length, idsFrom(instrument.reserveIds(clip.hits.length)));
  // What was pasted is chosen, to be moved on at once.
  if (paint(store, pattern, hits)) store.dispatch(hitsSelected(hits.map((hit) => hit.id)));
}

/** Adds hits, if the pattern has room for them. @returns whether it has */
function paint(store: Store, pattern: Pattern, hits: Hit[]): boolean {
  if (pattern.hits.length + hits.length > MAX_HITS) {
    store.dispatch(noticed(`There is no room for ${hits.length} more: a pattern holds ${MAX_HITS} hits.`));
    return false;
  }
  store.dispatch(edited({ place: selectPlace(store.getState()), edit: { kind: 'paint', hits } }));
  return true;
}

/** Makes chords of the notes that an edit is for, by the scale of their track. */
export function buildChord(store: Store, instrument: Instrument, kind: ChordKind): void {
  const state = store.getState();
  const { tones } = selectTrack(state);
  const pattern = selectPattern(state);
  if (!tones || !pattern) return;
  const ids = selectTargets(state);
  const newId = idsFrom(instrument.reserveIds(ids.length * CHORDS[kind].length));
  const hits = chordNotes(pattern, new Set(ids), tones, kind, newId);
  if (hits.length === 0) return void store.dispatch(noticed('These chords are built already.'));
  if (paint(store, pattern, hits)) store.dispatch(hitsSelected([...ids, ...hits.map(({ id }) => id)]));
}

/** The edit that moves hits so many lanes up, below 0 down. */
export function laneMove(state: RootState, ids: number[], lanes: number): Edit {
  const { tones } = selectTrack(state);
  if (!tones) return { kind: 'move', ids, ticks: 0, lanes };
  return { kind: 'notes', ids, tones, by: selectNoteStep(state), steps: lanes };
}

/** Erases what an edit is for, and says what went, with a way back. */
export function erase(store: Store, ids: readonly number[], what: string): void {
  if (ids.length === 0) return;
  store.dispatch(edited({ place: selectPlace(store.getState()), edit: { kind: 'erase', ids } }));
  store.dispatch(noticed(`${what} cleared.`, true));
}

export function selectAll(store: Store): void {
  const pattern = selectPattern(store.getState());
  if (pattern) store.dispatch(hitsSelected(hitsInLoop(pattern)));
}
