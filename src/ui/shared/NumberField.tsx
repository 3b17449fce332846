import { useRef } from 'react';
import { StyleSheet, View, type StyleProp, type TextInput, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import type { Target } from '@/core/midi/target';
import { Meant } from '../guide/Meant';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, TOUCH, WORDS } from '../theme/tokens';
import { mapMark } from './mapMark';
import { TypedNumber } from './TypedNumber';
import { useDrag } from './useDrag';
import { grown } from '../theme/type';

interface Props {
  /** Accessible name. */
  label: string;
  /** Small line above the number, such as its unit. */
  caption: string;
  value: number;
  min: number;
  max: number;
  /** The value as shown and typed. */
  text: string;
  /** The value in words for assistive technology. */
  valueText?: string;
  /** Takes typed text; returns false when it cannot be used, and the old value is shown again. */
  onType: (text: string) => boolean;
  /** One step up or down (arrow keys, wheel), ten with Page keys. */
  onStep: (steps: number) => void;
  /** Dragged: px to the right plus px upwards since the drag began, and the value it began with. */
  onDrag?: (px: number, from: number) => void;
  /** What it works, for controllers. */
  maps?: Target;
  style?: StyleProp<ViewStyle>;
}

const DRAG_STARTS_PX = 6;

/** A number that can be typed, stepped with keys and, where it makes sense, dragged. */
export function NumberField({
  label,
  caption,
  value,
  min,
  max,
  text,
  valueText,
  onType,
  onStep,
  onDrag,
  maps,
  style,
}: Props) {
  const tokens = useTokens();
  const input = useRef<TextInput>(null);
  const dragging = useDrag({
    begin: (_, __, event) => {
      // Focus waits for the release: otherwise the on-screen keyboard would open during a drag.
      if (document.activeElement !== (input.current as unknown)) event.preventDefault();
      return { from: value, moved: false };
    },
    move: ({ dx, dy }, drag) => {
      const px = dx - dy;
      if (Math.abs(px) > DRAG_STARTS_PX) drag.moved = true;
      if (drag.moved) onDrag?.(px, drag.from);
    },
    end: (_, { moved }, cancelled) => {
      if (!moved && !cancelled) input.current?.focus();
    },
  });

  return (
    <View
      style={[styles.box, { backgroundColor: tokens.slate, borderColor: tokens.edge }, style]}
      {...(onDrag && dragging())}
      {...mapMark(maps)}
    >
      <Meant name={label} />
      <Text aria-hidden numberOfLines={1} style={[styles.caption, { color: tokens.cap }]}>
        {caption}
      </Text>
      <TypedNumber
        ref={input}
        label={label}
        value={value}
        min={min}
        max={max}
        text={text}
        valueText={valueText}
        onType={onType}
        onStep={onStep}
        style={[styles.text, { color: tokens.wing }]}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  box: {
    minHeight: TOUCH,
    flexShrink: 1,
    overflow: 'hidden',
    borderRadius: RADIUS,
    borderWidth: 1,
    touchAction: 'none',
    cursor: 'pointer',
  } as ViewStyle,
  caption: {
    position: 'absolute',
    top: 4,
    left: 0,
    right: 0,
    textAlign: 'center',
    fontFamily: WORDS,
    fontSize: grown(13),
    lineHeight: grown(15),
    letterSpacing: 0.2,
    pointerEvents: 'none',
  },
  text: {
    fontFamily: NUMBERS,
    fontSize: grown(18),
    textAlign: 'center',
    width: '100%',
    minWidth: 0,
    flex: 1,
    paddingTop: grown(16),
    borderRadius: RADIUS,
  },
});
