import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useStore } from 'react-redux';
import { counted } from '@/core/counted';
import { SAMPLE_RATE } from '@/core/sample/levels';
import { selectSet } from '@/store/selectors';
import { useAppSelector, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { SheetTitle } from '../shared/Sheet';
import { WholeNumber } from '../shared/WholeNumber';
import { Words } from '../shared/Words';
import { fitToBars, framesOfBars, whyNotFitted } from './sliceActs';
import type { Recording } from './useRecording';

const MOST_BARS = 32;

/** Makes a recording as long as bars of the set, at its own pitch. */
export function FitKeys({ recording }: { recording: Recording }) {
  const store = useStore() as Store;
  const instrument = useInstrument();
  const { tempo, meter } = useAppSelector(selectSet);
  const { part, tempo: own } = recording;
  const [typed, setTyped] = useState<number | null>(null);
  const [busy, setBusy] = useState(false);
  const length = part.to - part.from;
  const ownBars = length / framesOfBars(1, own ?? tempo, meter);
  const likely = Math.min(MOST_BARS, Math.max(1, Math.round(ownBars)));
  const bars = typed ?? likely;
  const frames = framesOfBars(bars, tempo, meter);
  const problem = whyNotFitted(recording, frames);
  const fit = async () => {
    setBusy(true);
    await fitToBars(store, instrument, recording, bars);
    setBusy(false);
  };
  const seconds = (of: number) => (of / SAMPLE_RATE).toFixed(2);
  return (
    <>
      <SheetTitle>Fit to bars</SheetTitle>
      <Words>
        {`It is ${seconds(length)} s long${own === null ? '' : `, ${ownBars.toFixed(2)} bars at ${Math.round(own * 10) / 10} BPM`}. In this set, at ${tempo} BPM, ${counted(bars, 'bar')} would be ${seconds(frames)} s. Its pitch stays.`}
      </Words>
      {problem && <Words>{problem}</Words>}
      <View style={styles.row}>
        <WholeNumber label="Bars to fit" caption="Bars" value={bars} min={1} max={MOST_BARS} onChange={setTyped} />
        <ControlButton
          label={`Fit to ${counted(bars, 'bar')}`}
          text={busy ? 'Fitting …' : `Fit to ${counted(bars, 'bar')}`}
          disabled={busy || problem !== null || !recording.audio}
          onPress={() => void fit()}
          style={styles.key}
        />
      </View>
    </>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', gap: 6 }, key: { flexGrow: 1 } });
