import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { counted } from '@/core/counted';
import type { PlacedStroke } from '@/core/record/keep';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS } from '../theme/tokens';
import { grown } from '../theme/type';

interface Props {
  placed: readonly PlacedStroke[];
  /** The window that would be kept, ticks. */
  from: number;
  length: number;
  bar: number;
}

const HEIGHT = 96;
/** Of the drawing, stretched to the width there is. */
const WIDTH = 400;
/** Bars shown before and after the window. */
const AROUND = 1;

/** What was just played around the window to be kept: what lies within is bright, the rest is dim. */
export function PlayedPicture({ placed, from, length, bar }: Props) {
  const tokens = useTokens();
  const start = from - AROUND * bar;
  const span = length + 2 * AROUND * bar;
  const x = (tick: number): `${number}%` => `${(100 * (tick - start)) / span}%`;
  const lanes = [...new Set(placed.map(({ stroke }) => stroke.pad))].sort((a, b) => b - a);
  const visible = placed.filter(({ tick }) => tick >= start && tick < start + span);
  const within = (tick: number) => tick >= from - bar / 32 && tick < from + length - bar / 32;
  const count = placed.filter(({ tick }) => within(tick)).length;
  /** All strokes as one path: thousands of elements would be slow to create. */
  const path = (strokes: readonly PlacedStroke[]) =>
    strokes
      .map(({ stroke, tick }) => {
        const left = (WIDTH * (tick - start)) / span;
        const top = 22 + ((HEIGHT - 40) * (lanes.indexOf(stroke.pad) + 0.5)) / lanes.length;
        const height = 4 + 10 * stroke.velocity;
        return `M${left.toFixed(1)} ${(top + height).toFixed(1)}l2-${height.toFixed(1)}h3l-2 ${height.toFixed(1)}z`;
      })
      .join('');
  return (
    <View
      role="img"
      aria-label={`${counted(count, 'stroke')} in the bars to be kept`}
      style={[styles.frame, { backgroundColor: tokens.deep }]}
    >
      <View style={[styles.window, { left: x(from), width: `${(100 * length) / span}%`, borderColor: tokens.straw }]} />
      {Array.from({ length: Math.round(span / bar) }, (_, i) => (
        <Text key={i} style={[styles.bar, { left: x(start + i * bar), color: tokens.cap, borderColor: tokens.rule }]}>
          {i < AROUND || i >= span / bar - AROUND ? '' : i - AROUND + 1}
        </Text>
      ))}
      <svg width="100%" height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none" aria-hidden>
        <path d={path(visible.filter(({ tick }) => !within(tick)))} fill={tokens.rule} />
        <path d={path(visible.filter(({ tick }) => within(tick)))} fill={tokens.breast} />
      </svg>
    </View>
  );
}

const styles = StyleSheet.create({
  frame: { height: HEIGHT, borderRadius: RADIUS, overflow: 'hidden' },
  window: { position: 'absolute', top: 0, bottom: 0, borderWidth: 2, borderRadius: 4 },
  bar: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    borderLeftWidth: 1,
    paddingLeft: 4,
    fontFamily: NUMBERS,
    fontSize: grown(12),
    lineHeight: 18,
  },
});
