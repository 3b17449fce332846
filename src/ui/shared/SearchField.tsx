import { StyleSheet } from 'react-native';
import { Searchbar } from 'react-native-paper';

/** Where a long list is searched. */
export function SearchField(props: { label: string; text: string; onText: (text: string) => void }) {
  const { label, text, onText } = props;
  return <Searchbar aria-label={label} placeholder="Search" value={text} onChangeText={onText} style={styles.search} />;
}

/** The things whose name or note has the words in it. */
export function searched<T extends { name: string; note?: string }>(things: readonly T[], text: string): T[] {
  const wanted = text.trim().toLocaleLowerCase();
  return things.filter(({ name, note = '' }) => `${name} ${note}`.toLocaleLowerCase().includes(wanted));
}

const styles = StyleSheet.create({ search: { height: 48 } });
