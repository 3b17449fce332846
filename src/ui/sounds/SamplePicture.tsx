import { useEffect, useState } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import type { SampleSource } from '@/core/document/sample';
import type { SoundPeaks } from '@/core/shelf/soundPeaks';
import { soundNumberSet } from '@/store/soundsSlice';
import { useAppDispatch } from '@/store/store';
import { gestureName, useDrag } from '../shared/useDrag';
import { useTokens } from '../theme/theme';
import { overviewOf, stretchPeaks } from './sampleOverview';
import { SoundPicture } from './SoundPicture';
import type { ShownSound } from './useSound';

const COLUMNS = 120;
/** Least share of a sample between its grips, and px within which a grip is taken. */
const LEAST = 0.001;
const GRIP_PX = 44;

/** The whole of a sample, as long as it is asked for. */
function useWhole(id: string): SoundPeaks | null {
  const [whole, setWhole] = useState<{ id: string; peaks: SoundPeaks } | null>(null);
  useEffect(() => {
    let isOver = false;
    void overviewOf(id).then((overview) => {
      if (!isOver && overview) setWhole({ id, peaks: stretchPeaks(overview, COLUMNS, 0, 1) });
    });
    return () => void (isOver = true);
  }, [id]);
  return whole?.id === id ? whole.peaks : null;
}

/** The sample of a sound with two slanted grips: what lies between them is played. The strips of its group do the same by keys. */
export function SamplePicture({ sound, source }: { sound: ShownSound; source: SampleSource }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const { track, pad, settings } = sound;
  const { start = 0, end = 1 } = settings;
  const whole = useWhole(source.sample);
  const set = (setting: 'start' | 'end', share: number, gesture: string) => {
    const value = setting === 'start' ? Math.min(Math.max(0, share), end - LEAST) : Math.max(Math.min(1, share), start + LEAST); // prettier-ignore
    dispatch(soundNumberSet({ track, pad, setting, value, gesture }));
  };
  const dragging = useDrag<{ setting: 'start' | 'end'; from: number; gesture: string } | null>({
    begin: ({ x, width }) => {
      const [toStart, toEnd] = [Math.abs(x - start * width), Math.abs(x - end * width)];
      if (Math.min(toStart, toEnd) > GRIP_PX) return null;
      const setting = toStart < toEnd || (toStart === toEnd && x > start * width) ? 'start' : 'end';
      return { setting, from: setting === 'start' ? start : end, gesture: gestureName(setting) };
    },
    move: ({ dx, width }, drag) => {
      if (drag && dx !== 0) set(drag.setting, drag.from + dx / width, drag.gesture);
    },
  });
  const grip = (share: number) => (
    <path
      key={share === start ? 'start' : 'end'}
      d={`M${share * COLUMNS + 0.9} 0L${share * COLUMNS - 0.9} 100`}
      stroke={tokens.cap}
      strokeWidth={5}
      vectorEffect="non-scaling-stroke"
      strokeLinecap="round"
    />
  );
  return (
    <View {...dragging()} style={styles.all}>
      <SoundPicture peaks={whole} columns={COLUMNS} color={tokens.wing} fitted />
      <View style={[styles.shade, { left: 0, width: `${start * 100}%`, backgroundColor: tokens.deep }]} />
      <View style={[styles.shade, { right: 0, width: `${(1 - end) * 100}%`, backgroundColor: tokens.deep }]} />
      <svg
        aria-hidden
        style={GRIPS}
        width="100%"
        height="100%"
        viewBox={`0 0 ${COLUMNS} 100`}
        preserveAspectRatio="none"
      >
        {grip(start)}
        {grip(end)}
      </svg>
    </View>
  );
}

const GRIPS = { position: 'absolute', inset: 0, overflow: 'visible', pointerEvents: 'none' } as const;
const styles = StyleSheet.create({
  all: { flex: 1, touchAction: 'none', cursor: 'pointer' } as ViewStyle,
  shade: { position: 'absolute', top: 0, bottom: 0, opacity: 0.72, pointerEvents: 'none' },
});
