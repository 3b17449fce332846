import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { useInstrument } from '../shared/InstrumentContext';
import { useFrame } from '../shared/useFrame';
import { useTokens } from '../theme/theme';

/** The meter's left end, dB. */
const SOFTEST = -54;

/** Where on the meter a level lies, 0..1. */
const shareOf = (dB: number) => Math.min(1, Math.max(0, (dB - SOFTEST) / -SOFTEST));

/** How loud a channel is, along the foot of its strip, and its highest peak since it was touched as a mark. Drawn on the frame, without React. */
export function MeterBar({ channel, colour }: { channel: number; colour: string }) {
  const tokens = useTokens();
  const { meters } = useInstrument();
  const bar = useRef<View>(null);
  const mark = useRef<View>(null);
  useFrame(() => {
    const [filled, highest] = [bar.current, mark.current] as unknown as (HTMLElement | null)[];
    if (!filled || !highest) return;
    // One channel's loudness is of both sides together: a sine at full scale in both reaches the end.
    filled.style.transform = `scaleX(${shareOf(meters.loudness(channel)).toFixed(3)})`;
    const peak = shareOf(meters.peak(channel));
    highest.style.transform = `translateX(${(peak * 100).toFixed(1)}%)`;
    highest.style.opacity = peak > 0 ? '1' : '0';
  }, true);
  return (
    <View aria-hidden style={styles.meter}>
      <View ref={bar} style={[styles.bar, { backgroundColor: colour }]} />
      <View ref={mark} style={styles.travel}>
        <View style={[styles.mark, { backgroundColor: tokens.wing }]} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  meter: { position: 'absolute', left: 0, right: 0, bottom: 0, height: 10, pointerEvents: 'none', overflow: 'hidden' },
  bar: { position: 'absolute', left: 0, right: 0, top: 0, bottom: 0, transformOrigin: 'left' },
  travel: { position: 'absolute', left: 0, right: 0, top: 0, bottom: 0 },
  mark: { width: 3, height: 10 },
});
