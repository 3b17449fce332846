import { StyleSheet, View } from 'react-native';
import { TextField } from './TextField';
import { ControlButton } from './ControlButton';

/** Where a long list is searched. */
export function SearchField(props: { label: string; text: string; onText: (text: string) => void }) {
  const { label, text, onText } = props;
  return (
    <View style={styles.search}>
      <TextField
        role="searchbox"
        aria-label={label}
        placeholder={label}
        value={text}
        onChangeText={onText}
        style={styles.text}
      />
      {text !== '' && <ControlButton label="Clear search" icon="close" onPress={() => onText('')} />}
    </View>
  );
}

/** The things whose name or note has the words in it. */
export function searched<T extends { name: string; note?: string }>(things: readonly T[], text: string): T[] {
  const wanted = text.trim().toLocaleLowerCase();
  return things.filter(({ name, note = '' }) => `${name} ${note}`.toLocaleLowerCase().includes(wanted));
}

const styles = StyleSheet.create({
  search: { flexDirection: 'row', gap: 6, alignItems: 'center' },
  text: { flex: 1, height: 48 },
});
