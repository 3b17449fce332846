import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { LAUNCH_KEYS } from '../launch/launchKeys';
import { SHORTCUTS } from '../shell/useShortcuts';
import { STEP_KEYS } from '../steps/useStepKeys';
import { useTokens } from '../theme/theme';
import { NUMBERS } from '../theme/tokens';

/** Every key that does something: opened with `?` from anywhere. */
export function KeysSheet() {
  return (
    <Sheet title="Keys">
      <SheetTitle>Everywhere</SheetTitle>
      <KeyList keys={SHORTCUTS} />
      <SheetTitle>Where patterns are launched</SheetTitle>
      <KeyList keys={LAUNCH_KEYS} />
      <SheetTitle>Where steps are shown</SheetTitle>
      <KeyList keys={STEP_KEYS} />
    </Sheet>
  );
}

function KeyList({ keys }: { keys: readonly { keys: string; does: string }[] }) {
  const tokens = useTokens();
  return keys.map(({ keys: combination, does }) => (
    <View key={combination} style={styles.line}>
      <Text style={[styles.keys, { color: tokens.wing }]}>{combination}</Text>
      <Text variant="bodyMedium" style={[styles.does, { color: tokens.wing }]}>
        {does}
      </Text>
    </View>
  ));
}

const styles = StyleSheet.create({
  line: { flexDirection: 'row', alignItems: 'center', minHeight: 28 },
  keys: { fontFamily: NUMBERS, fontSize: 12, lineHeight: 20, width: 150 },
  does: { flex: 1 },
});
