import { useRef } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, TOUCH, WORDS } from '../theme/tokens';

interface Props {
  label: string;
  value: number;
  min?: number;
  max?: number;
  /** The values it can have lie this far apart. */
  step?: number;
  /** The value in words, on the strip and for assistive technology. */
  text?: string;
  /** `gesture` is the same for all changes of one drag, so that they can be one step of undo. */
  onChange: (value: number, gesture: string) => void;
}

const KEY_STEPS: Record<string, number> = {
  ...{ ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 },
  ...{ PageUp: 10, PageDown: -10 },
};
let gestures = 0;

/** A wide horizontal strip with its number on it: touch or drag anywhere to set it. */
export function Strip({ label, value, min = 0, max = 1, step = 0.01, text, onChange }: Props) {
  const tokens = useTokens();
  const drag = useRef<string | null>(null);
  const tidy = (raw: number) => {
    const stepped = Math.round(Math.min(max, Math.max(min, raw)) / step) * step;
    return Math.round(stepped * 1e6) / 1e6;
  };
  const follow = (event: { nativeEvent: { clientX: number }; currentTarget: unknown }) => {
    const { left, width } = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const next = tidy(min + ((event.nativeEvent.clientX - left) / width) * (max - min));
    if (next !== value) onChange(next, drag.current!);
  };
  const shown = text ?? String(Math.round(value * 100));
  return (
    <View
      role="slider"
      aria-label={label}
      aria-valuenow={text === undefined ? Math.round(value * 100) : value}
      aria-valuemin={text === undefined ? min * 100 : min}
      aria-valuemax={text === undefined ? max * 100 : max}
      aria-valuetext={shown}
      tabIndex={0}
      onPointerDown={(event) => {
        drag.current = `${label} ${++gestures}`;
        (event.currentTarget as unknown as HTMLElement).setPointerCapture(event.nativeEvent.pointerId);
        follow(event);
      }}
      onPointerMove={(event) => {
        if (drag.current) follow(event);
      }}
      onPointerUp={() => (drag.current = null)}
      onPointerCancel={() => (drag.current = null)}
      {...{
        onKeyDown: (event: KeyboardEvent) => {
          const steps = KEY_STEPS[event.key];
          if (steps === undefined) return;
          event.preventDefault();
          const next = tidy(value + steps * step);
          if (next !== value) onChange(next, `${label} ${++gestures}`);
        },
      }}
      style={[styles.strip, { backgroundColor: tokens.deep, borderColor: tokens.rule }]}
    >
      <View
        style={[styles.fill, { width: `${((value - min) / (max - min)) * 100}%`, backgroundColor: tokens.breast }]}
      />
      <Text style={[styles.label, { color: tokens.wing, backgroundColor: tokens.slate }]}>{label}</Text>
      <Text style={[styles.number, { color: tokens.wing, backgroundColor: tokens.slate }]}>{shown}</Text>
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
