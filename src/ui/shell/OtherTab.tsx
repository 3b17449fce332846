import { createContext, useContext, useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import type { Tabs } from '@/storage/tabs';
import { useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useTokens } from '../theme/theme';

const TabsContext = createContext<Tabs | null>(null);
export const TabsProvider = TabsContext.Provider;

/** A page that is loaded anew may still be its own other tab for a moment, ms. */
const LASTS_MS = 600;

/** While another tab saves the set: says so, and offers to take it over. */
export function OtherTab() {
  const tokens = useTokens();
  const tabs = useContext(TabsContext);
  const follows = useAppSelector((state) => state.session.tab === 'follower');
  const [lasts, setLasts] = useState(false);
  useEffect(() => {
    if (!follows) return undefined;
    const timer = setTimeout(() => setLasts(true), LASTS_MS);
    return () => {
      clearTimeout(timer);
      setLasts(false);
    };
  }, [follows]);
  if (!follows || !lasts) return null;
  return (
    <View role="status" style={[styles.strip, { borderColor: tokens.straw }]}>
      <Text variant="bodyMedium" style={styles.words}>
        Another tab saves this set. What you change here is kept aside.
      </Text>
      <ControlButton label="Take over" text="Take over" onPress={() => void tabs?.takeOver()} />
    </View>
  );
}

const styles = StyleSheet.create({
  strip: { flexDirection: 'row', alignItems: 'center', gap: 8, paddingHorizontal: 10, borderTopWidth: 2 },
  words: { flex: 1, minWidth: 0 },
});
