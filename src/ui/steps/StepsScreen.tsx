import { useState } from 'react';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { Text } from 'react-native-paper';
import { KITS } from '@/core/model/kits';
import { PPQ, ticksPerBar } from '@/core/time/ticks';
import { GRIDS, gridTicks, type GridName } from '@/core/timing/grid';
import { CURRENT_TRACK, selectPattern, selectSet, selectTrack } from '@/store/selectors';
import { noticed, sheetToggled } from '@/store/sessionSlice';
import { laneEmptied, laneRotated } from '@/store/setSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { useTokens } from '../theme/theme';
import { WIDE } from '../theme/tokens';
import { StepGrid } from './StepGrid';

const STEP_OPTIONS = GRIDS.filter(({ name }) => !name.endsWith('D')).map(({ name }) => ({
  value: name as GridName,
  name,
}));
const MOST_BARS = 8;
/** Bars in view to begin with where there is room. */
const WIDE_BARS = 2;

/** The place *Steps*: the current pattern as lanes and steps, painted while it plays. */
export function StepsScreen() {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const pattern = useAppSelector(selectPattern);
  const meter = useAppSelector((state) => selectSet(state).meter);
  const [stepName, setStepName] = useState<GridName>('1/16');
  const [pad, setPad] = useState(0);
  const { pads } = KITS[useAppSelector(selectTrack).kit];
  const step = gridTicks(stepName);
  const rotate = (ticks: number) => dispatch(laneRotated({ track: CURRENT_TRACK, pad, ticks }));
  const bar = ticksPerBar(meter);
  const wide = useWindowDimensions().width >= WIDE;
  const [span, setSpan] = useState(wide ? WIDE_BARS * bar : bar);
  if (!pattern) {
    return (
      <Text style={{ color: tokens.cap, padding: 16 }}>
        There is no pattern here. Choose or make one by the pattern’s name above.
      </Text>
    );
  }
  const most = Math.min(pattern.length, MOST_BARS * bar);
  const shown = Math.min(span, most);
  const beats = Math.round((shown / PPQ) * 100) / 100;
  return (
    <View style={styles.screen}>
      <View style={styles.tools}>
        <Choice
          label="Step size"
          caption="Step"
          value={stepName}
          options={STEP_OPTIONS}
          numeric
          onChoose={setStepName}
          style={styles.tool}
        />
        <ControlButton
          label="Zoom out"
          icon="magnify-minus-outline"
          disabled={shown >= most}
          onPress={() => setSpan(Math.min(most, shown * 2))}
          style={styles.tool}
        />
        <ControlButton
          label="Zoom in"
          icon="magnify-plus-outline"
          description={`${beats} quarters in view`}
          disabled={shown <= PPQ}
          onPress={() => setSpan(Math.max(PPQ, shown / 2))}
          style={styles.tool}
        />
        <ControlButton
          label="Rotate left"
          description={pads[pad]!.name}
          icon="rotate-left"
          onPress={() => rotate(-step)}
          style={styles.tool}
        />
        <ControlButton
          label="Rotate right"
          description={pads[pad]!.name}
          icon="rotate-right"
          onPress={() => rotate(step)}
          style={styles.tool}
        />
        <ControlButton
          label="Clear lane"
          description={pads[pad]!.name}
          icon="eraser"
          onPress={() => {
            dispatch(laneEmptied({ track: CURRENT_TRACK, pad }));
            dispatch(noticed(`${pads[pad]!.name} cleared.`, true));
          }}
          style={styles.tool}
        />
        <ControlButton label="Feel" text="Feel" onPress={() => dispatch(sheetToggled('feel'))} style={styles.tool} />
      </View>
      <StepGrid pattern={pattern} step={step} span={shown} pad={pad} onPad={setPad} />
    </View>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1, minHeight: 0, padding: 8, gap: 8 },
  tools: { flexDirection: 'row', gap: 4 },
  tool: { flexGrow: 1, maxWidth: 160 },
});
