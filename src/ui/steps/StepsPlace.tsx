import { StyleSheet, View } from 'react-native';
import { useSharesRoom } from '../shared/PaneContext';
import { useRoom } from '../theme/room';
import { StepsPanel } from './StepsPanel';

/** The place *Steps*: the current pattern as lanes and steps, painted while it plays. */
export default function StepsPlace() {
  const shares = useSharesRoom();
  const narrow = useRoom().layout === 'upright' || shares;
  return (
    <View style={styles.screen}>
      <StepsPanel bars={narrow ? 1 : 2} wide={!narrow} />
    </View>
  );
}

const styles = StyleSheet.create({ screen: { flex: 1, minHeight: 0, padding: 8 } });
