import type { ReactNode } from 'react';
import { StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import { useTokens } from '../theme/theme';
import { WORDS } from '../theme/tokens';
import { grown } from '../theme/type';

/** A line of explanation in a sheet. */
export function Words({ children }: { children: ReactNode }) {
  return <Text style={[styles.words, { color: useTokens().cap }]}>{children}</Text>;
}

const styles = StyleSheet.create({
  words: { fontFamily: WORDS, fontSize: grown(16), lineHeight: grown(21), letterSpacing: 0.2 },
});
