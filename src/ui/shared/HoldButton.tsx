import { useEffect, useId, useRef, useState } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import type { Target } from '@/core/midi/target';
import { useTokens } from '../theme/theme';
import { RADIUS, TOUCH, WORDS, WORDS_STRONG } from '../theme/tokens';
import { Description } from './Description';
import { mapMark } from './mapMark';
import { grown } from '../theme/type';

interface Props {
  label: string;
  text: string;
  /** Small first line. */
  caption?: string;
  /** Shown as on by something else than the hold itself. */
  on?: boolean;
  /** More for assistive technology. */
  description?: string;
  /** As tall as keys with a caption. */
  tall?: boolean;
  disabled?: boolean;
  /** What it works, for controllers. */
  maps?: Target;
  /** Held down, and let go again. */
  onHold: (held: boolean) => void;
}

/** A key that is on for as long as it is held: by a finger, or by Space or Enter. */
export function HoldButton({ label, text, caption, on, description, tall, disabled, maps, onHold }: Props) {
  const tokens = useTokens();
  const [held, setHeld] = useState(false);
  const letGo = useRef<(() => void) | null>(null);
  useEffect(() => {
    letGo.current = held ? () => onHold(false) : null;
  });
  // Unmounting while held counts as letting go.
  useEffect(() => () => letGo.current?.(), []);
  const hold = (now: boolean) => {
    if (now === held || disabled) return;
    setHeld(now);
    onHold(now);
  };
  const descriptionId = useId();
  const lit = on ?? held;
  const isPress = (event: KeyboardEvent) => event.key === ' ' || event.key === 'Enter';
  return (
    <View
      role="button"
      aria-label={label}
      aria-pressed={lit}
      aria-disabled={disabled}
      aria-describedby={description === undefined ? undefined : descriptionId}
      tabIndex={0}
      {...mapMark(maps)}
      onPointerDown={(event) => {
        (event.currentTarget as unknown as HTMLElement).setPointerCapture(event.nativeEvent.pointerId);
        hold(true);
      }}
      onPointerUp={() => hold(false)}
      onPointerCancel={() => hold(false)}
      {...{
        onKeyDown: (event: KeyboardEvent) => {
          if (!isPress(event)) return;
          event.preventDefault();
          hold(true);
        },
        onKeyUp: (event: KeyboardEvent) => isPress(event) && hold(false),
        onBlur: () => hold(false),
        onContextMenu: (event: Event) => event.preventDefault(),
      }}
      style={[
        styles.key,
        tall && styles.tall,
        {
          backgroundColor: lit ? tokens.warm : tokens.slate,
          borderColor: lit ? tokens.breast : tokens.edge,
          opacity: disabled ? 0.45 : 1,
        },
      ]}
    >
      {description !== undefined && <Description id={descriptionId}>{description}</Description>}
      {caption !== undefined && (
        <Text style={[styles.caption, { color: lit ? tokens.wing : tokens.cap }]}>{caption}</Text>
      )}
      <Text style={[styles.word, { color: tokens.wing }]}>{text}</Text>
    </View>
  );
}

const styles = StyleSheet.create({
  key: {
    minHeight: TOUCH,
    borderRadius: RADIUS,
    borderWidth: 2,
    paddingHorizontal: 10,
    alignItems: 'center',
    justifyContent: 'center',
    touchAction: 'none',
    userSelect: 'none',
    cursor: 'pointer',
  } as ViewStyle,
  tall: { height: 56 },
  caption: { fontFamily: WORDS, fontSize: grown(13), lineHeight: grown(15), userSelect: 'none' },
  word: {
    fontFamily: WORDS_STRONG,
    fontSize: grown(17),
    lineHeight: grown(21),
    letterSpacing: 0.2,
    userSelect: 'none',
  },
});
