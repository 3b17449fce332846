import { usePathname } from 'expo-router';
import { useEffect, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { loadChartsSoon } from '../feel/EarlyLate';
import { usePadKeys } from '../pads/usePadKeys';
import { Guard } from '../shared/Guard';
import { placesIn, useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { Transport } from '../transport/Transport';
import { AudioLock, Notices } from './Notices';
import { Places } from './Places';
import { Sheets } from './Sheets';
import { useShortcuts } from './useShortcuts';

/** The frame of every place: the head on top, the places below or beside, sheets and notices over the middle. */
export function Shell({ children }: { children: ReactNode }) {
  const tokens = useTokens();
  const where = placesIn(useRoom());
  const here = usePathname();
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
      <View role="main" style={styles.place}>
        <Guard key={here} name="This place">
          {children}
        </Guard>
        <Sheets />
        <Notices />
      </View>
    </View>
  );
  return (
    <View style={[styles.page, { backgroundColor: tokens.ground, flexDirection: where === 'rail' ? 'row' : 'column' }]}>
      {where === 'rail' && <Places where="rail" />}
      {main}
      {where === 'bottom' && <Places where="bottom" />}
    </View>
  );
}

const styles = StyleSheet.create({
  page: { flex: 1 },
  main: { flex: 1, minHeight: 0 },
  place: { flex: 1, minHeight: 0 },
  /** For screen readers. */
  unseen: { position: 'absolute', width: 1, height: 1, overflow: 'hidden', opacity: 0 },
});
