import { noteIn } from '@/core/document/tones';
import { findScales, type FoundScale, type HeardNote } from '@/core/harmony/findScales';
import { selectSounding, selectTrack } from '@/store/selectors';
import type { RootState } from '@/store/store';
import type { Instrument } from './instrument';

/** Fewer notes in the pattern than these say less than what was played last without being recorded. */
const ENOUGH = 4;

/** The scales to which the notes of the shown pattern belong, or else what hands played last on its track. */
export function playedScales({ justPlayed }: Pick<Instrument, 'justPlayed'>, state: RootState): FoundScale[] {
  const { id, tones } = selectTrack(state);
  if (!tones) return [];
  const noteOf = noteIn(tones);
  const recorded = selectSounding(state).map((hit): HeardNote => ({ note: noteOf(hit), weight: hit.length }));
  if (recorded.length >= ENOUGH) return findScales(recorded);
  return findScales(
    justPlayed.lastStretch(id).map((stroke) => ({ note: noteOf(stroke), weight: Math.max(1, stroke.heldMs) })),
  );
}
