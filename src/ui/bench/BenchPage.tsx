import { useEffect } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { sheetShown } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { useBench } from '../devices/ControllersContext';
import { ControlButton } from '../shared/ControlButton';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { BenchPart } from './BenchPart';
import { ClockPanel } from './ClockPanel';
import { KnobPanel } from './KnobPanel';
import { ModulePanel } from './ModulePanel';
import { NotePads } from './NotePads';

const C3 = 48;
const KEYS = 25;

/** Stand-ins for controllers: they speak real MIDI bytes, are played by touch, mouse and keys, and misbehave on request. */
export default function BenchPage() {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const bench = useBench();
  useEffect(() => {
    // What was unplugged by hand stays so.
    if (bench.isNew) bench.plugAll();
  }, [bench]);
  return (
    <ScrollView tabIndex={0} contentContainerStyle={styles.page}>
      <View style={styles.head}>
        <Text role="heading" aria-level={2} style={[styles.title, { color: tokens.wing }]}>
          Bench
        </Text>
        <ControlButton label="Devices" text="Devices" onPress={() => dispatch(sheetShown('devices'))} />
      </View>
      <Words>Simulated controllers, to try things out without any: each is a device like a real one.</Words>
      <View style={styles.parts}>
        <BenchPart device={bench.pads}>
          <NotePads
            device={bench.pads}
            columns={4}
            rows={4}
            noteAt={(column, row) => 36 + row * 4 + column}
            name="Pad"
          />
        </BenchPart>
        <BenchPart device={bench.grid}>
          <NotePads
            device={bench.grid}
            columns={8}
            rows={8}
            noteAt={(column, row) => 36 + row * 8 + column}
            name="Button"
            small
          />
        </BenchPart>
        <BenchPart device={bench.knobs}>
          <KnobPanel device={bench.knobs} />
        </BenchPart>
        <BenchPart device={bench.keyboard}>
          <NotePads
            device={bench.keyboard}
            columns={KEYS}
            rows={1}
            noteAt={(column) => C3 + column}
            name="Key"
            keyboard
          />
        </BenchPart>
        <BenchPart device={bench.clock}>
          <ClockPanel source={bench.clockSource} />
        </BenchPart>
        <BenchPart device={bench.module}>
          <ModulePanel device={bench.module} />
        </BenchPart>
      </View>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  page: { paddingHorizontal: 10, paddingBottom: 20, gap: 8 },
  head: { flexDirection: 'row', justifyContent: 'space-between', alignItems: 'center' },
  title: { fontFamily: WORDS_STRONG, fontSize: grown(24), lineHeight: grown(30) },
  parts: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
});
