import { useEffect, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { formatPosition } from '@/core/time/position';
import { selectSet } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { useFrame } from '../shared/useFrame';
import { useTokens } from '../theme/theme';
import { NUMBERS, WORDS } from '../theme/tokens';
import { grown } from '../theme/type';

/** Bar and beat, written straight into the page on every frame. */
export function Position({ small }: { small?: boolean }) {
  const tokens = useTokens();
  const { performance } = useInstrument();
  const meter = useAppSelector((state) => selectSet(state).meter);
  const playing = useAppSelector((state) => state.session.playing);
  const awayFromTop = useAppSelector((state) => state.session.awayFromTop);
  const box = useRef<View>(null);
  const draw = (now: number) => {
    const tick = playing ? performance.tickHeard(now) : performance.anchor.tick;
    const shown = formatPosition(tick, meter);
    const text = (box.current as unknown as HTMLElement | null)?.lastElementChild;
    if (text && text.textContent !== shown) text.textContent = shown;
  };
  useFrame(draw, playing);
  // Stopped, the position moves only when the song goes back to its top.
  useEffect(() => {
    if (!playing) draw(window.performance.now());
  }, [playing, awayFromTop]); // eslint-disable-line react-hooks/exhaustive-deps -- draw reads what is current
  return (
    <View ref={box} style={[styles.box, small && styles.smallBox]}>
      <Text style={[styles.caption, { color: tokens.cap }]}>bar.beat</Text>
      <Text role="timer" aria-label="Position" style={[styles.number, small && styles.small, { color: tokens.wing }]}>
        {null}
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({
  box: { alignItems: 'flex-end', justifyContent: 'center', minWidth: 88 },
  smallBox: { minWidth: 72 },
  caption: { fontFamily: WORDS, fontSize: grown(13), lineHeight: grown(15), letterSpacing: 0.2 },
  number: { fontFamily: NUMBERS, fontSize: grown(27), lineHeight: grown(34), letterSpacing: -0.5 },
  small: { fontSize: grown(21), lineHeight: grown(26) },
});
