import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { readSet } from '@/core/document/readSet';
import { factsOf } from '@/core/library/librarySet';
import type { SetAside } from '@/storage/aside';
import { storageTrouble } from '@/storage/records';
import { saveSetFile } from '@/storage/setFiles';
import { storage } from '@/storage/storage';
import { removeSet } from '@/storage/storedSet';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { RADIUS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { dateWords, factWords } from './setWords';

/** A set that was put aside instead of being lost: what is in it, and the ways to open it, carry it away or delete it. */
export function AsideCard({ aside }: { aside: SetAside }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const [deleted, setDeleted] = useState(false);
  const read = useMemo(() => readSet(aside.text), [aside.text]);
  const name = 'set' in read ? read.set.name : 'Damaged set';
  const trouble = (error: unknown) => void dispatch(noticed(storageTrouble(error)));
  const bringBack = {
    label: `Bring back ${name}`,
    text: 'Bring back',
    act: () => void storage.setItem(aside.key, aside.text).then(() => setDeleted(false), trouble),
  };
  const keys = [
    {
      label: `Open ${name}, set aside`,
      text: 'Open',
      disabled: !('set' in read),
      act: () => {
        if ('error' in read) return;
        // A set of its own, beside the one that it may once have been.
        const { id, ...set } = read.set;
        instrument.open({ set: { ...set, ...(id && { from: { id, name } }) }, stage: read.stage });
        dispatch(noticed(`“${name}” is open.`, true));
      },
    },
    { label: `Export ${name}`, text: 'Export', act: () => saveSetFile(name, aside.text) },
    {
      label: `Delete ${name}`,
      text: 'Delete',
      act: () => void removeSet(storage, aside.key).then(() => setDeleted(true), trouble),
    },
  ];
  return (
    <View role="group" aria-label={`${name}, ${aside.at}`} style={[styles.card, { backgroundColor: tokens.deep }]}>
      <Text style={[styles.name, { color: tokens.wing }]}>{name}</Text>
      <Words>{`${dateWords(aside.at)} · ${'error' in read ? read.error : factWords(factsOf(read))}`}</Words>
      {deleted && <Words>Deleted. It can be brought back until this place is left.</Words>}
      <KeyRow keys={deleted ? [bringBack] : keys} />
    </View>
  );
}

const styles = StyleSheet.create({
  card: { borderRadius: RADIUS, padding: 10, gap: 6 },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(19), lineHeight: grown(24) },
});
