import { FILTER_KINDS, type FilterKind } from '@/core/document/sound';
import { soundChanged } from '@/store/soundsSlice';
import { useAppDispatch } from '@/store/store';
import { Segments } from '../shared/Segments';
import type { ShownSound } from './useSound';

const NAMES: Record<FilterKind, string> = { low: 'Low', band: 'Band', high: 'High' };

/** What the filter lets pass. */
export function FilterKinds({ sound: { track, pad, settings } }: { sound: ShownSound }) {
  const dispatch = useAppDispatch();
  return (
    <Segments
      label="Filter lets pass"
      caption="Lets pass"
      value={settings.filter ?? 'low'}
      options={FILTER_KINDS.map((value) => ({ value, name: NAMES[value] }))}
      onChoose={(filter) =>
        dispatch(
          soundChanged({ track, pad, change: { filter: filter === 'low' ? undefined : filter }, label: 'filter' }),
        )
      }
    />
  );
}
