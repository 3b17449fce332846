import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { emptySet } from '@/core/document/create';
import type { LibrarySet } from '@/core/library/librarySet';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { ControlButton } from '../shared/ControlButton';
import { KeyRow } from '../shared/KeyRow';
import { searched, SearchField } from '../shared/SearchField';
import { Words } from '../shared/Words';
import { AsideCard } from './AsideCard';
import { BringIn } from './BringIn';
import { useAside, useLibrary } from './LibraryContext';
import { SetCard } from './SetCard';
import { daysLeft } from './setWords';
import { useSetActs } from './useSetActs';

interface Props {
  open: LibrarySet;
  /** The open one first. */
  sets: readonly LibrarySet[];
  bin: readonly LibrarySet[];
  /** The id of the one that is looked at. */
  chosen: string | null;
  onChoose: (id: string) => void;
}

/** All sets of this device: the open one, the others, what was set aside, and the bin. */
export function SetList({ open, sets, bin, chosen, onChoose }: Props) {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const acts = useSetActs();
  const library = useLibrary();
  const aside = useAside();
  const [search, setSearch] = useState('');
  const found = searched(sets, search);
  const startEmpty = () => {
    instrument.open(emptySet());
    dispatch(noticed('An empty set is open.', true));
  };
  return (
    <ScrollView contentContainerStyle={styles.list}>
      <View style={styles.keys}>
        <ControlButton label="New set" text="New set" icon="plus" onPress={startEmpty} style={styles.key} />
        <BringIn />
      </View>
      {justBinned(bin).map(({ id, name }) => (
        <KeyRow
          key={id}
          keys={[
            {
              label: `Bring back ${name}`,
              text: `Bring back “${name}”`,
              act: () => acts.tried(library.bringBack(id)),
            },
          ]}
        />
      ))}
      {sets.length > 4 && <SearchField label="Search sets" text={search} onText={setSearch} />}
      <View role="list" aria-label="Sets" style={styles.cards}>
        {found.map((set) => (
          <SetCard
            key={set.id}
            set={set}
            isOpen={set === open}
            isChosen={set.id === chosen}
            onChoose={() => onChoose(set.id)}
            onOpen={() => acts.open(set)}
          />
        ))}
      </View>
      {found.length === 0 && <Words>{`No set is called “${search}”.`}</Words>}
      {sets.length === 1 && <Words>Whatever you make stays here, also when you open something else.</Words>}
      {aside.length > 0 && <Words>Set aside: could not be read, or another tab had saved it.</Words>}
      {aside.map((one) => (
        <AsideCard key={one.key} aside={one} />
      ))}
      <Bin sets={bin} />
    </ScrollView>
  );
}

/** What was deleted since the page was opened is brought back by one touch. */
function justBinned(bin: readonly LibrarySet[]): LibrarySet[] {
  return bin.filter(({ binned }) => new Date(binned!).getTime() >= performance.timeOrigin);
}

function Bin({ sets }: { sets: readonly LibrarySet[] }) {
  const library = useLibrary();
  const acts = useSetActs();
  const [isShown, show] = useState(false);
  if (sets.length === 0) return null;
  return (
    <View role="group" aria-label="Bin" style={styles.cards}>
      <KeyRow keys={[{ text: `Bin (${sets.length})`, pressed: isShown, act: () => show(!isShown) }]} />
      {isShown && <Words>Sets stay here for thirty days.</Words>}
      {isShown &&
        sets.map((set) => (
          <View key={set.id} style={styles.binned}>
            <Words>{`${set.name} · ${daysLeft(set, new Date())} days left`}</Words>
            <KeyRow
              keys={[
                {
                  label: `Bring ${set.name} back from the bin`,
                  text: 'Bring back',
                  act: () => acts.tried(library.bringBack(set.id)),
                },
                {
                  label: `Delete ${set.name} for good`,
                  text: 'Delete for good',
                  act: () => acts.tried(library.removeForGood(set)),
                },
              ]}
            />
          </View>
        ))}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { padding: 8, gap: 8 },
  keys: { flexDirection: 'row', gap: 4, flexWrap: 'wrap' },
  key: { flexGrow: 1, flexBasis: 0 },
  cards: { gap: 8 },
  binned: { gap: 4 },
});
