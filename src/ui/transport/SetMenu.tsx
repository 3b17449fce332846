import { trackStage } from '@/core/document/stage';
import { router } from 'expo-router';
import { StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { emptySet } from '@/core/document/create';
import { exportMidi, exportWav } from '@/storage/exportFiles';
import { exportBundle, exportSet, chooseFile } from '@/storage/setFiles';
import { selectPattern, selectSet, selectShown, selectStage, selectTrack } from '@/store/selectors';
import { noticed, sheetShown, sheetToggled } from '@/store/sessionSlice';
import { foldSet } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { PopMenu, type PopMenuItem } from '../shared/PopMenu';
import { panesIn, PLACE_SCREENS } from '../shell/placeScreens';
import { useSecondPaneItems } from '../shell/SecondPane';
import { placesIn, useRoom } from '../theme/room';
import { fitted } from '../theme/fitText';
import { useTokens } from '../theme/theme';
import { WORDS, WORDS_STRONG } from '../theme/tokens';
import { demoSet } from '@/core/document/demo';
import { patternCleared } from '@/store/patternsSlice';

/** Width in which a name is to fit at full size, px. */
const NAME_PX = 130;

/** The set's name, which opens what can be done with the set as a whole, and the setup. Small, it is a sign alone. */
export function SetMenu({ small }: { small?: boolean }) {
  const tokens = useTokens();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const name = useAppSelector((state) => selectSet(state).name);
  const replace = (what: string, make: typeof demoSet) => () => {
    instrument.open(make());
    store.dispatch(noticed(what, true));
  };
  /** Tempo and click come first. */
  const startEmpty = () => {
    replace('An empty set is open.', emptySet)();
    store.dispatch(foldSet({ fold: 'time', open: true }));
  };
  const clear = () => {
    store.dispatch(patternCleared({ place: instrument.placeOf() }));
    store.dispatch(noticed('Pattern cleared.', true));
  };
  const below = useSecondPaneItems((place) => `Below: ${place}`);
  const room = useRoom();
  const stacked = panesIn(room) === 'stacked';
  const awayPlaces = (['sounds', 'runs'] as const).map((place) => ({
    title: PLACE_SCREENS[place].name,
    act: () => router.push(PLACE_SCREENS[place].href),
  }));
  const items: PopMenuItem[] = [
    { title: 'Export MIDI', icon: 'file-music-outline', act: () => exportMidi(store) },
    { title: 'Export WAV', icon: 'waveform', act: () => void exportWav(store) },
    { title: 'Carry away', icon: 'tray-arrow-up', act: () => store.dispatch(sheetShown('carry')) },
    { title: 'Export set', icon: 'export-variant', act: () => exportSet(store) },
    { title: 'Bundle', icon: 'archive-outline', act: () => void exportBundle(store) },
    {
      title: 'Bring in',
      icon: 'tray-arrow-down',
      act: () => chooseFile(store, (set) => instrument.open(set)),
    },
    { title: 'Clear pattern', icon: 'eraser', ruled: true, act: clear },
    { title: 'Start empty', icon: 'file-outline', act: startEmpty },
    { title: 'Open demo', icon: 'roller-skate', act: replace('The demo set is open.', demoSet) },
    { title: 'Start page', icon: 'door-open', act: () => router.push('/start') },
    { title: 'All sets', icon: 'bookshelf', act: () => router.push('/sets') },
    // There is no room for the links of all places.
    ...(placesIn(room) === 'head' ? awayPlaces : []),
    // On a wide screen it has a key of its own.
    ...(stacked ? below.map((item, i) => ({ ...item, ruled: i === 0 })) : []),
    { title: 'Devices', icon: 'piano', ruled: true, act: () => store.dispatch(sheetShown('devices')) },
    { title: 'Setup', icon: 'tune-vertical', act: () => store.dispatch(sheetShown('setup')) },
  ];
  return (
    <PopMenu
      label="Set menu"
      description={name}
      icon={small ? 'dots-vertical' : undefined}
      style={!small && styles.anchor}
      items={items}
    >
      {!small && (
        <Text
          numberOfLines={3}
          style={[styles.set, fitted(name, NAME_PX, { least: 12, most: 24 }), { color: tokens.wing }]}
        >
          {name}
        </Text>
      )}
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
      <Text
        numberOfLines={3}
        style={[styles.pattern, fitted(track + words, NAME_PX, { least: 12, most: 18 }), { color: tokens.cap }]}
      >
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
  set: { fontFamily: WORDS_STRONG, letterSpacing: 0.1 },
  pattern: { fontFamily: WORDS, flexShrink: 1 },
});
