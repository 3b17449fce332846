import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { useTokens } from '../theme/theme';
import { WORDS } from '../theme/tokens';
import { ControlButton } from './ControlButton';
import { ALL_OF_ITS_WORDS, grown } from '../theme/type';

interface Props<T extends string | number> {
  /** Accessible name of the whole choice. */
  label: string;
  /** The visible caption, where the options alone do not explain the choice. */
  caption?: string;
  value: T | null;
  options: readonly { value: T; name: string; note?: string }[];
  numeric?: boolean;
  onChoose: (value: T) => void;
}

/** A few values side by side, of which one holds. `note` is a small second line, such as what choosing it would do. */
export function Segments<T extends string | number>({ label, caption, value, options, numeric, onChoose }: Props<T>) {
  const tokens = useTokens();
  return (
    <View role="group" aria-label={label} style={styles.row}>
      {caption !== undefined && (
        <Text aria-hidden style={[styles.caption, { color: tokens.cap }]}>
          {caption}
        </Text>
      )}
      {options.map((option) => (
        <ControlButton
          key={option.value}
          label={`${label} ${option.name}`}
          description={option.note}
          text={option.name}
          footnote={option.note}
          numeric={numeric}
          pressed={option.value === value}
          onPress={() => onChoose(option.value)}
          style={styles.option}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
  option: { flexGrow: 1, flexBasis: 46, minWidth: ALL_OF_ITS_WORDS, paddingHorizontal: 2 },
  caption: { width: 74, alignSelf: 'center', fontFamily: WORDS, fontSize: grown(16), lineHeight: grown(20) },
});
