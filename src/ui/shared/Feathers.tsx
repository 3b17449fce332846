import { StyleSheet, View } from 'react-native';
import { FEATHERS, RADIUS } from '../theme/tokens';
import { ControlButton } from './ControlButton';

/** The eight feather tones, of which one is chosen. */
export function Feathers({ value, onChoose }: { value: number; onChoose: (colour: number) => void }) {
  return (
    <View role="group" aria-label="Colour" style={styles.row}>
      {FEATHERS.map(({ name, colour }, i) => (
        <ControlButton
          key={name}
          label={`Colour ${name}`}
          pressed={value === i}
          onPress={() => onChoose(i)}
          style={styles.tone}
        >
          <View style={[styles.swatch, { backgroundColor: colour }]} />
        </ControlButton>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
  tone: { width: 44, paddingHorizontal: 0, borderRadius: RADIUS },
  swatch: { width: 22, height: 22, borderRadius: 11 },
});
