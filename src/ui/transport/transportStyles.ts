import { StyleSheet, type ViewStyle } from 'react-native';
import { TOUCH } from '../theme/tokens';

export const transportStyles = StyleSheet.create({
  group: { flexDirection: 'row', gap: 4, flexGrow: 1, flexShrink: 1, minWidth: 0 },
  tempo: { flexGrow: 1, flexShrink: 1, flexBasis: 96, minWidth: 0 },
  tapBox: { minWidth: 50, touchAction: 'manipulation' } as ViewStyle,
  fillBox: { flex: 1 },
  key: { minWidth: 66 },
  square: { width: TOUCH },
  large: { flexGrow: 1, flexBasis: 0, minWidth: 80, minHeight: 50 },
  small: { flexGrow: 1, minWidth: 52, minHeight: 48 },
});
