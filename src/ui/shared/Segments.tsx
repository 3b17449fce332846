import { StyleSheet, View } from 'react-native';
import { ControlButton } from './ControlButton';

interface Props<T extends string | number> {
  /** Accessible name of the whole choice. */
  label: string;
  value: T | null;
  options: readonly { value: T; name: string; note?: string }[];
  numeric?: boolean;
  onChoose: (value: T) => void;
}

/** A few values side by side, of which one holds. `note` is a small second line, such as what choosing it would do. */
export function Segments<T extends string | number>({ label, value, options, numeric, onChoose }: Props<T>) {
  return (
    <View role="group" aria-label={label} style={styles.row}>
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
  option: { flexGrow: 1, minWidth: 56 },
});
