import { StyleSheet, View } from 'react-native';

/** The product's sign: two short slanted strokes that mark what is now. */
export function WingBars({
  color,
  height = 14,
  slant = 14,
}: {
  color: string;
  height?: number | `${number}%`;
  slant?: number;
}) {
  const bar = { width: 3, height, backgroundColor: color, transform: [{ skewX: `${-slant}deg` }] };
  return (
    <View aria-hidden style={styles.pair}>
      <View style={bar} />
      <View style={bar} />
    </View>
  );
}

const styles = StyleSheet.create({ pair: { flexDirection: 'row', gap: 3, height: '100%', alignItems: 'center' } });
