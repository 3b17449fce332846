import { router } from 'expo-router';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { emptySet } from '@/core/document/create';
import { demoSet } from '@/core/document/demo';
import type { OpenSet } from '@/core/document/set';
import { guideLeft } from '@/store/guideSlice';
import { noticed } from '@/store/sessionSlice';
import { foldSet, started } from '@/store/settingsSlice';
import type { Store } from '@/store/store';
import { beginGuide } from '../guide/beginGuide';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { WingBars } from '../shared/WingBars';
import { AppIcon, type IconName } from '../theme/icons';
import { useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { RADIUS, WORDS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';

const loadSounds = () => import('../sounds/sounds');

/** The page of the first visit: three ways to begin, and two more demos. */
export function StartScreen() {
  const tokens = useTokens();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const { layout } = useRoom();
  const returns = store.getState().settings.started;
  const begin = (act: () => void) => () => {
    store.dispatch(guideLeft());
    act();
    store.dispatch(started());
    router.replace('/pads');
  };
  const demo = begin(() => {
    instrument.rest();
    // At the first visit it is open already, and no step of undo is wanted.
    if (returns) {
      instrument.open(demoSet());
      store.dispatch(noticed('The demo set is open.', true));
    }
    instrument.play();
  });
  /** Another demo is there only when it is wanted: it needs the shelf. */
  const other = (name: string, load: () => Promise<OpenSet>) => async () => {
    try {
      const open = await load();
      begin(() => {
        instrument.rest();
        instrument.open(open);
        store.dispatch(noticed(`${name} is open.`, returns));
        instrument.play();
      })();
    } catch {
      store.dispatch(noticed(`${name} could not be loaded. It needs the connection once: try again when it is back.`, false)); // prettier-ignore
    }
  };
  const guide = begin(() => beginGuide(store, instrument));
  const empty = begin(() => {
    instrument.rest();
    instrument.open(emptySet());
    // Tempo and click come first.
    store.dispatch(foldSet({ fold: 'time', open: true }));
    if (returns) store.dispatch(noticed('An empty set is open.', true));
  });
  return (
    <ScrollView role="main" contentContainerStyle={styles.page}>
      <View style={styles.head}>
        <View style={styles.sign}>
          <WingBars color={tokens.breast} height={34} />
        </View>
        <View style={styles.share}>
          <Text role="heading" aria-level={1} style={[styles.name, { color: tokens.wing }]}>
            Chaffinch
          </Text>
          <Text style={[styles.words, { color: tokens.cap }]}>Drums under your fingers, every change on the beat.</Text>
        </View>
      </View>
      <View style={[styles.ways, layout !== 'upright' && styles.beside]}>
        <Way
          name="Play the demo"
          words="A finished beat runs at once: strike the pads along with it."
          icon="play"
          onPress={demo}
        />
        <Way
          label="Guide"
          name="Guide: a first beat"
          words="Kick, snare and hats, one sentence at a time. About a minute."
          icon="shoe-print"
          onPress={guide}
        />
        <Way
          name="Empty set"
          words="Nothing but a bar, a click and sixteen sounds."
          icon="file-outline"
          onPress={empty}
        />
      </View>
      <View style={[styles.ways, styles.beside]}>
        <ControlButton
          label="Late Tram"
          caption="Demo, slow and dusty"
          text="Late Tram"
          onPress={other('Late Tram', async () => (await loadSounds()).lateTram())}
          style={styles.share}
        />
        <ControlButton
          label="One at a Time"
          caption="Demo for lessons"
          text="One at a Time"
          onPress={other('One at a Time', async () => (await loadSounds()).oneAtATime())}
          style={styles.share}
        />
      </View>
      {returns ? (
        <View style={styles.ways}>
          <ControlButton
            label="Back"
            icon="arrow-left"
            text="Back to the open set"
            onPress={() => router.replace('/pads')}
          />
        </View>
      ) : (
        <Text style={[styles.words, { color: tokens.cap }]}>The Set menu leads back to this page.</Text>
      )}
    </ScrollView>
  );
}

interface WayProps {
  /** Accessible name, where it is shorter than what is written. */
  label?: string;
  name: string;
  words: string;
  icon: IconName;
  onPress: () => void;
}

function Way({ label, name, words, icon, onPress }: WayProps) {
  const tokens = useTokens();
  const large = useRoom().layout === 'wide';
  return (
    <Pressable
      role="button"
      aria-label={label ?? name}
      onPress={onPress}
      style={({ pressed }) => [
        styles.way,
        large && styles.tall,
        { backgroundColor: tokens.slate, borderColor: tokens.rule, opacity: pressed ? 0.75 : 1 },
      ]}
    >
      <View style={[styles.icon, { backgroundColor: tokens.breast }]}>
        <AppIcon name={icon} size={28} color={tokens.onBreast} />
      </View>
      <View style={styles.share}>
        <Text style={[styles.wayName, large && styles.largeName, { color: tokens.wing }]}>{name}</Text>
        <Text style={[styles.words, large && styles.largeWords, { color: tokens.cap }]}>{words}</Text>
      </View>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  page: {
    flexGrow: 1,
    justifyContent: 'center',
    gap: 16,
    padding: 16,
    maxWidth: 1200,
    width: '100%',
    alignSelf: 'center',
  },
  head: { flexDirection: 'row', gap: 16, alignItems: 'center' },
  sign: { height: 48, justifyContent: 'center', paddingHorizontal: 8 },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(40), lineHeight: grown(46), letterSpacing: 0.4 },
  words: { fontFamily: WORDS, fontSize: grown(18), lineHeight: grown(23), letterSpacing: 0.2 },
  ways: { gap: 12 },
  beside: { flexDirection: 'row' },
  way: {
    flexGrow: 1,
    flexBasis: 0,
    minHeight: 96,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 14,
    padding: 14,
    borderRadius: RADIUS,
    borderWidth: 1,
  },
  tall: { minHeight: 150, gap: 18, padding: 20 },
  largeName: { fontSize: grown(30), lineHeight: grown(38) },
  largeWords: { fontSize: grown(21), lineHeight: grown(27) },
  icon: { width: 52, height: 52, borderRadius: 26, alignItems: 'center', justifyContent: 'center' },
  share: { flex: 1, minWidth: 0 },
  wayName: { fontFamily: WORDS_STRONG, fontSize: grown(24), lineHeight: grown(29) },
});
