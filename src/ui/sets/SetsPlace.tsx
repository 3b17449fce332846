import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { factsOf, type LibrarySet } from '@/core/library/librarySet';
import { selectSet, selectStage } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { useSharesRoom } from '../shared/PaneContext';
import { useRoom } from '../theme/room';
import { useSets } from './LibraryContext';
import { SetList } from './SetList';
import { SetView } from './SetView';

/** The list of sets and the one that is looked at: one after the other, or beside each other where there is room. */
export default function SetsPlace() {
  const shares = useSharesRoom();
  const wide = useRoom().layout === 'wide' && !shares;
  const sets = useSets();
  const open = useOpenSet(sets);
  const [chosen, choose] = useState<string | null>(null);
  if (sets === null) return <View style={styles.place} />;
  const others = sets.filter(({ id }) => id !== open.id);
  const all = [open, ...others.filter(({ binned }) => binned === undefined)];
  // One that had no id yet has got it meanwhile.
  const set = all.find(({ id }) => id === chosen) ?? (wide || chosen === '' ? open : null);
  const list = (
    <SetList
      open={open}
      sets={all}
      bin={others.filter(({ binned }) => binned !== undefined)}
      chosen={set?.id ?? null}
      onChoose={choose}
    />
  );
  const view = set && (
    <SetView
      key={set === open ? 'open' : set.id}
      set={set}
      isOpen={set === open}
      onBack={wide ? undefined : () => choose(null)}
      onGone={() => choose(null)}
    />
  );
  if (!wide) return <View style={styles.place}>{view ?? list}</View>;
  return (
    <View style={[styles.place, styles.row]}>
      <View style={styles.list}>{list}</View>
      <View style={styles.view}>{view}</View>
    </View>
  );
}

/** The open set as it is now, with what the library knows of it; its id is empty until it has its place there. */
function useOpenSet(sets: readonly LibrarySet[] | null): LibrarySet {
  const set = useAppSelector(selectSet);
  const stage = useAppSelector(selectStage);
  // Its size as it was when the place was opened: to count it again with every stroke would cost more than all else.
  const letters = useMemo(() => JSON.stringify(set).length, [set.id]); // eslint-disable-line react-hooks/exhaustive-deps
  const facts = useMemo(() => factsOf({ set, stage }, letters), [set, stage, letters]);
  const known = sets?.find(({ id }) => id === set.id);
  return { at: '', latest: null, versions: [], ...known, ...facts, id: set.id ?? '' };
}

const styles = StyleSheet.create({
  place: { flex: 1, minHeight: 0 },
  row: { flexDirection: 'row' },
  list: { width: 380 },
  view: { flex: 1, minWidth: 0 },
});
