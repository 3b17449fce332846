import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { PADS } from '@/core/document/limits';
import { isCharacterKey, SHORTCUT_NAMES, targetOf, type KeyTarget } from '@/store/keyBindings';
import { noticed } from '@/store/sessionSlice';
import { keyBound, keysReset, keysSwitched } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { LAUNCH_KEYS } from '../launch/launchKeys';
import { keyName } from '../pads/keyName';
import { ControlButton } from '../shared/ControlButton';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { FIXED_KEYS, SHORTCUT_WORDS } from '../shell/useShortcuts';
import { STEP_KEYS } from '../steps/useStepKeys';
import { useTokens } from '../theme/theme';
import { NUMBERS } from '../theme/tokens';
import { grown } from '../theme/type';

const wordsOf = (target: KeyTarget) =>
  'pad' in target ? `Pad ${target.pad + 1}` : SHORTCUT_WORDS[target.shortcut].replace(/[,;].*/, '');
const isSame = (a: KeyTarget, b: KeyTarget) => JSON.stringify(a) === JSON.stringify(b);

/** Every key that does something, opened with `?` from anywhere; those that print a character can be changed, or switched off. */
export function KeysSheet() {
  const dispatch = useAppDispatch();
  const keys = useAppSelector((state) => state.settings.keys);
  const [waiting, setWaiting] = useWaiting();
  const keyOf = (target: KeyTarget, code: string) => {
    const waits = waiting !== null && isSame(waiting, target);
    return (
      <ControlButton
        key={JSON.stringify(target)}
        label={`Key of ${wordsOf(target)}`}
        caption={'pad' in target ? String(target.pad + 1) : undefined}
        text={waits ? '…' : keyName(code)}
        description={waits ? 'Press the new key, or Escape' : keyName(code)}
        pressed={waits}
        numeric
        onPress={() => setWaiting(waits ? null : target)}
        style={'pad' in target ? styles.pad : styles.key}
      />
    );
  };
  return (
    <Sheet title="Keys" about="What each key of a computer keyboard does.">
      <ControlButton
        label="Character keys"
        text={`Letters, digits and signs: ${keys.on ? 'on' : 'off'}`}
        pressed={keys.on}
        onPress={() => dispatch(keysSwitched(!keys.on))}
      />
      <Words>
        {waiting
          ? `Press the new key of ${wordsOf(waiting)}; Escape leaves it.`
          : 'Touch a key here and press another to change it. With Shift a pad’s key strikes hard.'}
      </Words>
      <SheetTitle>Pads</SheetTitle>
      <View role="group" aria-label="Keys of the pads" style={styles.pads}>
        {[3, 2, 1, 0].map((row) => (
          <View key={row} style={styles.row}>
            {keys.pads.slice(row * 4, row * 4 + 4).map((code, i) => keyOf({ pad: row * (PADS / 4) + i }, code))}
          </View>
        ))}
      </View>
      <SheetTitle>Everywhere</SheetTitle>
      {SHORTCUT_NAMES.map((shortcut) => (
        <View key={shortcut} style={styles.line}>
          <View style={styles.column}>{keyOf({ shortcut }, keys.shortcuts[shortcut])}</View>
          <Text variant="bodyMedium" style={styles.does}>
            {SHORTCUT_WORDS[shortcut]}
          </Text>
        </View>
      ))}
      <KeyList keys={FIXED_KEYS} />
      <ControlButton label="Keys as to begin with" text="Keys as to begin with" onPress={() => dispatch(keysReset())} />
      <SheetTitle>Where patterns are launched</SheetTitle>
      <KeyList keys={LAUNCH_KEYS} />
      <SheetTitle>Where steps are shown</SheetTitle>
      <KeyList keys={STEP_KEYS} />
    </Sheet>
  );
}

/** The target that waits for its new key. The next key that is pressed is its, before anything else hears of it. */
function useWaiting() {
  const dispatch = useAppDispatch();
  const keys = useAppSelector((state) => state.settings.keys);
  const [waiting, setWaiting] = useState<KeyTarget | null>(null);
  useEffect(() => {
    if (waiting === null) return undefined;
    const take = (event: KeyboardEvent) => {
      if (['Shift', 'Control', 'Alt', 'Meta', 'Tab'].includes(event.key)) return;
      event.preventDefault();
      event.stopPropagation();
      setWaiting(null);
      if (event.key === 'Escape') return;
      const { code } = event;
      if (!isCharacterKey(code)) {
        dispatch(
          noticed(`${keyName(code)} belongs to the browser or the transport: choose a letter, a digit or a sign.`),
        );
        return;
      }
      const other = targetOf(keys, code);
      dispatch(keyBound({ target: waiting, code }));
      if (other && !isSame(other, waiting)) {
        dispatch(noticed(`${wordsOf(waiting)} and ${wordsOf(other)} have changed keys.`));
      }
    };
    window.addEventListener('keydown', take, { capture: true });
    return () => window.removeEventListener('keydown', take, { capture: true });
  }, [dispatch, keys, waiting]);
  return [waiting, setWaiting] as const;
}

function KeyList({ keys }: { keys: readonly { keys: string; does: string }[] }) {
  const tokens = useTokens();
  return keys.map(({ keys: combination, does }) => (
    <View key={combination} style={styles.line}>
      <Text style={[styles.keys, { color: tokens.wing }]}>{combination}</Text>
      <Text variant="bodyMedium" style={[styles.does, { color: tokens.wing }]}>
        {does}
      </Text>
    </View>
  ));
}

const styles = StyleSheet.create({
  pads: { gap: 4, maxWidth: 300 },
  row: { flexDirection: 'row', gap: 4 },
  pad: { flexGrow: 1, flexBasis: 0 },
  key: { minWidth: 64 },
  column: { width: 150, alignItems: 'flex-start' },
  line: { flexDirection: 'row', alignItems: 'center', minHeight: 28 },
  keys: { fontFamily: NUMBERS, fontSize: grown(12), lineHeight: grown(20), width: 150 },
  does: { flex: 1 },
});
