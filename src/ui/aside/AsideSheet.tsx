import { useEffect, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { readSet } from '@/core/document/readSet';
import { tracksOf } from '@/core/document/set';
import { listAside, type SetAside } from '@/storage/aside';
import { storageTrouble } from '@/storage/records';
import { saveSetFile } from '@/storage/setFiles';
import { storage } from '@/storage/storage';
import { removeSet } from '@/storage/storedSet';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { Sheet } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { RADIUS, WORDS_STRONG } from '../theme/tokens';

/** Sets that were put aside instead of being lost: what is in each, and the ways to open it, carry it away or delete it. */
export function AsideSheet() {
  const dispatch = useAppDispatch();
  const [found, setFound] = useState<SetAside[] | null>(null);
  useEffect(() => {
    listAside(storage).then(setFound, (error: unknown) => dispatch(noticed(storageTrouble(error))));
  }, [dispatch]);
  return (
    <Sheet title="Set aside" about="Sets that could not be read, or that another tab had saved, are kept here.">
      {found?.length === 0 && <Words>There is none.</Words>}
      {found?.map((aside) => (
        <Aside key={aside.key} aside={aside} />
      ))}
    </Sheet>
  );
}

function Aside({ aside }: { aside: SetAside }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const [deleted, setDeleted] = useState(false);
  const read = useMemo(() => readSet(aside.text), [aside.text]);
  const set = 'set' in read ? read.set : null;
  const name = set?.name ?? 'Damaged set';
  const trouble = (error: unknown) => dispatch(noticed(storageTrouble(error)));
  const keys = deleted
    ? [
        {
          label: `Bring back ${name}`,
          text: 'Bring back',
          act: () => void storage.setItem(aside.key, aside.text).then(() => setDeleted(false), trouble),
        },
      ]
    : [
        {
          label: `Open ${name}`,
          text: 'Open',
          disabled: set === null,
          act: () => {
            if ('error' in read) return;
            instrument.open(read);
            dispatch(noticed(`“${read.set.name}” is open.`, true));
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
      <Words>
        {`${new Date(aside.at).toLocaleString()} · ${Math.ceil(aside.text.length / 1000)} kB · ${
          'error' in read ? read.error : contents(read.set)
        }`}
      </Words>
      {deleted && <Words>Deleted. It can be brought back until this sheet is closed.</Words>}
      <KeyRow keys={keys} />
    </View>
  );
}

/** 4 tracks, 12 patterns, 310 hits */
function contents(set: Parameters<typeof tracksOf>[0]): string {
  const tracks = tracksOf(set);
  const patterns = tracks.flatMap((track) => track.patterns.filter((pattern) => pattern !== null));
  const hits = patterns.reduce((sum, pattern) => sum + pattern.hits.length, 0);
  return `${tracks.length} tracks, ${patterns.length} patterns, ${hits} hits`;
}

const styles = StyleSheet.create({
  card: { borderRadius: RADIUS, padding: 12, gap: 8 },
  name: { fontFamily: WORDS_STRONG, fontSize: 19, lineHeight: 24 },
});
