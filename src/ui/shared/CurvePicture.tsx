import { StyleSheet, View } from 'react-native';
import { useTokens } from '../theme/theme';
import { RADIUS } from '../theme/tokens';

const POINTS = 160;
/** The picture's own height; it is drawn as high as there is room for. */
const HEIGHT = 60;

interface Props {
  /** What it shows, in words. */
  label: string;
  /** How high the curve is, 0..1, from its left end (0) to its right one (1). */
  curve: (place: number) => number;
  /** A line behind it: at half of its height, or from one corner to the other. */
  line?: 'middle' | 'diagonal';
  /** px */
  height?: number;
}

/** A curve, as wide as there is room for. */
export function CurvePicture({ label, curve, line, height = 76 }: Props) {
  const tokens = useTokens();
  const y = (share: number) => 4 + (HEIGHT - 8) * (1 - Math.min(1, Math.max(0, share)));
  const points = Array.from({ length: POINTS + 1 }, (_, i) => `${i},${y(curve(i / POINTS)).toFixed(2)}`);
  const [from, to] = line === 'middle' ? [0.5, 0.5] : [0, 1];
  return (
    <View role="img" aria-label={label} style={[styles.picture, { height, backgroundColor: tokens.deep }]}>
      <svg aria-hidden width="100%" height="100%" viewBox={`0 0 ${POINTS} ${HEIGHT}`} preserveAspectRatio="none">
        {line && (
          <line x1={0} x2={POINTS} y1={y(from)} y2={y(to)} stroke={tokens.rule} vectorEffect="non-scaling-stroke" />
        )}
        <polyline
          points={points.join(' ')}
          fill="none"
          stroke={tokens.breast}
          strokeWidth={2.5}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
    </View>
  );
}

const styles = StyleSheet.create({ picture: { borderRadius: RADIUS, overflow: 'hidden' } });
