import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import {
  FUNCTION_GROUPS,
  FUNCTION_NAMES,
  FUNCTIONS,
  targetKey,
  targetOfKey,
  targetWords,
  type FunctionName,
  type Target,
} from '@/core/midi/target';
import { canHaveKey, codeOf, padTarget, targetOf, whyNotKey } from '@/store/keyBindings';
import { noticed } from '@/store/sessionSlice';
import { keyBound, keysReset, keysSwitched, keyUnbound } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { FunctionPicker } from '../devices/FunctionPicker';
import { LAUNCH_KEYS } from '../launch/launchKeys';
import { keyName } from '../pads/keyName';
import { ControlButton } from '../shared/ControlButton';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { FIXED_KEYS } from '../shell/useShortcuts';
import { STEP_KEYS } from '../steps/useStepKeys';
import { useTokens } from '../theme/theme';
import { NUMBERS } from '../theme/tokens';
import { grown } from '../theme/type';

const wordsOf = (target: Target) => (target.do === 'pad' ? `Pad ${target.pad! + 1}` : targetWords(target));

/** Pads have their keys above. Most functions need nothing to be named. */
const isOffered = (name: FunctionName) => canHaveKey(name) && name !== 'pad';
const SIMPLE = FUNCTION_NAMES.filter((name) => isOffered(name) && !FUNCTIONS[name].needs);

/** Every key that does something, opened with `?` from anywhere; those that print a character can be changed, or switched off. */
export default function KeysSheet() {
  const dispatch = useAppDispatch();
  const keys = useAppSelector((state) => state.settings.keys);
  const [waiting, setWaiting] = useWaiting();
  const [other, setOther] = useState<Target>({ do: 'card', slot: 0, row: 0 });
  const keyOf = (target: Target) => {
    const waits = waiting !== null && targetKey(waiting) === targetKey(target);
    const code = codeOf(keys, target);
    return (
      <ControlButton
        key={targetKey(target)}
        label={`Key of ${wordsOf(target)}`}
        caption={target.do === 'pad' ? String(target.pad! + 1) : undefined}
        text={waits ? '…' : code ? keyName(code) : '–'}
        description={waits ? 'Press the new key, or Escape' : code ? keyName(code) : 'none'}
        pressed={waits}
        numeric
        onPress={() => setWaiting(waits ? null : target)}
        style={target.do === 'pad' ? styles.pad : styles.key}
      />
    );
  };
  const line = (target: Target) => (
    <View key={targetKey(target)} style={styles.line}>
      <View style={styles.column}>{keyOf(target)}</View>
      <Text variant="bodyMedium" style={styles.does}>
        {wordsOf(target)}
        {FUNCTIONS[target.do].kind === 'hold' && ', while held'}
      </Text>
      {codeOf(keys, target) !== undefined && (
        <ControlButton
          label={`No key for ${wordsOf(target)}`}
          icon="close"
          onPress={() => dispatch(keyUnbound(target))}
        />
      )}
    </View>
  );
  /** Functions of one thing that were given a key. */
  const named = Object.keys(keys.codes).flatMap((key) => {
    const target = targetOfKey(key);
    return target && target.do !== 'pad' && !SIMPLE.includes(target.do) ? [target] : [];
  });
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
            {[0, 1, 2, 3].map((column) => keyOf(padTarget(row * 4 + column)))}
          </View>
        ))}
      </View>
      <SheetTitle>Always</SheetTitle>
      <KeyList keys={FIXED_KEYS} />
      {FUNCTION_GROUPS.map((group) => {
        const names = SIMPLE.filter((name) => FUNCTIONS[name].group === group);
        return (
          <View key={group} style={styles.group}>
            <SheetTitle>{group === 'Pads' ? 'What pads do' : group}</SheetTitle>
            {names.map((name) => line({ do: name }))}
            {named.filter((target) => FUNCTIONS[target.do].group === group).map(line)}
          </View>
        );
      })}
      <SheetTitle>Another function</SheetTitle>
      <FunctionPicker value={other} onChoose={setOther} offers={isOffered} />
      {codeOf(keys, other) === undefined && !SIMPLE.includes(other.do) && line(other)}
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
  const [waiting, setWaiting] = useState<Target | null>(null);
  useEffect(() => {
    if (waiting === null) return undefined;
    const take = (event: KeyboardEvent) => {
      if (['Shift', 'Control', 'Alt', 'Meta', 'Tab'].includes(event.key)) return;
      event.preventDefault();
      event.stopPropagation();
      setWaiting(null);
      if (event.key === 'Escape') return;
      const { code } = event;
      const why = whyNotKey(code);
      if (why) {
        dispatch(noticed(`${keyName(code)} cannot be chosen: ${why}. Choose a letter, a digit or a sign.`));
        return;
      }
      const other = targetOf(keys, code);
      const had = codeOf(keys, waiting) !== undefined;
      dispatch(keyBound({ target: waiting, code }));
      if (!other || targetKey(other) === targetKey(waiting)) return;
      const words = had
        ? `${wordsOf(waiting)} and ${wordsOf(other)} have changed keys.`
        : `${keyName(code)} is the key of ${wordsOf(waiting)} now; ${wordsOf(other)} has none.`;
      dispatch(noticed(words));
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
  group: { gap: 4 },
  row: { flexDirection: 'row', gap: 4 },
  pad: { flexGrow: 1, flexBasis: 0 },
  key: { minWidth: 64 },
  column: { width: 150, alignItems: 'flex-start' },
  line: { flexDirection: 'row', alignItems: 'center', minHeight: 28 },
  keys: { fontFamily: NUMBERS, fontSize: grown(12), lineHeight: grown(20), width: 150 },
  does: { flex: 1 },
});
