import { useCallback } from 'react';
import { useStore } from 'react-redux';
import type { Edit } from '@/core/edit/edit';
import { edited } from '@/store/patternsSlice';
import type { Store } from '@/store/store';
import { useInstrument } from './InstrumentContext';

/** Edits the pattern that is shown; of one gesture, the pattern on which it began. */
export function usePatternEdit(): (edit: Edit, gesture?: string) => void {
  const store = useStore() as Store;
  const instrument = useInstrument();
  return useCallback(
    (edit, gesture) => {
      store.dispatch(edited({ place: instrument.placeOf(gesture), edit, ...(gesture && { gesture }) }));
    },
    [store, instrument],
  );
}
