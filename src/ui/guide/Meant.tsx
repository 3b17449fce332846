import { createContext, useContext } from 'react';
import { StyleSheet, View } from 'react-native';
import { useTokens } from '../theme/theme';
import { RADIUS } from '../theme/tokens';

/** Name of the control that the guide means now, or null. */
const MeantContext = createContext<string | null>(null);
export const MeantProvider = MeantContext.Provider;

/** Id of the guide's sentence, which describes the control that it means. */
export const SENTENCE_ID = 'guide-sentence';

/** Whether the guide means the control of this name. Asks no store: it changes rarely, and controls are many. */
export function useMeant(name: string): boolean {
  return useContext(MeantContext) === name;
}

/** Lies over a control, and lights it while the guide means it. */
export function Meant({ name }: { name: string }) {
  const tokens = useTokens();
  if (!useMeant(name)) return null;
  return (
    <View
      aria-hidden
      {...{ dataSet: { meant: 'true' } }}
      style={[styles.ring, { borderColor: tokens.straw, boxShadow: `inset 0 0 0 2px ${tokens.onStraw}` }]}
    />
  );
}

const styles = StyleSheet.create({
  ring: {
    position: 'absolute',
    left: 0,
    right: 0,
    top: 0,
    bottom: 0,
    borderWidth: 4,
    borderRadius: RADIUS - 2,
    pointerEvents: 'none',
    zIndex: 1,
  },
});
