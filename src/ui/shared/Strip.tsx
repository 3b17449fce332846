import { useRef } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, TOUCH, WORDS } from '../theme/tokens';

interface Props {
  label: string;
  /** 0..1 */
  value: number;
  onChange: (value: number) => void;
}

const KEY_STEPS: Record<string, number> = { ArrowRight: 0.05, ArrowUp: 0.05, ArrowLeft: -0.05, ArrowDown: -0.05 };

/** A wide horizontal strip with its number on it: touch or drag anywhere to set it. */
export function Strip({ label, value, onChange }: Props) {
  const tokens = useTokens();
  const dragging = useRef(false);
  const set = (x: number, width: number) => onChange(Math.round(Math.min(1, Math.max(0, x / width)) * 100) / 100);
  const follow = (event: { nativeEvent: { clientX: number }; currentTarget: unknown }) => {
    const { left, width } = (event.currentTarget as HTMLElement).getBoundingClientRect();
    set(event.nativeEvent.clientX - left, width);
  };
  return (
    <View
      role="slider"
      aria-label={label}
      aria-valuenow={Math.round(value * 100)}
      aria-valuemin={0}
      aria-valuemax={100}
      tabIndex={0}
      onPointerDown={(event) => {
        dragging.current = true;
        (event.currentTarget as unknown as HTMLElement).setPointerCapture(event.nativeEvent.pointerId);
        follow(event);
      }}
      onPointerMove={(event) => {
        if (dragging.current) follow(event);
      }}
      onPointerUp={() => (dragging.current = false)}
      onPointerCancel={() => (dragging.current = false)}
      {...{
        onKeyDown: (event: KeyboardEvent) => {
          const step = KEY_STEPS[event.key];
          if (step === undefined) return;
          event.preventDefault();
          onChange(Math.round(Math.min(1, Math.max(0, value + step)) * 100) / 100);
        },
      }}
      style={[styles.strip, { backgroundColor: tokens.deep, borderColor: tokens.rule }]}
    >
      <View style={[styles.fill, { width: `${value * 100}%`, backgroundColor: tokens.breast }]} />
      <Text style={[styles.label, { color: tokens.wing, backgroundColor: tokens.slate }]}>{label}</Text>
      <Text style={[styles.number, { color: tokens.wing, backgroundColor: tokens.slate }]}>
        {Math.round(value * 100)}
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({
  strip: {
    height: TOUCH + 4,
    borderRadius: RADIUS,
    borderWidth: 1,
    overflow: 'hidden',
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'space-between',
    paddingHorizontal: 10,
    touchAction: 'none',
    cursor: 'pointer',
  } as ViewStyle,
  fill: { position: 'absolute', left: 0, top: 0, bottom: 0 },
  label: { fontFamily: WORDS, fontSize: 16, paddingHorizontal: 6, borderRadius: 6, pointerEvents: 'none' },
  number: { fontFamily: NUMBERS, fontSize: 13, paddingHorizontal: 6, borderRadius: 6, pointerEvents: 'none' },
});
