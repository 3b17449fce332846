import { useInstrument } from '../shared/InstrumentContext';
import { StyleSheet, View } from 'react-native';
import { nearestLoopBars } from '@/core/edit/loopTicks';
import { INPUT_GRIDS, type GridName, REPEAT_RATES } from '@/core/quantize/grid';
import { selectPattern, selectSet } from '@/store/selectors';
import { latchToggled, noticed, repeatToggled, sheetToggled, stepInputToggled } from '@/store/sessionSlice';
import { repeatRateSet } from '@/store/settingsSlice';
import { padStepsToggled } from '@/store/stepsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { NumberField } from '../shared/NumberField';
import { LOOP_BARS } from '@/core/document/limits';
import { loopBars } from '@/core/document/pattern';
import { gridSet, inputQuantizeToggled } from '@/store/timeSlice';
import { loopBarsSet } from '@/store/patternsSlice';

const GRID_OPTIONS = INPUT_GRIDS.map((name) => ({ value: name as GridName, name }));
const RATE_OPTIONS = REPEAT_RATES.map((name) => ({ value: name, name }));
const SHEETS = [
  { name: 'feel', title: 'Feel' },
  { name: 'takes', title: 'Takes' },
  { name: 'keep', title: 'Keep' },
  { name: 'moves', title: 'Moves' },
] as const;
const SHORTEST = LOOP_BARS[0];
const LONGEST = LOOP_BARS[LOOP_BARS.length - 1]!;

/** How playing goes into the pattern: input quantize and its grid, and the loop's length. */
export function PadTools() {
  const dispatch = useAppDispatch();
  const quantize = useAppSelector((state) => selectSet(state).inputQuantize);
  const padsAreSteps = useAppSelector((state) => state.steps.padSteps !== null);
  return (
    <View style={styles.tools}>
      <ControlButton
        label="Input quantize"
        caption="Quantize"
        text={quantize.on ? 'On' : 'Off'}
        pressed={quantize.on}
        onPress={() => dispatch(inputQuantizeToggled())}
        style={styles.grow}
      />
      <Choice
        label="Grid"
        caption="Grid"
        value={quantize.grid}
        options={GRID_OPTIONS}
        numeric
        onChoose={(grid) => dispatch(gridSet(grid))}
        style={styles.grid}
      />
      <LoopLength />
      <ControlButton
        label="Pads as steps"
        icon="dots-grid"
        pressed={padsAreSteps}
        onPress={() => dispatch(padStepsToggled())}
      />
    </View>
  );
}

/** Playing by hand and what comes of it: note repeat, step input, and the ways to what was played. */
export function PlayTools() {
  const dispatch = useAppDispatch();
  const { repeat, step, sheet } = useAppSelector((state) => state.session);
  const rate = useAppSelector((state) => state.settings.repeatRate);
  return (
    <View style={[styles.tools, styles.tight]}>
      <ControlButton
        label="Note repeat"
        caption="Repeat"
        text={repeat.on ? 'On' : 'Off'}
        pressed={repeat.on}
        onPress={() => dispatch(repeatToggled())}
        style={styles.share}
      />
      <Choice
        label="Repeat rate"
        caption="Rate"
        value={rate}
        options={RATE_OPTIONS}
        numeric
        onChoose={(name) => dispatch(repeatRateSet(name))}
        style={styles.rate}
      />
      <ControlButton
        label="Latch"
        caption="Latch"
        text={repeat.latch ? 'On' : 'Off'}
        pressed={repeat.latch}
        disabled={!repeat.on}
        onPress={() => dispatch(latchToggled())}
        style={styles.share}
      />
      <ControlButton
        label="Step input"
        caption="Steps in"
        text={step ? 'On' : 'Off'}
        pressed={step !== null}
        onPress={() => dispatch(stepInputToggled())}
        style={styles.share}
      />
      {SHEETS.map(({ name, title }) => (
        <ControlButton
          key={name}
          label={title}
          text={title}
          pressed={sheet === name}
          onPress={() => dispatch(sheetToggled(name))}
          style={styles.share}
        />
      ))}
    </View>
  );
}

function LoopLength() {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const bars = useAppSelector((state) => loopBars(selectPattern(state), selectSet(state).meter));
  const set = (wanted: number) => dispatch(loopBarsSet({ place: instrument.placeOf(), bars: wanted }));
  const stepFrom = LOOP_BARS.indexOf(nearestLoopBars(bars) as (typeof LOOP_BARS)[number]);
  return (
    <View style={styles.loop}>
      <ControlButton label="Halve loop" text="÷2" disabled={bars <= SHORTEST} onPress={() => set(bars / 2)} />
      <NumberField
        label="Loop length"
        caption="Loop, bars"
        value={bars}
        min={SHORTEST}
        max={LONGEST}
        text={String(Math.round(bars * 100) / 100)}
        valueText={`${bars} bars`}
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
        style={styles.bars}
      />
      <ControlButton label="Double loop" text="×2" disabled={bars >= LONGEST} onPress={() => set(bars * 2)} />
    </View>
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 4 },
  tight: { gap: 2 },
  grow: { minWidth: 66 },
  grid: { minWidth: 62 },
  loop: { flexDirection: 'row', gap: 2, flex: 1, minWidth: 0 },
  bars: { flex: 1, minWidth: 0 },
  rate: { minWidth: 50, paddingHorizontal: 1 },
  share: { flexGrow: 1, flexShrink: 1, minWidth: 44, paddingHorizontal: 0 },
});
