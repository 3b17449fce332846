import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { useTokens } from '../theme/theme';
import { WORDS } from '../theme/tokens';
import type { IconName } from '../theme/icons';
import { ControlButton } from './ControlButton';
import { grown } from '../theme/type';

export interface RowKey {
  /** Accessible name; the text, where it says enough. */
  label?: string;
  text?: string;
  icon?: IconName;
  disabled?: boolean;
  pressed?: boolean;
  act: () => void;
}

/** Keys side by side after a word for what they have in common. */
export function KeyRow({ caption, keys }: { caption?: string; keys: readonly RowKey[] }) {
  const tokens = useTokens();
  return (
    <View role="group" aria-label={caption} style={styles.row}>
      {caption !== undefined && (
        <Text aria-hidden style={[styles.caption, { color: tokens.cap }]}>
          {caption}
        </Text>
      )}
      {keys.map(({ label, text, icon, disabled, pressed, act }) => (
        <ControlButton
          key={label ?? text}
          label={label ?? text!}
          text={text}
          icon={icon}
          disabled={disabled}
          pressed={pressed}
          onPress={act}
          style={styles.key}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 4, alignItems: 'center' },
  caption: { width: 56, fontFamily: WORDS, fontSize: grown(16), lineHeight: grown(20) },
  key: { flexGrow: 1, minWidth: 44, paddingHorizontal: 4 },
});
