import { counted } from '@/core/counted';
import { useInstrument } from '../shared/InstrumentContext';
import { StyleSheet, View } from 'react-native';
import { nearestLoopBars } from '@/core/edit/loopTicks';
import { INPUT_GRIDS, type GridName, REPEAT_RATES } from '@/core/quantize/grid';
import { selectPattern, selectSet } from '@/store/selectors';
import { latchToggled, noticed, repeatToggled, stepInputToggled } from '@/store/sessionSlice';
import { foldToggled, repeatRateSet, simpleViewSet } from '@/store/settingsSlice';
import { padStepsToggled } from '@/store/stepsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { NumberField } from '../shared/NumberField';
import { SheetKey } from '../shared/SheetKey';
import { NoteTools } from './NoteTools';
import { StepBar } from './StepBar';
import { StepPadsBar } from './StepPads';
import { LOOP_BARS } from '@/core/document/limits';
import { loopBars } from '@/core/document/pattern';
import { gridSet, inputQuantizeToggled } from '@/store/timeSlice';
import { loopBarsSet } from '@/store/patternsSlice';

const GRID_OPTIONS = INPUT_GRIDS.map((name) => ({ value: name as GridName, name }));
const RATE_OPTIONS = REPEAT_RATES.map((name) => ({ value: name, name }));
const SHEETS = [
  { name: 'feel', title: 'Feel' },
  { name: 'takes', title: 'Takes' },
  { name: 'moves', title: 'Moves' },
] as const;
const SHORTEST = LOOP_BARS[0];
const LONGEST = LOOP_BARS[LOOP_BARS.length - 1]!;

/**
 * The tools of Pads: the few that are needed while playing, and the key that unfolds the others. Step input, and pads that are
 * steps, bring their own in the place of the first.
 * @param column one below the other, at the side of the pads
 */
export function PadTools({ column }: { column: boolean }) {
  const dispatch = useAppDispatch();
  const padsAreSteps = useAppSelector((state) => state.steps.padSteps !== null);
  const stepInput = useAppSelector((state) => state.session.step !== null);
  const unfolded = useAppSelector((state) => state.settings.unfolded.tools);
  const way = column ? styles.column : styles.row;
  return (
    <View style={column ? styles.column : styles.rows}>
      <View style={way}>
        <View style={[way, styles.share]}>
          {padsAreSteps ? <StepPadsBar /> : stepInput ? <StepBar /> : <PlayTools />}
        </View>
        <ControlButton
          label="More tools"
          icon={unfolded ? 'chevron-up' : 'chevron-down'}
          expanded={unfolded}
          onPress={() => dispatch(foldToggled('tools'))}
        />
      </View>
      {unfolded && (
        <View style={styles.more}>
          <NoteTools />
          <PatternTools />
          <RepeatTools />
        </View>
      )}
    </View>
  );
}

/** While playing: input quantize, note repeat, the loop's length, and Keep. */
function PlayTools() {
  const dispatch = useAppDispatch();
  const quantize = useAppSelector((state) => selectSet(state).inputQuantize);
  const repeat = useAppSelector((state) => state.session.repeat.on);
  const rate = useAppSelector((state) => state.settings.repeatRate);
  return (
    <>
      <ControlButton
        label="Input quantize"
        maps={{ do: 'quantize' }}
        caption="Quantize"
        text={quantize.on ? quantize.grid : 'Off'}
        description={quantize.on ? `to ${quantize.grid}` : 'off'}
        pressed={quantize.on}
        onPress={() => dispatch(inputQuantizeToggled())}
        style={styles.key}
      />
      <ControlButton
        label="Note repeat"
        maps={{ do: 'repeat' }}
        caption="Repeat"
        text={repeat ? rate : 'Off'}
        description={repeat ? `every ${rate}` : 'off'}
        pressed={repeat}
        onPress={() => dispatch(repeatToggled())}
        style={styles.key}
      />
      <LoopLength />
      <SheetKey name="keep" title="Keep" style={styles.key} />
    </>
  );
}

/** What is set between playing: the grid, half and double the loop, and the pads as steps or entered step by step. */
function PatternTools() {
  const dispatch = useAppDispatch();
  const grid = useAppSelector((state) => selectSet(state).inputQuantize.grid);
  const padsAreSteps = useAppSelector((state) => state.steps.padSteps !== null);
  const step = useAppSelector((state) => state.session.step !== null);
  const [bars, setBars] = useLoopBars();
  return (
    <View style={styles.group}>
      <Choice
        label="Grid"
        maps={{ do: 'grid' }}
        caption="Grid"
        value={grid}
        options={GRID_OPTIONS}
        numeric
        grow
        style={styles.choice}
        onChoose={(name) => dispatch(gridSet(name))}
      />
      <ControlButton
        label="Halve loop"
        maps={{ do: 'halveLoop' }}
        caption="Loop"
        text="÷2"
        disabled={bars <= SHORTEST}
        onPress={() => setBars(bars / 2)}
        style={styles.key}
      />
      <ControlButton
        label="Double loop"
        maps={{ do: 'doubleLoop' }}
        caption="Loop"
        text="×2"
        disabled={bars >= LONGEST}
        onPress={() => setBars(bars * 2)}
        style={styles.key}
      />
      <ControlButton
        label="Step input"
        caption="Steps in"
        text={step ? 'On' : 'Off'}
        pressed={step}
        onPress={() => dispatch(stepInputToggled())}
        style={styles.key}
      />
      <ControlButton
        label="Pads as steps"
        caption="As steps"
        text={padsAreSteps ? 'On' : 'Off'}
        pressed={padsAreSteps}
        onPress={() => dispatch(padStepsToggled())}
        style={styles.key}
      />
    </View>
  );
}

/** Note repeat's rate and latch, and the ways to what was played. */
function RepeatTools() {
  const dispatch = useAppDispatch();
  const { on, latch } = useAppSelector((state) => state.session.repeat);
  const rate = useAppSelector((state) => state.settings.repeatRate);
  return (
    <View style={styles.group}>
      <Choice
        label="Repeat rate"
        maps={{ do: 'rate' }}
        caption="Rate"
        value={rate}
        options={RATE_OPTIONS}
        numeric
        grow
        style={styles.choice}
        onChoose={(name) => dispatch(repeatRateSet(name))}
      />
      <ControlButton
        label="Latch"
        maps={{ do: 'latch' }}
        caption="Latch"
        text={latch ? 'On' : 'Off'}
        pressed={latch}
        disabled={!on}
        onPress={() => dispatch(latchToggled())}
        style={styles.key}
      />
      <ControlButton
        label="Simple view"
        text="Simple"
        onPress={() => dispatch(simpleViewSet({ on: true }))}
        style={styles.key}
      />
      {SHEETS.map(({ name, title }) => (
        <SheetKey key={name} name={name} title={title} style={styles.key} />
      ))}
    </View>
  );
}

/** The loop's length in bars, and what sets it. */
function useLoopBars(): [bars: number, set: (bars: number) => void] {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const bars = useAppSelector((state) => loopBars(selectPattern(state), selectSet(state).meter));
  return [bars, (wanted) => dispatch(loopBarsSet({ place: instrument.placeOf(), bars: wanted }))];
}

function LoopLength() {
  const dispatch = useAppDispatch();
  const [bars, set] = useLoopBars();
  const stepFrom = LOOP_BARS.indexOf(nearestLoopBars(bars) as (typeof LOOP_BARS)[number]);
  return (
    <NumberField
      label="Loop length"
      caption="Loop, bars"
      value={bars}
      min={SHORTEST}
      max={LONGEST}
      text={String(Math.round(bars * 100) / 100)}
      valueText={counted(bars, 'bar')}
      onStep={(steps) => set(LOOP_BARS[Math.min(LOOP_BARS.length - 1, Math.max(0, stepFrom + steps))]!)}
      onType={(text) => {
        const wanted = Number.parseFloat(text.replace(',', '.'));
        if (!(wanted > 0)) {
          dispatch(noticed(`Loop length “${text.trim()}” is not a number of bars: ${LOOP_BARS.join(', ')}.`));
          return false;
        }
        const nearest = nearestLoopBars(wanted);
        if (nearest !== wanted) dispatch(noticed(`Loops last ${LOOP_BARS.join(', ')} bars: set to ${nearest}.`));
        set(wanted);
        return true;
      }}
      style={styles.key}
    />
  );
}

const styles = StyleSheet.create({
  rows: { gap: 4 },
  row: { flexDirection: 'row', gap: 4 },
  column: { gap: 4 },
  share: { flex: 1, minWidth: 0 },
  more: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
  group: { flexDirection: 'row', gap: 4, flexGrow: 1, flexShrink: 1, flexBasis: 320, minWidth: 0 },
  choice: { paddingHorizontal: 0 },
  key: { flexGrow: 1, flexShrink: 1, flexBasis: 56, minWidth: 44, paddingHorizontal: 0 },
});
