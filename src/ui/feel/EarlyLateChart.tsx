import { BarChart } from 'react-native-gifted-charts';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { counted } from '@/core/counted';
import { earlyLate, histogram, offsetWords } from '@/core/sequence/earlyLate';
import { useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, WORDS } from '../theme/tokens';
import { grown } from '../theme/type';

interface Props {
  /** Whose playing it is: a lane's name, or all. */
  name: string;
  /** Struck minus grid, ms. */
  offsets: readonly number[];
}

const HEIGHT = 92;
/** Greatest width of all bars, px; and what a sheet and the frame leave beside them. */
const MOST_WIDTH = 300;
const BESIDE = 44;

/** How early and how late: a histogram of struck minus grid, with its middle, its spread and the share that is close. */
export default function EarlyLateChart({ name, offsets }: Props) {
  const tokens = useTokens();
  const room = useRoom();
  const sum = earlyLate(offsets);
  if (!sum) return <Text style={[styles.words, { color: tokens.cap }]}>{name}: nothing was played here yet.</Text>;
  const bins = histogram(offsets);
  const most = Math.max(...bins.map((bin) => bin.count));
  const width = Math.min(MOST_WIDTH, room.width - BESIDE);
  const bar = width / bins.length;
  const xOf = (ms: number) => (bins.findIndex((bin) => bin.ms === ms) + 0.5) * bar - 1;
  const close = `${Math.round(sum.close * 100)} % within ±10 ms`;
  return (
    <View
      role="img"
      aria-label={`${name}: ${offsetWords(sum.median)}, spread ${Math.round(sum.spread)} ms, ${close}, ${counted(sum.count, 'hit')}`}
      style={[styles.frame, { backgroundColor: tokens.deep }]}
    >
      <View style={styles.facts}>
        <Text style={[styles.words, { color: tokens.wing }]}>
          {name}: {offsetWords(sum.median)}
        </Text>
        <Text style={[styles.small, { color: tokens.cap }]}>
          spread {Math.round(sum.spread)} ms · {close} · {counted(sum.count, 'hit')}
        </Text>
      </View>
      <View style={[styles.bars, { width }]} aria-hidden>
        <BarChart
          data={bins.map(({ ms, count }) => ({
            value: count,
            frontColor: Math.abs(ms) <= 10 ? tokens.moss : tokens.cap,
          }))}
          height={HEIGHT}
          width={width}
          maxValue={Math.max(1, most)}
          barWidth={bar - 3}
          spacing={3}
          initialSpacing={0}
          endSpacing={0}
          hideYAxisText
          yAxisThickness={0}
          yAxisLabelWidth={0}
          xAxisColor={tokens.rule}
          hideRules
          disableScroll
          disablePress
          isAnimated={false}
          xAxisLabelsHeight={0}
        />
      </View>
      <View aria-hidden style={[styles.axis, { width }]}>
        {[-50, -25, 0, 25, 50].map((ms) => (
          <Text key={ms} style={[styles.number, { color: tokens.cap, left: xOf(ms) - 20 }]}>
            {ms > 0 ? `+${ms}` : ms}
          </Text>
        ))}
      </View>
      <Text style={[styles.small, { color: tokens.cap }]}>ms from the grid: early to the left, late to the right</Text>
    </View>
  );
}

const styles = StyleSheet.create({
  frame: { borderRadius: RADIUS, padding: 10, gap: 6, overflow: 'hidden' },
  facts: { gap: 0 },
  bars: { height: HEIGHT + 4, overflow: 'hidden' },
  axis: { height: 16 },
  number: {
    position: 'absolute',
    width: 40,
    textAlign: 'center',
    fontFamily: NUMBERS,
    fontSize: grown(11),
    lineHeight: 14,
  },
  words: { fontFamily: WORDS, fontSize: grown(18), lineHeight: grown(24) },
  small: { fontFamily: WORDS, fontSize: grown(15), lineHeight: grown(20) },
});
