import { usePatternEdit } from '../shared/usePatternEdit';
import { memo } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { spanOf } from '@/core/edit/select';
import { CONTROL_NAMES, isSameMoved, movedName } from '@/core/document/moves';
import { isWindowed } from '@/core/sequence/loopWindow';
import { PPQ, ticksPerBar } from '@/core/time/ticks';
import { GRIDS, type GridName } from '@/core/quantize/grid';
import { selectControls, selectPattern, selectSet, selectTrace, selectTrack, selectTracks } from '@/store/selectors';
import { sheetToggled } from '@/store/sessionSlice';
import { foldToggled } from '@/store/settingsSlice';
import { controlShown, selectingToggled, selectSelected, selectStepTicks, spanSet, stepSizeSet } from '@/store/stepsSlice'; // prettier-ignore
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { Choice } from '../shared/Choice';
import { selectMovableChannels } from '../moves/mixMoved';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { PopMenu } from '../shared/PopMenu';
import { SheetKey } from '../shared/SheetKey';
import { useTokens } from '../theme/theme';
import { WORDS } from '../theme/tokens';
import { grown } from '../theme/type';
import { StepGrid } from './grid/StepGrid';
import { useStepKeys } from './useStepKeys';
import { traceSet } from '@/store/tracksSlice';

const STEP_OPTIONS = GRIDS.filter(({ name }) => !name.endsWith('D')).map(({ name }) => ({
  value: name as GridName,
  name,
}));
const MOST_BARS = 8;

/** The current pattern as lanes and steps, with the tools for it. `bars` are in view to begin with. */
export function StepsPanel({ bars, wide }: { bars: number; wide: boolean }) {
  const tokens = useTokens();
  const pattern = useAppSelector(selectPattern);
  const meter = useAppSelector((state) => selectSet(state).meter);
  const span = useAppSelector((state) => state.steps.span);
  const step = useAppSelector(selectStepTicks);
  useStepKeys();
  if (!pattern) {
    return (
      <Text style={[styles.empty, { color: tokens.cap }]}>
        There is no pattern here. Choose or make one by the pattern’s name above.
      </Text>
    );
  }
  const bar = ticksPerBar(meter);
  const most = Math.min(pattern.length, MOST_BARS * bar);
  const shown = Math.min(most, span ?? bars * bar);
  return (
    <View style={styles.panel}>
      <View style={wide ? styles.oneRow : styles.rows}>
        <ViewTools most={most} shown={shown} />
        <LoopTools shown={shown} wide={wide} />
      </View>
      <StepGrid pattern={pattern} step={step} span={shown} />
    </View>
  );
}

/** Step size, zoom and select mode. */
const ViewTools = memo(function ViewTools({ most, shown }: { most: number; shown: number }) {
  const dispatch = useAppDispatch();
  const step = useAppSelector((state) => state.steps.step);
  const selecting = useAppSelector((state) => state.steps.selecting);
  const selected = useAppSelector((state) => selectSelected(state).length);
  return (
    <View style={styles.tools}>
      <Choice
        label="Step size"
        caption="Step"
        value={step}
        options={STEP_OPTIONS}
        grow
        numeric
        onChoose={(name) => dispatch(stepSizeSet(name))}
        style={styles.tool}
      />
      <ControlButton
        label="Zoom out"
        icon="magnify-minus-outline"
        disabled={shown >= most}
        onPress={() => dispatch(spanSet(Math.min(most, shown * 2)))}
        style={styles.tool}
      />
      <ControlButton
        label="Zoom in"
        icon="magnify-plus-outline"
        description={`${Math.round((shown / PPQ) * 100) / 100} quarters in view`}
        disabled={shown <= PPQ}
        onPress={() => dispatch(spanSet(Math.max(PPQ, shown / 2)))}
        style={styles.tool}
      />
      <ControlButton
        label="Select"
        text={selected > 0 ? `Sel ${selected}` : 'Select'}
        pressed={selecting}
        onPress={() => dispatch(selectingToggled())}
        style={styles.tool}
      />
      <SheetKey name="edit" title="Edit" style={styles.tool} />
      <SheetKey name="generate" title="Generate" style={styles.tool} />
    </View>
  );
});

/** Loop window, Trace and Moves. */
const LoopTools = memo(function LoopTools({ shown, wide }: { shown: number; wide: boolean }) {
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const edit = usePatternEdit();
  const windowed = useAppSelector((state) => isWindowed(selectPattern(state)));
  const control = useAppSelector((state) => state.steps.control);
  const controls = useAppSelector(selectControls);
  const channels = useAppSelector(selectMovableChannels);
  const shownMove = control === null ? null : typeof control === 'string' ? CONTROL_NAMES[control] : movedName(control);
  /** A window round what is chosen; without a choice, the bar that plays or where the cursor is, or less if less is seen. */
  const window = () => {
    const state = store.getState();
    const { meter } = selectSet(state);
    const pattern = selectPattern(state);
    const chosen = spanOf(pattern, new Set(selectSelected(state)), selectStepTicks(state));
    if (chosen) return { start: Math.max(0, chosen.from), length: chosen.to - Math.max(0, chosen.from) };
    const length = Math.min(ticksPerBar(meter), shown, pattern.length / 2);
    const { performance } = instrument;
    const { playing } = state.session;
    const at = playing ? performance.positionAt(performance.tickHeard(globalThis.performance.now())) : (state.steps.cursor?.tick ?? 0); // prettier-ignore
    return { start: Math.floor(at / length) * length, length };
  };
  const setWindow = (next: { start: number; length: number } | null) => edit({ kind: 'window', window: next });
  return (
    <View style={styles.tools}>
      <ControlButton
        label="Loop window"
        text="Window"
        pressed={windowed}
        onPress={() => setWindow(window())}
        style={styles.tool}
      />
      <ControlButton
        label="Whole pattern"
        text="Whole"
        disabled={!windowed}
        onPress={() => setWindow(null)}
        style={styles.tool}
      />
      <SheetKey name="length" title="Length" style={styles.tool} />
      <NotesKey />
      <TraceKey />
      <PopMenu
        grow
        label="Moves lane"
        text={shownMove ?? 'Moves'}
        description={shownMove ? `${shownMove} is shown` : 'none is shown'}
        style={styles.tool}
        items={[
          { title: 'None', chosen: control === null, act: () => dispatch(controlShown(null)) },
          ...controls.map((value) => ({
            title: CONTROL_NAMES[value],
            chosen: value === control,
            act: () => dispatch(controlShown(value)),
          })),
          ...channels.flatMap(({ moved }) =>
            moved.map((one, i) => ({
              title: movedName(one),
              ruled: i === 0,
              chosen: control !== null && typeof control !== 'string' && isSameMoved(control, one),
              act: () => dispatch(controlShown(one)),
            })),
          ),
          { title: 'Record Moves', icon: 'record', ruled: true, act: () => dispatch(sheetToggled('moves')) },
        ]}
      />
      {wide && <ControlButton label="Keys" text="?" onPress={() => dispatch(sheetToggled('keys'))} />}
    </View>
  );
});

/** Of a track of notes: lanes for all twelve, or for those of its scale and what else is played. */
function NotesKey() {
  const dispatch = useAppDispatch();
  const isOfNotes = useAppSelector((state) => selectTrack(state).tones !== undefined);
  const all = useAppSelector((state) => state.settings.unfolded.notes);
  if (!isOfNotes) return null;
  return (
    <ControlButton
      label="All notes"
      text="Notes"
      pressed={all}
      description={all ? 'each semitone has a lane' : 'the notes of the scale have lanes'}
      onPress={() => dispatch(foldToggled('notes'))}
      style={styles.tool}
    />
  );
}

/** Which pattern is shown beneath this one: any of the set's others. */
function TraceKey() {
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const traced = useAppSelector((state) => selectTrace(state)?.name ?? null);
  const items = () => {
    const state = store.getState();
    const tracks = selectTracks(state);
    const { trace } = selectSet(state);
    const others = tracks.flatMap((track) =>
      track.patterns.flatMap((pattern, slot) => {
        if (!pattern || pattern === selectPattern(state)) return [];
        const title = tracks.length > 1 ? `${track.name} · ${pattern.name}` : `${slot + 1}  ${pattern.name}`;
        const chosen = trace?.track === track.id && trace.slot === slot;
        return [{ title, chosen, act: () => dispatch(traceSet({ track: track.id, slot })) }];
      }),
    );
    return [{ title: 'None', chosen: traced === null, act: () => dispatch(traceSet(null)) }, ...others];
  };
  return (
    <PopMenu
      grow
      label="Trace"
      text="Trace"
      pressed={traced !== null}
      description={traced === null ? 'nothing is shown beneath' : `${traced} is shown beneath`}
      style={styles.tool}
      items={items}
    />
  );
}

const styles = StyleSheet.create({
  panel: { flex: 1, minHeight: 0, minWidth: 0, gap: 6 },
  rows: { gap: 4 },
  oneRow: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
  tools: { flexDirection: 'row', gap: 4, flexGrow: 1 },
  tool: { flexGrow: 1, paddingHorizontal: 2 },
  empty: { fontFamily: WORDS, fontSize: grown(17), padding: 16 },
});
