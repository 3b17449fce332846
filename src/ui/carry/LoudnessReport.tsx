import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { LineChart } from 'react-native-gifted-charts';
import type { Loudness } from '@/core/measure/loudness';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';

const HEIGHT = 72;
/** LUFS at the lower and the upper edge of the chart. */
const [LOW, HIGH] = [-40, 0];
const POINTS = 120;
/** What listening services bring music to, and the true peak that they ask for: common practice. */
const SERVICE_LUFS = -14;
const SERVICE_PEAK = -1;

/** How loud a file is as a whole and over its time, and what the trade expects. */
export default function LoudnessReport({ loudness }: { loudness: Loudness }) {
  const tokens = useTokens();
  const [width, setWidth] = useState(0);
  const { integrated, range, truePeak, course } = loudness;
  const facts = Number.isFinite(integrated)
    ? `${integrated.toFixed(1)} LUFS · range ${range.toFixed(1)} LU · true peak ${truePeak.toFixed(1)} dBTP`
    : 'Silence';
  return (
    <View onLayout={(event) => setWidth(event.nativeEvent.layout.width)} style={styles.report}>
      <Text style={[styles.facts, { color: tokens.wing }]}>{facts}</Text>
      {width > 0 && course.length > 1 && (
        <View role="img" aria-label={`Loudness over time, between ${LOW} and ${HIGH} LUFS`} style={styles.chart}>
          <View aria-hidden>
            <LineChart
              data={thinned(course).map((lufs) => ({ value: Math.min(HIGH, Math.max(LOW, lufs)) - LOW }))}
              height={HEIGHT}
              width={width}
              maxValue={HIGH - LOW}
              spacing={width / Math.min(POINTS, course.length)}
              initialSpacing={0}
              endSpacing={0}
              thickness={2}
              color={tokens.breast}
              areaChart
              startFillColor={tokens.breast}
              endFillColor={tokens.breast}
              startOpacity={0.3}
              endOpacity={0.05}
              showReferenceLine1
              referenceLine1Position={SERVICE_LUFS - LOW}
              referenceLine1Config={{ color: tokens.straw, dashWidth: 4, dashGap: 4, thickness: 1 }}
              hideDataPoints
              hideYAxisText
              yAxisThickness={0}
              yAxisLabelWidth={0}
              xAxisColor={tokens.rule}
              xAxisLabelsHeight={0}
              hideRules
              disableScroll
              isAnimated={false}
            />
          </View>
        </View>
      )}
      <Words>{advice(loudness)}</Words>
    </View>
  );
}

/** At most so many values: the loudest of those that fall together. */
function thinned(course: readonly number[]): number[] {
  const each = Math.max(1, Math.ceil(course.length / POINTS));
  const points: number[] = [];
  for (let i = 0; i < course.length; i += each) points.push(Math.max(...course.slice(i, i + each)));
  return points;
}

function advice({ integrated, truePeak }: Loudness): string {
  if (!Number.isFinite(integrated)) return 'Nothing sounds in it.';
  const difference = integrated - SERVICE_LUFS;
  const loud =
    Math.abs(difference) < 1
      ? 'As loud as listening services play it'
      : `Listening services play music at about ${SERVICE_LUFS} LUFS (dashed): they make this ${Math.abs(difference).toFixed(0)} dB ${difference > 0 ? 'softer' : 'louder'}`;
  const peak = truePeak > SERVICE_PEAK ? `; they ask for a true peak of at most ${SERVICE_PEAK} dBTP` : '';
  return `${loud}${peak}.`;
}

const styles = StyleSheet.create({
  report: { gap: 4 },
  facts: { fontFamily: WORDS_STRONG, fontSize: grown(17), lineHeight: grown(22) },
  chart: { height: HEIGHT + 4, overflow: 'hidden' },
});
