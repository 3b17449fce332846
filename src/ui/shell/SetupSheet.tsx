import { useEffect } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { SegmentedButtons, Text } from 'react-native-paper';
import { selectSet } from '@/store/selectors';
import { metronomeLevelSet } from '@/store/setSlice';
import { fixedVelocitySet, themeSet, type ThemeChoice } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { keyName } from '../pads/keyName';
import { ControlButton } from '../shared/ControlButton';
import { Strip } from '../shared/Strip';
import { useTokens } from '../theme/theme';
import { SHORTCUTS } from './useShortcuts';
import { NUMBERS, WORDS_STRONG } from '../theme/tokens';

const THEMES: { value: ThemeChoice; label: string }[] = [
  { value: 'dark', label: 'Dark' },
  { value: 'light', label: 'Light' },
  { value: 'system', label: 'As the device' },
];

/** What is set now and then: levels, looks, and which keys do what. Lies over the place; transport, Flyway and music go on. */
export function SetupSheet({ onClose }: { onClose: () => void }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const level = useAppSelector((state) => selectSet(state).metronome.level);
  const fixed = useAppSelector((state) => state.settings.fixedVelocity.value);
  const theme = useAppSelector((state) => state.settings.theme);
  const padKeys = useAppSelector((state) => state.settings.padKeys);
  useEffect(() => {
    const escape = (event: KeyboardEvent) => event.key === 'Escape' && onClose();
    window.addEventListener('keydown', escape);
    return () => window.removeEventListener('keydown', escape);
  }, [onClose]);
  const title = (text: string) => (
    <Text role="heading" aria-level={3} style={[styles.title, { color: tokens.wing }]}>
      {text}
    </Text>
  );
  return (
    <View role="dialog" aria-label="Setup" style={[styles.sheet, { backgroundColor: tokens.ground }]}>
      <ScrollView contentContainerStyle={styles.content}>
        <View style={styles.head}>
          <Text role="heading" aria-level={2} style={[styles.name, { color: tokens.wing }]}>
            Setup
          </Text>
          <ControlButton label="Close setup" icon="close" onPress={onClose} />
        </View>
        {title('Levels')}
        <Strip label="Metronome level" value={level} onChange={(value) => dispatch(metronomeLevelSet(value))} />
        <Strip
          label="Fixed velocity"
          value={fixed}
          onChange={(value) => dispatch(fixedVelocitySet(Math.max(0.01, value)))}
        />
        {title('Look')}
        <SegmentedButtons
          value={theme}
          onValueChange={(value) => dispatch(themeSet(value as ThemeChoice))}
          buttons={THEMES}
        />
        {title('Keys for the pads')}
        <View style={styles.keys}>
          {[3, 2, 1, 0].map((row) => (
            <View key={row} style={styles.keyRow}>
              {padKeys.slice(row * 4, row * 4 + 4).map((code, i) => (
                <View key={code} style={[styles.key, { borderColor: tokens.rule, backgroundColor: tokens.slate }]}>
                  <Text style={[styles.number, { color: tokens.cap }]}>{row * 4 + i + 1}</Text>
                  <Text style={[styles.number, { color: tokens.wing }]}>{keyName(code)}</Text>
                </View>
              ))}
            </View>
          ))}
        </View>
        <Text variant="bodyMedium" style={{ color: tokens.cap }}>
          With Shift a key strikes hard.
        </Text>
        {title('Other keys')}
        {SHORTCUTS.map(({ keys, does }) => (
          <View key={keys} style={styles.shortcut}>
            <Text style={[styles.number, styles.combo, { color: tokens.wing }]}>{keys}</Text>
            <Text variant="bodyMedium" style={{ color: tokens.wing }}>
              {does}
            </Text>
          </View>
        ))}
      </ScrollView>
    </View>
  );
}

const styles = StyleSheet.create({
  sheet: { position: 'absolute', left: 0, right: 0, top: 0, bottom: 0, zIndex: 2 },
  content: { padding: 12, gap: 10, maxWidth: 560, width: '100%' },
  head: { flexDirection: 'row', justifyContent: 'space-between', alignItems: 'center' },
  name: { fontFamily: WORDS_STRONG, fontSize: 24, lineHeight: 30 },
  title: { fontFamily: WORDS_STRONG, fontSize: 18, lineHeight: 24, marginTop: 8 },
  keys: { gap: 4, maxWidth: 280 },
  keyRow: { flexDirection: 'row', gap: 4 },
  key: {
    flex: 1,
    borderRadius: 8,
    borderWidth: 1,
    paddingVertical: 6,
    paddingHorizontal: 8,
    flexDirection: 'row',
    justifyContent: 'space-between',
  },
  number: { fontFamily: NUMBERS, fontSize: 13, lineHeight: 20 },
  combo: { width: 132 },
  shortcut: { flexDirection: 'row', alignItems: 'center', minHeight: 28 },
});
