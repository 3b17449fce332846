import { StyleSheet, View } from 'react-native';
import { useRoom } from '../theme/room';
import { StepsPanel } from './StepsPanel';

/** The place *Steps*: the current pattern as lanes and steps, painted while it plays. */
export function StepsScreen() {
  const { layout } = useRoom();
  return (
    <View style={styles.screen}>
      <StepsPanel bars={layout === 'upright' ? 1 : 2} wide={layout !== 'upright'} />
    </View>
  );
}

const styles = StyleSheet.create({ screen: { flex: 1, minHeight: 0, padding: 8 } });
