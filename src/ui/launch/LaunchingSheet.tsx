import { StyleSheet, View } from 'react-native';
import { useStore } from 'react-redux';
import { DROP_NAMES, NUDGE, touchFade } from '@/instrument/launches';
import { selectSet } from '@/store/selectors';
import { padsLaunchSet, type PadsLaunch } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { Choice } from '../shared/Choice';
import { HoldButton } from '../shared/HoldButton';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { Segments } from '../shared/Segments';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { inBeats, useBeatsLeft, useLaunch } from './useLaunch';
import { DROPS } from '@/core/document/launching';
import { launchingSet } from '@/store/sectionsSlice';

const DROP_OPTIONS = DROPS.map((value) => ({ value, name: DROP_NAMES[value] }));
const FADE_BARS = [1, 2, 4, 8, 16];

/** How patterns are launched, and what else a performer has at hand: the fade, the nudge, the pads as launchers. */
export function LaunchingSheet() {
  const dispatch = useAppDispatch();
  const { override, inPlace } = useAppSelector((state) => selectSet(state).launching);
  const padsLaunch = useAppSelector((state) => state.session.padsLaunch);
  return (
    <Sheet title="Launching" about="How patterns begin when they are dropped, and what the pads launch." half>
      <Segments
        label="Start"
        caption="Start"
        value={inPlace ? 'place' : 'top'}
        options={[
          { value: 'top', name: 'From the top' },
          { value: 'place', name: 'In place' },
        ]}
        onChoose={(value) => dispatch(launchingSet({ inPlace: value === 'place' }))}
      />
      <Choice
        label="Override of Drop on"
        caption="Drop on, while the override is held"
        value={override}
        options={DROP_OPTIONS}
        grow
        onChoose={(value) => dispatch(launchingSet({ override: value }))}
      />
      <Fade />
      <Nudge />
      <SheetTitle>Pads and their keys</SheetTitle>
      <Segments
        label="Pads"
        value={padsLaunch ?? 'play'}
        options={[
          { value: 'play', name: 'Play' },
          { value: 'patterns', name: 'Launch patterns' },
          { value: 'sections', name: 'Launch sections' },
        ]}
        onChoose={(value) => dispatch(padsLaunchSet(value === 'play' ? null : (value as PadsLaunch)))}
      />
      <Words>Pad 1 launches the first pattern of the track that is shown, or the first section, and so on.</Words>
    </Sheet>
  );
}

function Fade() {
  const store = useStore() as Store;
  const instrument = useInstrument();
  const meter = useAppSelector((state) => selectSet(state).meter);
  const playing = useAppSelector((state) => state.session.playing);
  const tick = useLaunch(({ launcher }) => launcher.fadeTo);
  const beats = useBeatsLeft(tick);
  if (beats !== null) {
    return (
      <KeyRow
        caption="Fade out"
        keys={[
          {
            label: 'Stop fading',
            text: `Silent${inBeats(beats)}: stop fading`,
            act: () => touchFade(store, instrument, 0, meter),
          },
        ]}
      />
    );
  }
  return (
    <KeyRow
      caption="Fade out"
      keys={FADE_BARS.map((bars) => ({
        label: `Fade out over ${bars} ${bars === 1 ? 'bar' : 'bars'}`,
        text: bars === 1 ? '1 bar' : String(bars),
        disabled: !playing,
        act: () => touchFade(store, instrument, bars, meter),
      }))}
    />
  );
}

/** The song a little slower or faster for as long as the key is held: to fall in with another player. */
function Nudge() {
  const instrument = useInstrument();
  const bend = (ratio: number) => (held: boolean) => instrument.perform({ type: 'tempoBend', ratio: held ? ratio : 1 });
  return (
    <View style={styles.row}>
      <View style={styles.half}>
        <HoldButton label="Nudge slower" maps={{ do: 'nudgeSlower' }} text="Hold: slower" onHold={bend(1 - NUDGE)} />
      </View>
      <View style={styles.half}>
        <HoldButton label="Nudge faster" maps={{ do: 'nudgeFaster' }} text="Hold: faster" onHold={bend(1 + NUDGE)} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 4 },
  half: { flexGrow: 1, flexBasis: 0 },
});
