import { StyleSheet, View } from 'react-native';
import { useStore } from 'react-redux';
import { sheetShown } from '@/store/sessionSlice';
import { soundChanged } from '@/store/soundsSlice';
import { SAMPLE_KINDS } from '@/storage/sampleFiles';
import { pickFiles } from '@/storage/pickFile';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { Words } from '../shared/Words';
import { loadSamples } from './sampleActs';
import { SettingStrip } from './SettingStrip';
import { StripGroup } from './StripGroup';
import type { ShownSound } from './useSound';

/** Brings a recording of one's own onto the pad, and cuts the one that is there. */
export function SampleKeys({ sound: { track, pad, source } }: { sound: ShownSound }) {
  const store = useStore() as Store;
  const instrument = useInstrument();
  const load = () => pickFiles(SAMPLE_KINDS, (files) => void loadSamples(store, instrument, files, { track, pad }));
  return (
    <View style={styles.row}>
      <ControlButton label="Load sample" text="Load sample" onPress={load} style={styles.key} />
      <ControlButton
        label="Record sample"
        text="Record sample"
        onPress={() => store.dispatch(sheetShown('record'))}
        style={styles.key}
      />
      {'sample' in source && (
        <ControlButton
          label="Slice"
          text="Slice"
          onPress={() => store.dispatch(sheetShown('slice'))}
          style={styles.short}
        />
      )}
    </View>
  );
}

/** Which part of a sample is played, and which way round. */
export function SampleStrips({ sound }: { sound: ShownSound }) {
  const dispatch = useAppDispatch();
  const { track, pad, source, settings } = sound;
  const sample = !('sample' in source) ? null : source.sample;
  const problem = useAppSelector((state) => (sample ? state.session.missing[sample] : undefined));
  if (!sample) return null;
  const reverse = settings.reverse === true;
  return (
    <>
      {problem && <Words>{`This sound is silent: ${problem}. Load it again, or swap it.`}</Words>}
      <StripGroup name="Sample">
        <SettingStrip setting="start" sound={sound} />
        <SettingStrip setting="end" sound={sound} />
        <ControlButton
          label="Backwards"
          text="Backwards"
          pressed={reverse}
          onPress={() =>
            dispatch(soundChanged({ track, pad, change: { reverse: reverse ? undefined : true }, label: 'backwards' }))
          }
        />
      </StripGroup>
    </>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 6 },
  key: { flexGrow: 1.6, flexBasis: 0 },
  short: { flexGrow: 1, flexBasis: 0 },
});
