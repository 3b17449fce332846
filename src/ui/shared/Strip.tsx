import { useRef } from 'react';
import { StyleSheet, View, type TextInput, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import type { Target } from '@/core/midi/target';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, TOUCH, WORDS } from '../theme/tokens';
import { mapMark } from './mapMark';
import { SLIDER_STEPS } from './sliderKeys';
import { TypedNumber } from './TypedNumber';
import { gestureName, useDrag, type DragPoint } from './useDrag';
import { grown } from '../theme/type';

interface Props {
  label: string;
  value: number;
  min?: number;
  max?: number;
  /** Step between possible values. */
  step?: number;
  /** The number shown and typed is the value times this, with its unit. */
  scale?: number;
  unit?: string;
  /** The value in words. */
  note?: string;
  /** Keys move the strip itself as a slider of its name; its number is then named after it. */
  slides?: boolean;
  /** What it works, for controllers. */
  maps?: Target | undefined;
  /** `gesture` is the same for all changes of one drag, so that they can be one step of undo; `timeStamp` is when it was touched, ms. */
  onChange: (value: number, gesture: string, timeStamp: number) => void;
  /** A drag has ended. */
  onRelease?: (timeStamp: number) => void;
}

/** A wide horizontal strip with its number on it: touch or drag anywhere to set it, or type the number. */
export function Strip({
  label,
  value,
  min = 0,
  max = 1,
  step = 0.01,
  scale = 100,
  unit = '',
  note,
  slides,
  maps,
  onChange,
  onRelease,
}: Props) {
  const tokens = useTokens();
  const input = useRef<TextInput>(null);
  const tidy = (raw: number) => {
    const stepped = Math.round(Math.min(max, Math.max(min, raw)) / step) * step;
    return Math.round(stepped * 1e6) / 1e6;
  };
  const change = (raw: number, gesture: string, timeStamp = performance.now()) => {
    const next = tidy(raw);
    if (next !== value) onChange(next, gesture, timeStamp);
  };
  const follow = ({ x, width, timeStamp }: DragPoint, gesture: string) =>
    change(min + (x / width) * (max - min), gesture, timeStamp);
  const dragging = useDrag({
    begin: (at) => {
      const gesture = gestureName(label);
      follow(at, gesture);
      return gesture;
    },
    move: follow,
    end: ({ timeStamp }) => onRelease?.(timeStamp),
  });
  // Decimals follow the step: whole numbers, or tenths.
  const parts = step * scale > 0.99 ? 1 : 10;
  const number = String(Math.round(value * scale * parts) / parts);
  const type = (typed: string) => {
    const read = Number(typed.replace(',', '.').replace('%', ''));
    if (typed.trim() !== '' && Number.isFinite(read)) change(read / scale, gestureName(label));
  };
  const shownText = [`${number}${unit && ` ${unit}`}`, ...(note !== undefined ? [note] : [])].join(', ');
  const onKeyDown = (event: { key: string; preventDefault: () => void }) => {
    const steps = SLIDER_STEPS[event.key];
    const end = event.key === 'Home' ? min : event.key === 'End' ? max : null;
    if (steps === undefined && end === null) return;
    event.preventDefault();
    change(end ?? value + steps! * step, gestureName(label));
  };
  return (
    <View
      {...dragging()}
      {...mapMark(maps)}
      style={[styles.strip, { backgroundColor: tokens.deep, borderColor: tokens.rule }]}
    >
      {slides && (
        <View
          role="slider"
          tabIndex={0}
          aria-label={label}
          aria-valuemin={min * scale}
          aria-valuemax={max * scale}
          aria-valuenow={Number(number)}
          aria-valuetext={shownText}
          {...{ onKeyDown }}
          style={StyleSheet.absoluteFill}
        />
      )}
      <View
        style={[styles.fill, { width: `${((value - min) / (max - min)) * 100}%`, backgroundColor: tokens.breast }]}
      />
      <Text numberOfLines={1} style={[styles.label, { color: tokens.wing, backgroundColor: tokens.slate }]}>
        {label}
      </Text>
      <View style={[styles.value, { backgroundColor: tokens.slate }]}>
        {note !== undefined && <Text style={[styles.unit, { color: tokens.cap }]}>{note}</Text>}
        <TypedNumber
          ref={input}
          label={slides ? `${label} number` : label}
          value={Number(number)}
          min={Math.round(min * scale * 10) / 10}
          max={Math.round(max * scale * 10) / 10}
          text={number}
          valueText={shownText}
          onType={type}
          onStep={(steps) => change(value + steps * step, gestureName(label))}
          // A finger on the number types it; anywhere else on the strip it drags.
          ownPress
          style={[styles.number, { color: tokens.wing, width: 14 + 9 * Math.max(3, number.length) }]}
        />
        {unit !== '' && <Text style={[styles.unit, { color: tokens.cap }]}>{unit}</Text>}
      </View>
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
  fill: { position: 'absolute', left: 0, top: 0, bottom: 0, pointerEvents: 'none' },
  label: {
    fontFamily: WORDS,
    fontSize: grown(16),
    paddingHorizontal: 6,
    borderRadius: 6,
    flexShrink: 1,
    pointerEvents: 'none',
    userSelect: 'none',
  },
  value: { flexDirection: 'row', alignItems: 'center', borderRadius: 6, paddingHorizontal: 6, gap: 4 },
  number: { fontFamily: NUMBERS, fontSize: grown(13), height: TOUCH, textAlign: 'right' },
  unit: { fontFamily: WORDS, fontSize: grown(15), userSelect: 'none' },
});
