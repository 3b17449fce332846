import type { Target } from '@/core/midi/target';
import { selectSet, selectShown } from '@/store/selectors';
import type { RootState, Store } from '@/store/store';
import type { Instrument } from '../instrument';

/** What functions work with. */
export interface Desk {
  store: Store;
  instrument: Instrument;
  /** Opens a place of the screen, by its name. */
  openPlace: (place: string) => void;
}

/** Id of the track that a target is about, or null where the list is shorter. */
export function trackOf(state: RootState, { row }: Target): number | null {
  return row === undefined ? selectShown(state) : (selectSet(state).order[row] ?? null);
}

/** The pad that a target is about, 0..15. */
export function padOf(state: RootState, { pad }: Target): number {
  return pad ?? state.steps.pad;
}
