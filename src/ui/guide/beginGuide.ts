import { emptySet } from '@/core/document/create';
import type { Instrument } from '@/instrument/instrument';
import { selectSet } from '@/store/selectors';
import { guideBegun } from '@/store/guideSlice';
import { noticed, sheetClosed } from '@/store/sessionSlice';
import type { Store } from '@/store/store';

/** Begins the guide with an empty set, at its top, silent. What was open comes back with Undo. */
export function beginGuide(store: Store, instrument: Instrument): void {
  const isFirstVisit = !store.getState().settings.started;
  instrument.rest();
  store.dispatch(sheetClosed());
  instrument.open(emptySet());
  const { tempo, countIn } = selectSet(store.getState());
  store.dispatch(guideBegun({ tempo, countIn }));
  if (!isFirstVisit) store.dispatch(noticed('The guide begins with an empty set.', true));
}
