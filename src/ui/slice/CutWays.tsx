import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { counted } from '@/core/counted';
import { gridTicks, INPUT_GRIDS, type GridName } from '@/core/quantize/grid';
import { SAMPLE_RATE } from '@/core/sample/levels';
import { asCuts, equalCuts, evenCuts, nearestCrossing } from '@/core/slice/cuts';
import { sensitiveTo } from '@/core/slice/onsets';
import { framesPerTick, MAX_TEMPO, MIN_TEMPO } from '@/core/time/ticks';
import { sampleTempoSet } from '@/store/soundsSlice';
import { useAppDispatch } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { NumberField } from '../shared/NumberField';
import { Segments } from '../shared/Segments';
import { Strip } from '../shared/Strip';
import { gestureName } from '../shared/useDrag';
import { WholeNumber } from '../shared/WholeNumber';
import { Words } from '../shared/Words';
import type { Recording } from './useRecording';

const WAYS = ['onsets', 'parts', 'grid'] as const;
type Way = (typeof WAYS)[number];
const WAY_NAMES: Record<Way, string> = { onsets: 'Onsets', parts: 'Equal parts', grid: 'Tempo' };
const MOST_PARTS = 64;

/** How it was last cut, for as long as the page is open. */
const last = { way: 'onsets' as Way, sensitivity: 0.5, parts: 8, grid: '1/8' as GridName };

interface Props {
  recording: Recording;
  onCut: (cuts: readonly number[], gesture?: string) => void;
}

/** The three ways to cut all of a recording at once. */
export function CutWays({ recording, onCut }: Props) {
  const [way, setWay] = useState(last.way);
  const choose = (next: Way) => setWay((last.way = next));
  return (
    <>
      <Segments
        label="Cut by"
        caption="Cut by"
        value={way}
        options={WAYS.map((value) => ({ value, name: WAY_NAMES[value] }))}
        onChoose={choose}
      />
      {way === 'onsets' && <ByOnsets recording={recording} onCut={onCut} />}
      {way === 'parts' && <ByParts recording={recording} onCut={onCut} />}
      {way === 'grid' && <ByGrid recording={recording} onCut={onCut} />}
    </>
  );
}

function ByOnsets({ recording: { onsets, audio, part }, onCut }: Props) {
  const [sensitivity, setSensitivity] = useState(last.sensitivity);
  if (!audio || !onsets) return <Words>Looking for what begins in it …</Words>;
  const cutsAt = (value: number) =>
    asCuts(
      sensitiveTo(onsets, value).map(({ frame }) => nearestCrossing(audio, frame)),
      part,
    );
  const set = (value: number, gesture: string) => {
    setSensitivity((last.sensitivity = value));
    onCut(cutsAt(value), gesture);
  };
  const count = cutsAt(sensitivity).length;
  return (
    <>
      <Strip slides label="Sensitivity" value={sensitivity} unit="%" note={counted(count, 'onset')} onChange={set} />
      <ControlButton
        label={`Cut at ${counted(count, 'onset')}`}
        text={`Cut at ${counted(count, 'onset')}`}
        disabled={count === 0}
        onPress={() => onCut(cutsAt(sensitivity))}
      />
    </>
  );
}

function ByParts({ recording: { part }, onCut }: Props) {
  const [parts, setParts] = useState(last.parts);
  return (
    <View style={styles.row}>
      <WholeNumber
        label="Equal parts"
        caption="Parts"
        value={parts}
        min={2}
        max={MOST_PARTS}
        onChange={(next) => setParts((last.parts = next))}
      />
      <ControlButton
        label={`Cut into ${parts} equal parts`}
        text={`Cut into ${parts}`}
        onPress={() => onCut(equalCuts(part, parts))}
        style={styles.key}
      />
    </View>
  );
}

function ByGrid({ recording: { track, pad, part, tempo, onsets }, onCut }: Props) {
  const dispatch = useAppDispatch();
  const [grid, setGrid] = useState(last.grid);
  const set = (next: number, gesture?: string) =>
    dispatch(sampleTempoSet({ track, pad, tempo: Math.round(next * 100) / 100, ...(gesture && { gesture }) }));
  const shown = tempo ?? 120;
  return (
    <>
      <View style={styles.row}>
        <NumberField
          label="Tempo of the recording"
          caption={tempo === null ? (onsets ? 'not found' : 'looking …') : 'BPM'}
          value={shown}
          min={MIN_TEMPO}
          max={MAX_TEMPO}
          text={tempo === null ? '–' : String(Math.round(tempo * 100) / 100)}
          onType={(text) => {
            const read = Number(text.replace(',', '.'));
            if (text.trim() === '' || !(read >= MIN_TEMPO && read <= MAX_TEMPO)) return false;
            set(read);
            return true;
          }}
          onStep={(steps) => set(shown + steps, gestureName('tempo of a recording'))}
          style={styles.tempo}
        />
        <ControlButton
          label="Half the tempo"
          text="Half"
          disabled={shown / 2 < MIN_TEMPO}
          onPress={() => set(shown / 2)}
          style={styles.key}
        />
        <ControlButton
          label="Double the tempo"
          text="Double"
          disabled={shown * 2 > MAX_TEMPO}
          onPress={() => set(shown * 2)}
          style={styles.key}
        />
        <Choice
          label="A cut every"
          caption="A cut every"
          value={grid}
          options={INPUT_GRIDS.map((value) => ({ value: value as GridName, name: value }))}
          numeric
          grow
          onChoose={(next) => setGrid((last.grid = next))}
        />
      </View>
      <ControlButton
        label={`Cut every ${grid}`}
        text={`Cut every ${grid}`}
        disabled={tempo === null}
        onPress={() => onCut(evenCuts(part, gridTicks(grid) * framesPerTick(shown, SAMPLE_RATE)))}
      />
    </>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 6 },
  key: { flexGrow: 1, minWidth: 56, paddingHorizontal: 4 },
  tempo: { flexGrow: 1, flexBasis: 84, maxWidth: 120 },
});
