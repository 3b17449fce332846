import { useCallback, useEffect, useRef, useSyncExternalStore } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { alsoWorks, bindingKey } from '@/core/midi/binding';
import { sourceWords } from '@/core/midi/source';
import { targetWords, type Target } from '@/core/midi/target';
import { unbound } from '@/store/devicesSlice';
import { canHaveKey, whyNotKey } from '@/store/keyBindings';
import { mappingSet, noticed, sheetShown } from '@/store/sessionSlice';
import { keyBound } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { keyName } from '../pads/keyName';
import { ControlButton } from '../shared/ControlButton';
import { isTyping } from '../shell/focus';
import { useTokens } from '../theme/theme';
import { WORDS } from '../theme/tokens';
import { grown } from '../theme/type';
import { useControllers } from './ControllersContext';
import { useMapTouch } from './useMapTouch';

/**
 * While controls are mapped: says what to do next, and what was made. Touch something and move a control, or the other way round;
 * then the next.
 */
export function MapBar() {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const { mapping } = useControllers();
  useEffect(() => mapping.begin(), [mapping]);
  const { target, learnt, made } = useSyncExternalStore(mapping.subscribe, () => mapping.state);
  const choose = useCallback((next: Target) => mapping.choose(next), [mapping]);
  useMapTouch(true, tokens.straw, choose);
  useKeyMapping(target, () => mapping.forget());
  const known = useAppSelector((state) => state.devices.known);
  const others = made ? alsoWorks(known.find(({ name }) => name === made.device)?.bindings ?? [], made.binding) : [];
  const words = made
    ? `${sourceWords(made.binding.source)} of ${made.device}: ${targetWords(made.binding.target)}.`
    : target
      ? `${targetWords(target)}: now move a control.`
      : learnt
        ? `${sourceWords(learnt.source)} of ${learnt.device}: now touch what it is to work.`
        : 'Touch what is to be worked, or move a control.';
  return (
    <View
      role="region"
      aria-label="Mapping"
      style={[styles.bar, { backgroundColor: tokens.slate, borderColor: tokens.straw }]}
    >
      <View style={styles.words}>
        <Text role="status" aria-live="polite" style={[styles.word, { color: tokens.wing }]}>
          {words}
        </Text>
        {others.length > 0 && (
          <Text style={[styles.word, { color: tokens.cap }]}>
            It works this too: {others.map(({ target: other }) => targetWords(other)).join(', ')}.
          </Text>
        )}
      </View>
      <View style={styles.keys}>
        {made && others.length > 0 && (
          <ControlButton
            label="Only this"
            text="Only this"
            onPress={() => others.forEach((other) => dispatch(unbound({ name: made.device, key: bindingKey(other) })))}
          />
        )}
        {made && (
          <ControlButton
            label="Not this"
            text="Not this"
            onPress={() => {
              dispatch(unbound({ name: made.device, key: bindingKey(made.binding) }));
              mapping.forget();
            }}
          />
        )}
        <ControlButton
          label="Map in detail"
          text="In detail"
          onPress={() => {
            dispatch(mappingSet(false));
            dispatch(sheetShown('map'));
          }}
        />
        <ControlButton tone="primary" label="Done mapping" text="Done" onPress={() => dispatch(mappingSet(false))} />
      </View>
    </View>
  );
}

/** A key of the computer is a control like any other: pressed while a function waits for one, it is given to it. */
function useKeyMapping(target: Target | null, onGiven: () => void): void {
  const dispatch = useAppDispatch();
  const latest = useRef(onGiven);
  useEffect(() => {
    latest.current = onGiven;
  });
  useEffect(() => {
    if (!target || !canHaveKey(target.do)) return undefined;
    const press = (event: KeyboardEvent) => {
      if (whyNotKey(event.code) || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      event.preventDefault();
      event.stopPropagation();
      dispatch(keyBound({ target, code: event.code }));
      dispatch(noticed(`${keyName(event.code)} is the key of ${targetWords(target)} now.`));
      latest.current();
    };
    window.addEventListener('keydown', press, { capture: true });
    return () => window.removeEventListener('keydown', press, { capture: true });
  }, [dispatch, target]);
}

const styles = StyleSheet.create({
  bar: {
    borderTopWidth: 2,
    paddingHorizontal: 10,
    paddingVertical: 6,
    gap: 6,
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
  },
  words: { flexGrow: 1, flexShrink: 1, flexBasis: 240 },
  word: { fontFamily: WORDS, fontSize: grown(17), lineHeight: grown(21) },
  keys: { flexDirection: 'row', gap: 4, flexWrap: 'wrap' },
});
