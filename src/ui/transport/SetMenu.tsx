import { trackStage } from '@/core/document/stage';
import { StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { emptySet } from '@/core/document/create';
import { exportMidi, exportWav } from '@/storage/exportFiles';
import { selectPattern, selectSet, selectShown, selectStage, selectTrack } from '@/store/selectors';
import { noticed, sheetToggled } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { PopMenu } from '../shared/PopMenu';
import { useTokens } from '../theme/theme';
import { WORDS, WORDS_STRONG } from '../theme/tokens';
import { demoSet } from '@/core/document/demo';
import { patternCleared } from '@/store/patternsSlice';

/** The set's name, which opens what can be done with the set as a whole. */
export function SetMenu() {
  const tokens = useTokens();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const name = useAppSelector((state) => selectSet(state).name);
  const replace = (what: string, make: typeof demoSet) => () => {
    instrument.open(make());
    store.dispatch(noticed(what, true));
  };
  const clear = () => {
    store.dispatch(patternCleared({ place: instrument.placeOf() }));
    store.dispatch(noticed('Pattern cleared.', true));
  };
  const items = [
    { title: 'Export MIDI', icon: 'file-music-outline', act: () => exportMidi(store) },
    { title: 'Export WAV', icon: 'waveform', act: () => void exportWav(store) },
    { title: 'Clear pattern', icon: 'eraser', ruled: true, act: clear },
    { title: 'Start empty', icon: 'file-outline', act: replace('An empty set is open.', emptySet) },
    { title: 'Open demo', icon: 'roller-skate', act: replace('The demo set is open.', demoSet) },
  ];
  return (
    <PopMenu label="Set menu" description={name} style={styles.anchor} items={items}>
      <Text numberOfLines={1} style={[styles.set, { color: tokens.wing }]}>
        {name}
      </Text>
    </PopMenu>
  );
}

/** The track's and the pattern's name, which opens the track's pattern slots. */
export function PatternKey() {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const track = useAppSelector((state) => selectTrack(state).name);
  const stopped = useAppSelector((state) => trackStage(selectStage(state), selectShown(state)).stopped);
  const name = useAppSelector((state) => selectPattern(state).name);
  const open = useAppSelector((state) => state.session.sheet === 'slots');
  // Shows why the track is silent.
  const words = stopped ? `${name} (stopped)` : name;
  return (
    <ControlButton
      label="Patterns"
      description={`${track}, ${words}`}
      expanded={open}
      onPress={() => dispatch(sheetToggled('slots'))}
      style={[styles.anchor, styles.shrink]}
    >
      <Text numberOfLines={1} style={[styles.pattern, { color: tokens.cap }]}>
        {track} · {words}
      </Text>
    </ControlButton>
  );
}

const styles = StyleSheet.create({
  anchor: {
    alignItems: 'flex-start',
    overflow: 'hidden',
    backgroundColor: 'transparent',
    borderColor: 'transparent',
    paddingHorizontal: 2,
  },
  shrink: { flexShrink: 1 },
  set: { fontFamily: WORDS_STRONG, fontSize: 21, lineHeight: 26, letterSpacing: 0.1 },
  pattern: { fontFamily: WORDS, fontSize: 16, lineHeight: 22, flexShrink: 1 },
});
