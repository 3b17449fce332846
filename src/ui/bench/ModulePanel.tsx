import { ScrollView, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { messageWords } from '@/core/midi/message';
import type { BenchDevice } from '@/midi/bench/benchDevice';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS } from '../theme/tokens';
import { grown } from '../theme/type';
import { useBenchDevice } from './useBenchDevice';

const LINES = 10;

/** A sound module that makes no sound: it shows what it gets, and which notes it holds. */
export function ModulePanel({ device }: { device: BenchDevice }) {
  const tokens = useTokens();
  const count = useBenchDevice(device, () => device.gotCount);
  const held = [...device.lights.keys()].sort((a, b) => a - b);
  const lines = device.got
    .filter(({ message }) => message.type !== 'clock')
    .slice(-LINES)
    .reverse();
  return (
    <View style={{ gap: 4 }}>
      <Text role="status" style={[styles.line, { color: tokens.cap }]}>
        {held.length === 0 ? 'No note is held.' : `Held: ${held.join(', ')}`}
      </Text>
      <ScrollView
        role="log"
        aria-label="What the module gets"
        tabIndex={0}
        style={[styles.log, { backgroundColor: tokens.deep }]}
      >
        {lines.map(({ message }, i) => (
          <Text key={count - i} style={[styles.line, { color: tokens.wing }]}>
            {messageWords(message)}
          </Text>
        ))}
      </ScrollView>
    </View>
  );
}

const styles = StyleSheet.create({
  log: { height: 150, borderRadius: RADIUS, padding: 6 },
  line: { fontFamily: NUMBERS, fontSize: grown(11), lineHeight: grown(17) },
});
