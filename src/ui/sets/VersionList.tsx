import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { MAX_NOTE } from '@/core/document/limits';
import type { BeatSet } from '@/core/document/set';
import type { KeptVersion, LibrarySet } from '@/core/library/librarySet';
import { versionRestored } from '@/store/openSlice';
import { selectSet } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { KeyRow } from '../shared/KeyRow';
import { TextField } from '../shared/TextField';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { RADIUS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { ChangesView } from './ChangesView';
import { useLibrary } from './LibraryContext';
import { dateWords } from './setWords';
import { useSetActs } from './useSetActs';

/** The set as it was at some moments: kept on purpose, or each time it was opened and changed. */
export function VersionList({ set, isOpen }: { set: LibrarySet; isOpen: boolean }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const library = useLibrary();
  const acts = useSetActs();
  const [compared, compare] = useState<string | null>(null);
  const { versions } = set;
  const restore = async (version: KeptVersion) => {
    const read = await library.openVersion(version.key);
    if ('error' in read) return void dispatch(noticed(`This version cannot be read. ${read.error}`));
    dispatch(versionRestored(read.set));
    return void dispatch(noticed('The set is as it was then.', true));
  };
  return (
    <View style={styles.all}>
      <Text role="heading" aria-level={3} style={[styles.title, { color: tokens.wing }]}>
        Versions
      </Text>
      {isOpen ? <KeepVersion /> : <Words>Open the set to compare it with its versions or restore them.</Words>}
      {versions.length === 0 && (
        <Words>There is none yet. One is kept by itself whenever the set is opened and changed.</Words>
      )}
      <View role="list" aria-label="Versions" style={styles.all}>
        {versions.map((version) => {
          const name = versionName(version);
          return (
            <View
              key={version.key}
              role="listitem"
              aria-label={name}
              style={[styles.card, { backgroundColor: tokens.deep }]}
            >
              <Text style={[styles.name, { color: tokens.wing }]}>{version.note ?? 'As it was opened'}</Text>
              <Words>{dateWords(version.at)}</Words>
              {isOpen && (
                <KeyRow
                  keys={[
                    {
                      label: `Compare ${name}`,
                      text: 'Compare',
                      pressed: compared === version.key,
                      act: () => compare(compared === version.key ? null : version.key),
                    },
                    { label: 'Restore', text: 'Restore', act: () => acts.tried(restore(version)) },
                  ]}
                />
              )}
              {isOpen && compared === version.key && <Comparison version={version} versions={versions} />}
            </View>
          );
        })}
      </View>
    </View>
  );
}

function versionName({ note, at }: KeptVersion): string {
  return `${note ?? 'As it was opened'}, ${dateWords(at)}`;
}

/** Keeps the open set as it is, with a note on what is different. */
function KeepVersion() {
  const dispatch = useAppDispatch();
  const library = useLibrary();
  const acts = useSetActs();
  const [note, setNote] = useState('');
  const keep = async () => {
    await library.keepVersion(note);
    setNote('');
    dispatch(noticed('This version is kept.'));
  };
  return (
    <View style={styles.row}>
      <TextField
        label="What is different"
        aria-label="What is different"
        value={note}
        maxLength={MAX_NOTE}
        onChangeText={setNote}
        onSubmitEditing={() => acts.tried(keep())}
        style={styles.note}
      />
      <ControlButton label="Keep version" text="Keep version" onPress={() => acts.tried(keep())} style={styles.key} />
    </View>
  );
}

const NOW = 'now';

/** What is different between a version and the set as it is now, or another version. */
function Comparison({ version, versions }: { version: KeptVersion; versions: readonly KeptVersion[] }) {
  const present = useAppSelector(selectSet);
  const [other, setOther] = useState<string>(NOW);
  const before = useVersion(version.key);
  const with_ = useVersion(other === NOW ? null : other);
  const after = other === NOW ? { set: present } : with_;
  const options = versions.filter(({ key }) => key !== version.key).map((one) => ({ value: one.key, name: versionName(one) })); // prettier-ignore
  return (
    <View style={styles.all}>
      {options.length > 0 && (
        <Choice
          label="Compare with"
          caption="Compare with"
          value={other}
          options={[{ value: NOW, name: 'The set as it is now' }, ...options]}
          onChoose={setOther}
          grow
        />
      )}
      {before && 'error' in before && <Words>{`This version cannot be read. ${before.error}`}</Words>}
      {after && 'error' in after && <Words>{`The other version cannot be read. ${after.error}`}</Words>}
      {before && 'set' in before && after && 'set' in after && (
        <ChangesView before={before.set} after={after.set} isNow={other === NOW} />
      )}
    </View>
  );
}

/** A version, read from the storage; null until it is there. */
function useVersion(key: string | null): { set: BeatSet } | { error: string } | null {
  const library = useLibrary();
  const [read, setRead] = useState<{ key: string; version: { set: BeatSet } | { error: string } } | null>(null);
  useEffect(() => {
    let isWanted = true;
    const take = (version: { set: BeatSet } | { error: string }) =>
      isWanted && key !== null && setRead({ key, version });
    if (key !== null) library.openVersion(key).then(take, (error: unknown) => take({ error: String(error) }));
    return () => {
      isWanted = false;
    };
  }, [key, library]);
  return read && read.key === key ? read.version : null;
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  row: { flexDirection: 'row', gap: 4, alignItems: 'center' },
  note: { flex: 1, minWidth: 0 },
  key: { paddingHorizontal: 8 },
  card: { borderRadius: RADIUS, padding: 10, gap: 6 },
  title: { fontFamily: WORDS_STRONG, fontSize: grown(19), lineHeight: grown(24) },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(17), lineHeight: grown(22) },
});
