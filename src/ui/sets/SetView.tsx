import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { MAX_NOTE } from '@/core/document/limits';
import type { LibrarySet } from '@/core/library/librarySet';
import { setNoted, setRenamed } from '@/store/aboutSlice';
import { useAppDispatch } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { KeyRow } from '../shared/KeyRow';
import { NameField } from '../shared/NameField';
import { TextField } from '../shared/TextField';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { useLibrary } from './LibraryContext';
import { dateWords, factWords } from './setWords';
import { useSetActs } from './useSetActs';
import { VersionList } from './VersionList';

interface Props {
  set: LibrarySet;
  isOpen: boolean;
  /** Where the list is not beside it. */
  onBack?: (() => void) | undefined;
  onGone: () => void;
}

/** One set: its name and note, what can be done with it, and its versions. */
export function SetView({ set, isOpen, onBack, onGone }: Props) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const library = useLibrary();
  const acts = useSetActs();
  const { name, from } = set;
  const rename = (text: string) =>
    isOpen ? void dispatch(setRenamed(text)) : acts.tried(library.change(set, { name: text.trim() }));
  const note = (text: string) =>
    isOpen ? void dispatch(setNoted(text)) : acts.tried(library.change(set, { note: text.trim() }));
  const remove = () => {
    acts.remove(set);
    onGone();
  };
  return (
    <ScrollView role="region" aria-label={name} contentContainerStyle={styles.view}>
      <View style={styles.head}>
        {onBack && <ControlButton label="All sets" icon="arrow-left" onPress={onBack} />}
        <Text role="heading" aria-level={2} style={[styles.name, { color: tokens.wing }]}>
          {name}
        </Text>
      </View>
      <Words>{isOpen ? `Open · ${factWords(set)}` : `${dateWords(set.at)} · ${factWords(set)}`}</Words>
      {from && <Words>{`Made from “${from.name}”.`}</Words>}
      <KeyRow
        keys={[
          ...(isOpen
            ? []
            : [
                { label: `Open ${name}`, text: 'Open', act: () => acts.open(set) },
                { text: 'Add its tracks', act: () => acts.addTracks(set) },
              ]),
          { text: 'Duplicate', act: () => acts.duplicate(set) },
          { text: 'Export', act: () => acts.carry(set, false) },
          { text: 'Bundle', act: () => acts.carry(set, true) },
          { text: 'Delete', act: remove },
        ]}
      />
      <NameField key={name} label={`Name of ${name}`} name={name} onName={rename} />
      <Note key={`${name} ${set.note ?? ''}`} name={name} note={set.note ?? ''} onNote={note} />
      <VersionList set={set} isOpen={isOpen} />
    </ScrollView>
  );
}

function Note({ name, note, onNote }: { name: string; note: string; onNote: (text: string) => void }) {
  const [text, setText] = useState(note);
  return (
    <TextField
      multiline
      label="Note"
      aria-label={`Note on ${name}`}
      value={text}
      maxLength={MAX_NOTE}
      onChangeText={setText}
      onBlur={() => text.trim() !== note.trim() && onNote(text)}
    />
  );
}

const styles = StyleSheet.create({
  view: { padding: 8, gap: 8 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  name: { flex: 1, minWidth: 0, fontFamily: WORDS_STRONG, fontSize: grown(22), lineHeight: grown(27) },
});
