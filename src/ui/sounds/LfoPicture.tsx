import { View, StyleSheet } from 'react-native';
import type { Lfo } from '@/core/document/lfo';
import { lfoWave } from '@/core/sound/lfoVoice';
import { useTokens } from '../theme/theme';
import { RADIUS } from '../theme/tokens';

/** Two cycles. */
const CYCLES = 2;
const POINTS = 160;

/** The wave's shape, as it is: the lower end of its reach may be the higher value. */
export function LfoPicture({ lfo: { shape, low, high } }: { lfo: Lfo }) {
  const tokens = useTokens();
  const points = Array.from({ length: POINTS + 1 }, (_, i) => {
    const wave = lfoWave(shape, (CYCLES * i) / POINTS, 0.01, 7);
    return `${i},${(high >= low ? 1 - wave : wave) * 40 + 4}`;
  });
  return (
    <View style={[styles.picture, { backgroundColor: tokens.deep }]}>
      <svg aria-hidden width="100%" height="100%" viewBox={`0 0 ${POINTS} 48`} preserveAspectRatio="none">
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

const styles = StyleSheet.create({ picture: { height: 52, borderRadius: RADIUS, overflow: 'hidden' } });
