import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { useTokens } from '../theme/theme';

interface Props {
  /** Of its strip, 0..1. */
  share: number;
  colour: string;
  /** What lies upon it, beneath the wing bar. */
  children?: ReactNode;
}

/** A strip that is filled to a wing bar. */
export function LevelFill({ share, colour, children }: Props) {
  const tokens = useTokens();
  const place = `${share * 100}%` as const;
  return (
    <>
      <View style={[styles.fill, { width: place, backgroundColor: colour }]} />
      {children}
      <View style={[styles.edge, { left: place }]}>
        <View style={[styles.bar, { backgroundColor: tokens.wing }]} />
        <View style={[styles.bar, { backgroundColor: tokens.wing }]} />
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  // The words on it stay readable on every feather.
  fill: { position: 'absolute', left: 0, top: 0, bottom: 0, opacity: 0.3, pointerEvents: 'none' },
  edge: { position: 'absolute', top: 0, bottom: 0, width: 9, marginLeft: -6, flexDirection: 'row', gap: 3, pointerEvents: 'none' },
  bar: { width: 3, height: '100%', transform: [{ skewX: '-8deg' }] },
}); // prettier-ignore
