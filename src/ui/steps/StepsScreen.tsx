import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { WIDE } from '../theme/tokens';
import { StepsPanel } from './StepsPanel';

/** The place *Steps*: the current pattern as lanes and steps, painted while it plays. */
export function StepsScreen() {
  const wide = useWindowDimensions().width >= WIDE;
  return (
    <View style={styles.screen}>
      <StepsPanel bars={wide ? 2 : 1} wide={wide} />
    </View>
  );
}

const styles = StyleSheet.create({ screen: { flex: 1, minHeight: 0, padding: 8 } });
