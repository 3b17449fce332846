import { useEffect } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { EIGHT_BY_EIGHT, FOUR_BY_FOUR, noteAt } from '@/core/midi/gridLayout';
import { sheetShown } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { BenchPart } from './BenchPart';
import { ClockPanel } from './ClockPanel';
import { KeyboardPanel } from './KeyboardPanel';
import { KnobPanel } from './KnobPanel';
import { ModulePanel } from './ModulePanel';
import { NotePads } from './NotePads';
import { useBench } from './useBench';

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
      <View style={styles.words}>
        <Words>Simulated controllers, to try things out without any: each is a device like a real one.</Words>
      </View>
      <View style={styles.parts}>
        <BenchPart device={bench.pads}>
          <NotePads
            device={bench.pads}
            columns={4}
            rows={4}
            noteAt={(column, row) => noteAt(FOUR_BY_FOUR, { column, row })}
            nameOf={(note) => `Pad ${note - FOUR_BY_FOUR.first + 1}`}
            textOf={(note) => String(note - FOUR_BY_FOUR.first + 1)}
            height={72}
          />
        </BenchPart>
        <BenchPart device={bench.grid}>
          <NotePads
            device={bench.grid}
            columns={8}
            rows={8}
            noteAt={(column, row) => noteAt(EIGHT_BY_EIGHT, { column, row })}
            nameOf={(note) => `Button ${note - EIGHT_BY_EIGHT.first + 1}`}
            height={44}
          />
        </BenchPart>
        <BenchPart device={bench.knobs}>
          <KnobPanel device={bench.knobs} />
        </BenchPart>
        <BenchPart device={bench.keyboard}>
          <KeyboardPanel device={bench.keyboard} />
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
  page: { paddingHorizontal: 4, paddingBottom: 20, gap: 8 },
  head: { paddingHorizontal: 6, flexDirection: 'row', justifyContent: 'space-between', alignItems: 'center' },
  words: { paddingHorizontal: 6 },
  title: { fontFamily: WORDS_STRONG, fontSize: grown(24), lineHeight: grown(30) },
  parts: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
});
