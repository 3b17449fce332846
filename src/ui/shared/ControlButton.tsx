import { useId, type ReactNode } from 'react';
import { Pressable, StyleSheet, View, type GestureResponderEvent, type StyleProp, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import type { Target } from '@/core/midi/target';
import { AppIcon, type IconName } from '../theme/icons';
import { useTokens } from '../theme/theme';
import { GAP, NUMBERS, RADIUS, TOUCH, WORDS, WORDS_STRONG, type Tokens } from '../theme/tokens';
import { Meant, SENTENCE_ID, useMeant } from '../guide/Meant';
import { Description } from './Description';
import { mapMark } from './mapMark';
import { useTap } from './useTap';
import { grown } from '../theme/type';

export type Tone = 'plain' | 'primary' | 'record';

interface Props {
  /** What it is to assistive technology. */
  role?: 'button' | 'menuitem';
  /** Accessible name. */
  label: string;
  /** By which the guide means it, where that is not its accessible name. */
  guideName?: string;
  /** Small first line. */
  caption?: string;
  /** Main line, and how many lines of words it may take. */
  text?: string;
  lines?: number;
  /** Small last line. */
  footnote?: string;
  /** Set the main line as a number. */
  numeric?: boolean;
  icon?: IconName | undefined;
  tone?: Tone;
  /** For switches: on or off. */
  pressed?: boolean;
  disabled?: boolean;
  expanded?: boolean;
  /** More for assistive technology, such as a state in words. */
  description?: string;
  onPress?: (event: GestureResponderEvent) => void;
  /** What it works, for controllers. */
  maps?: Target | undefined;
  /** In the place of `onPress`: answers also while other fingers hold something. */
  onTap?: () => void;
  style?: StyleProp<ViewStyle>;
  children?: ReactNode;
}

/** A flat key of the instrument's surface: 44 px or more, a caption and a value, on or off by fill and by outline. */
export function ControlButton({
  role = 'button',
  label,
  guideName = label,
  caption,
  text,
  lines = 1,
  footnote,
  numeric,
  icon,
  tone = 'plain',
  pressed,
  disabled,
  expanded,
  description,
  onPress,
  onTap,
  maps,
  style,
  children,
}: Props) {
  const tokens = useTokens();
  const descriptionId = useId();
  const meant = useMeant(guideName);
  const look = looks(tokens, tone, pressed === true);
  const tap = useTap(() => onTap?.());
  const named = {
    role,
    'aria-label': label,
    'aria-pressed': pressed,
    'aria-expanded': expanded,
    'aria-disabled': disabled,
    'aria-describedby': meant ? SENTENCE_ID : description === undefined ? undefined : descriptionId,
    ...mapMark(maps),
  };
  const face = { backgroundColor: look.fill, borderColor: look.edge };
  const inside = (
    <>
      <Meant name={guideName} />
      {description !== undefined && <Description id={descriptionId}>{description}</Description>}
      {caption !== undefined && (
        <Text numberOfLines={1} style={[styles.caption, { color: look.quiet }]}>
          {caption}
        </Text>
      )}
      <View style={styles.line}>
        {icon !== undefined && (
          <View aria-hidden>
            <AppIcon name={icon} size={22} color={look.ink} />
          </View>
        )}
        {text !== undefined && (
          <Text numberOfLines={lines} style={[numeric ? styles.number : styles.word, { color: look.ink }]}>
            {text}
          </Text>
        )}
        {children}
      </View>
      {footnote !== undefined && footnote !== '' && (
        <Text numberOfLines={1} style={[styles.caption, { color: look.quiet }]}>
          {footnote}
        </Text>
      )}
    </>
  );
  if (onTap && !disabled) {
    return (
      <View {...named} tabIndex={0} {...(tap as object)} style={[styles.key, styles.free, face, style]}>
        {inside}
      </View>
    );
  }
  return (
    <Pressable
      {...named}
      disabled={disabled}
      onPress={onPress}
      style={({ pressed: down }) => [styles.key, face, { opacity: disabled ? 0.45 : down ? 0.75 : 1 }, style]}
    >
      {inside}
    </Pressable>
  );
}

function looks(t: Tokens, tone: Tone, on: boolean) {
  if (tone === 'primary') return { fill: t.breast, edge: t.breast, ink: t.onBreast, quiet: t.onBreast };
  if (tone === 'record') {
    return on
      ? { fill: t.berryFill, edge: t.berryFill, ink: t.onBerry, quiet: t.onBerry }
      : { fill: 'transparent', edge: t.berry, ink: t.berry, quiet: t.berry };
  }
  return { fill: on ? t.warm : t.slate, edge: on ? t.breast : t.edge, ink: t.wing, quiet: on ? t.wing : t.cap };
}

const styles = StyleSheet.create({
  key: {
    minHeight: TOUCH,
    minWidth: TOUCH,
    borderRadius: RADIUS,
    borderWidth: 2,
    paddingHorizontal: GAP - 2,
    alignItems: 'center',
    justifyContent: 'center',
  },
  free: { cursor: 'pointer', userSelect: 'none', touchAction: 'manipulation' } as ViewStyle,
  line: { flexDirection: 'row', alignItems: 'center', gap: 6, maxWidth: '100%' },
  caption: { fontFamily: WORDS, fontSize: grown(13), lineHeight: grown(15), letterSpacing: 0.2 },
  word: { fontFamily: WORDS_STRONG, fontSize: grown(17), lineHeight: grown(21), letterSpacing: 0.2 },
  number: { fontFamily: NUMBERS, fontSize: grown(13), lineHeight: grown(20) },
});
