import { useEffect } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { mod, ticksPerBar, ticksPerBeat } from '@/core/time/ticks';
import { stepSize } from '@/instrument/hands';
import { selectSet } from '@/store/selectors';
import { stepMoved } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { isOnControl, isTyping } from '../shell/focus';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, WORDS } from '../theme/tokens';
import { grown } from '../theme/type';

/** Where step input stands, with a way back and a rest; arrow keys do the same. Nothing while it is off. */
export function StepBar() {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const cursor = useAppSelector((state) => state.session.step?.cursor);
  const playing = useAppSelector((state) => state.session.playing);
  const meter = useAppSelector((state) => selectSet(state).meter);
  const grid = useAppSelector((state) => selectSet(state).inputQuantize.grid);
  const active = cursor !== undefined;
  useEffect(() => {
    if (!active) return undefined;
    const key = (event: KeyboardEvent) => {
      const steps = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
      if (steps === 0 || isTyping(event.target) || isOnControl(event.target)) return;
      event.preventDefault();
      dispatch(stepMoved({ steps, ...stepSize(store.getState()) }));
    };
    window.addEventListener('keydown', key);
    return () => window.removeEventListener('keydown', key);
  }, [active, dispatch, store]);
  if (!active) return null;
  const bar = ticksPerBar(meter);
  const beat = ticksPerBeat(meter);
  const within = mod(cursor, bar);
  const inBeat = within - Math.floor(within / beat) * beat;
  const place = `${Math.floor(cursor / bar) + 1}.${Math.floor(within / beat) + 1}${inBeat > 0 ? ` +${Math.round((100 * inBeat) / beat)} %` : ''}`;
  const move = (steps: number) => dispatch(stepMoved({ steps, ...stepSize(store.getState()) }));
  return (
    <View role="group" aria-label="Step input position" style={styles.row}>
      <ControlButton label="Step back" icon="arrow-left" disabled={playing} onPress={() => move(-1)} />
      <View style={[styles.place, { backgroundColor: tokens.slate }]}>
        <Text style={[styles.caption, { color: tokens.cap }]}>
          {playing ? 'Stop to enter steps' : `Next step, every ${grid}`}
        </Text>
        <Text role="status" aria-label="Step" style={[styles.number, { color: tokens.wing }]}>
          {place}
        </Text>
      </View>
      <ControlButton label="Rest" text="Rest" icon="arrow-right" disabled={playing} onPress={() => move(1)} />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 4, flex: 1, minWidth: 0 },
  place: { flex: 1, borderRadius: RADIUS, alignItems: 'center', justifyContent: 'center' },
  caption: { fontFamily: WORDS, fontSize: grown(13), lineHeight: grown(15), letterSpacing: 0.2 },
  number: { fontFamily: NUMBERS, fontSize: grown(16), lineHeight: grown(22) },
});
