import { useEffect, type ReactNode } from 'react';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { Text } from 'react-native-paper';
import { loadChartsSoon } from '../feel/EarlyLate';
import { Flyway } from '../flyway/Flyway';
import { usePadKeys } from '../pads/usePadKeys';
import { useTokens } from '../theme/theme';
import { WIDE } from '../theme/tokens';
import { Transport } from '../transport/Transport';
import { AudioLock, Notices } from './Notices';
import { Places } from './Places';
import { Sheets } from './Sheets';
import { useShortcuts } from './useShortcuts';

/** The frame of every place: transport and Flyway on top, the places below or beside, sheets and notices over the middle. */
export function Shell({ children }: { children: ReactNode }) {
  const tokens = useTokens();
  const wide = useWindowDimensions().width >= WIDE;
  usePadKeys();
  useEffect(loadChartsSoon, []);
  useShortcuts();
  const main = (
    <View style={styles.main}>
      <Text role="heading" aria-level={1} style={styles.unseen}>
        Chaffinch
      </Text>
      <Transport />
      <AudioLock />
      <View style={styles.flyway}>
        <Flyway />
      </View>
      <View role="main" style={styles.place}>
        {children}
        <Sheets />
        <Notices />
      </View>
    </View>
  );
  return (
    <View style={[styles.page, { backgroundColor: tokens.ground, flexDirection: wide ? 'row' : 'column' }]}>
      {wide && <Places wide />}
      {main}
      {!wide && <Places wide={false} />}
    </View>
  );
}

const styles = StyleSheet.create({
  page: { flex: 1 },
  main: { flex: 1, minHeight: 0 },
  flyway: { marginTop: 8 },
  place: { flex: 1, minHeight: 0 },
  /** For screen readers. */
  unseen: { position: 'absolute', width: 1, height: 1, overflow: 'hidden', opacity: 0 },
});
