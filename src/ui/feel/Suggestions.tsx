import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import type { Scope } from '@/core/edit/treat';
import type { Lane } from '@/core/document/lanes';
import { isInLoop } from '@/core/sequence/soundingHits';
import { ticksToMs } from '@/core/time/ticks';
import { suggestGrid } from '@/core/quantize/suggestGrid';
import { ControlButton } from '../shared/ControlButton';
import { useTokens } from '../theme/theme';
import { WORDS } from '../theme/tokens';
import type { Pattern } from '@/core/document/pattern';
import { grown } from '../theme/type';

interface Props {
  pattern: Pattern;
  scope: Scope;
  pads: readonly Lane[];
  tempo: number;
  onUse: (pad: number, gridTicks: number) => void;
}

/** For each lane in question the grid that keeps every hit apart and near its place, and why. */
export function Suggestions({ pattern, scope, pads, tempo, onUse }: Props) {
  const tokens = useTokens();
  const suggestions = useMemo(() => {
    const ids = new Set(scope.kind === 'hits' ? scope.ids : []);
    const hits = pattern.hits.filter(
      (hit) => isInLoop(hit, pattern.length) && (scope.kind !== 'hits' || ids.has(hit.id)),
    );
    return pads.flatMap(({ name }, pad) => {
      if (scope.kind === 'lane' && scope.pad !== pad) return [];
      const ticks = hits.filter((hit) => hit.pad === pad).map((hit) => hit.tick);
      const found = suggestGrid(ticks, ticksToMs(1, tempo), name);
      return found ? [{ pad, name, ...found }] : [];
    });
  }, [pattern, scope, pads, tempo]);
  if (suggestions.length === 0) return null;
  return (
    <View role="group" aria-label="Suggested grids" style={styles.list}>
      {suggestions.map(({ pad, name, grid, ticks, reason }) => (
        <View key={pad} style={styles.line}>
          <Text style={[styles.words, { color: tokens.wing }]}>{reason}</Text>
          <ControlButton label={`Use ${grid} for ${name}`} text={`Use ${grid}`} onPress={() => onUse(pad, ticks)} />
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: 4 },
  line: { flexDirection: 'row', gap: 8, alignItems: 'center' },
  words: { fontFamily: WORDS, fontSize: grown(16), lineHeight: grown(21), letterSpacing: 0.2, flex: 1 },
});
