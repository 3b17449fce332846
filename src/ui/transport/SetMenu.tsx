import { StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { demoSet, emptySet } from '@/core/model/create';
import { exportMidi, exportWav } from '@/store/exportFiles';
import { CURRENT_TRACK, selectPattern, selectSet, selectTrack } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { patternAdded, patternChosen, patternCleared } from '@/store/setSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { PopMenu } from '../shared/PopMenu';
import { useTokens } from '../theme/theme';
import { WORDS, WORDS_STRONG } from '../theme/tokens';

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
    store.dispatch(patternCleared({ track: CURRENT_TRACK }));
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

/** The track's and the pattern's name, which opens the list of the track's patterns. */
export function PatternMenu() {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const track = useAppSelector(selectTrack);
  const name = useAppSelector((state) => selectPattern(state)?.name ?? 'No pattern');
  const items = [
    ...track.patterns.flatMap((pattern, slot) =>
      pattern
        ? [
            {
              title: `${slot + 1}  ${pattern.name}`,
              chosen: slot === track.current,
              act: () => dispatch(patternChosen({ track: CURRENT_TRACK, slot })),
            },
          ]
        : [],
    ),
    { title: 'New pattern', icon: 'plus', ruled: true, act: () => dispatch(patternAdded({ track: CURRENT_TRACK })) },
  ];
  return (
    <PopMenu label="Patterns" description={`${track.name}, ${name}`} style={styles.anchor} items={items}>
      <Text numberOfLines={1} style={[styles.pattern, { color: tokens.cap }]}>
        {track.name} · {name}
      </Text>
    </PopMenu>
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
  set: { fontFamily: WORDS_STRONG, fontSize: 21, lineHeight: 26, letterSpacing: 0.1 },
  pattern: { fontFamily: WORDS, fontSize: 16, lineHeight: 22, flexShrink: 1 },
});
