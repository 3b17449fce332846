import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { useStore } from 'react-redux';
import { THEN_STOP } from '@/core/launch/launchState';
import { LIFT } from '@/core/launch/launcher';
import { DROP_NAMES, lift, stopAll } from '@/instrument/launches';
import { selectSet } from '@/store/selectors';
import { overrideSet, sheetToggled } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { HoldButton } from '../shared/HoldButton';
import { useInstrument } from '../shared/InstrumentContext';
import { StickyHold } from '../shared/StickyHold';
import { inBeats, useBeatsLeft, useLaunch } from './useLaunch';
import { DROPS } from '@/core/document/launching';
import { launchingSet } from '@/store/sectionsSlice';

const DROP_OPTIONS = DROPS.map((value) => ({ value, name: DROP_NAMES[value] }));
/** Let go sooner than this, Lift sticks. */
const TAP_MS = 300;

/** Drop on with its override, Lift, and Stop all. */
export function LaunchTools() {
  const dispatch = useAppDispatch();
  const { dropOn, override } = useAppSelector((state) => selectSet(state).launching);
  const open = useAppSelector((state) => state.session.sheet === 'launching');
  return (
    <View style={styles.tools}>
      <Choice
        label="Drop on"
        maps={{ do: 'dropRange' }}
        caption="Drop on"
        value={dropOn}
        options={DROP_OPTIONS}
        onChoose={(drop) => dispatch(launchingSet({ dropOn: drop }))}
        style={styles.key}
      />
      <OverrideKey name={DROP_NAMES[override]} />
      <LiftKey />
      <StopKey />
      <ControlButton
        label="Launching"
        icon="dots-horizontal"
        pressed={open}
        onPress={() => dispatch(sheetToggled('launching'))}
        style={styles.key}
      />
    </View>
  );
}

/** While held, the override replaces *Drop on*; after a short touch it stays until it is touched again. */
function OverrideKey({ name }: { name: string }) {
  const dispatch = useAppDispatch();
  const on = useAppSelector((state) => state.session.overriding);
  return (
    <StickyHold
      label={`Override ${name}`}
      maps={{ do: 'override' }}
      caption="Hold:"
      text={name}
      on={on}
      tall
      onSet={(held) => dispatch(overrideSet(held))}
    />
  );
}

/** Held, it lifts; touched shortly with nothing done meanwhile, it goes on lifting until it is touched again: for one hand alone. */
function LiftKey() {
  const store = useStore() as Store;
  const instrument = useInstrument();
  const [state, tick] = useLaunch(({ launcher }) => `${launcher.lift} ${launcher.liftTick}`).split(' ');
  const beats = useBeatsLeft(Number(tick));
  const lifting = Number(state) === LIFT.HELD;
  const down = useRef({ at: 0, plays: '', sticks: false });
  const plays = () => {
    const { live } = instrument.performance.launcher;
    return [live.slot, live.nextTick, live.muted, live.soloed, live.muteSoloTick].join(' ');
  };
  const hold = (held: boolean) => {
    const now = performance.now();
    if (held) {
      down.current = { at: now, plays: plays(), sticks: lifting };
      lift(store, instrument, true);
      return;
    }
    const { at, plays: before, sticks } = down.current;
    if (sticks || now - at > TAP_MS || plays() !== before) lift(store, instrument, false);
  };
  return (
    <View style={styles.lift}>
      <HoldButton
        label="Lift"
        maps={{ do: 'lift' }}
        caption={beats !== null ? `back${inBeats(beats)}` : lifting ? 'Let go or touch: back' : 'Hold'}
        text="Lift"
        on={Number(state) !== LIFT.NONE}
        description={beats !== null ? `returns${inBeats(beats)}` : lifting ? 'lifting' : 'not lifting'}
        tall
        onHold={hold}
      />
    </View>
  );
}

function StopKey() {
  const store = useStore() as Store;
  const instrument = useInstrument();
  const tick = useLaunch(({ launcher: { live } }) => (live.nextSection === THEN_STOP ? live.sectionTick : Infinity));
  const beats = useBeatsLeft(tick);
  return (
    <ControlButton
      label="Stop all"
      maps={{ do: 'stopAll' }}
      caption={beats === null ? 'Stop' : `in ${beats}`}
      text={beats === null ? 'All' : 'Now!'}
      pressed={beats !== null}
      description={beats === null ? undefined : `stopping${inBeats(beats)}; once more: at once`}
      onTap={() => stopAll(store, instrument)}
      style={styles.key}
    />
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 4, paddingHorizontal: 8, paddingVertical: 6 },
  key: { height: 56 },
  lift: { flexGrow: 1 },
});
