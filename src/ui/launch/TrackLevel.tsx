import { useState, type ReactNode } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import type { Track } from '@/core/document/track';
import { channelLevelSet } from '@/store/mixSlice';
import { useAppDispatch } from '@/store/store';
import { LEVEL_SCALE } from '../mix/mixScales';
import { useMixTurn } from '../mix/useMixTurn';
import { SLIDER_STEPS } from '../shared/sliderKeys';
import { useSideDrag } from '../shared/useSideDrag';
import { useTokens } from '../theme/theme';
import { FEATHERS, NUMBERS, RADIUS } from '../theme/tokens';
import { grown } from '../theme/type';

/** The level of a track behind its name, which a finger draws sideways: as in Mix, to the wing bar. While it is drawn it is a number. */
export function TrackLevel({ track: { id, name, level: setting, colour }, children }: { track: Track; children: ReactNode }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const [isDrawn, setDrawn] = useState(false);
  const hand = useMixTurn(id, 'level', setting, (level) => dispatch(channelLevelSet({ channel: id, level })));
  const level = hand.value;
  const share = LEVEL_SCALE.share(level);
  const { number, unit } = LEVEL_SCALE.shown(level);
  const text = LEVEL_SCALE.text(number);
  const words = text === 'off' ? text : `${text} ${unit}`;
  const set = (next: number) => next !== level && hand.turn(next);
  const dragging = useSideDrag<number>({
    begin: () => {
      setDrawn(true);
      return share;
    },
    move: (by, from) => set(LEVEL_SCALE.at(from + by)),
    end: () => {
      setDrawn(false);
      hand.letGo();
    },
  });
  const onKeyDown = (event: { key: string; preventDefault: () => void }) => {
    const steps = SLIDER_STEPS[event.key];
    if (steps !== undefined) set(LEVEL_SCALE.stepped(level, steps));
    else if (event.key === 'Home') set(0);
    else if (event.key === 'End') set(1);
    else return;
    hand.letGo();
    event.preventDefault();
  };
  return (
    <View {...dragging} style={[styles.strip, { backgroundColor: tokens.deep, borderColor: tokens.rule }]}>
      <View style={[styles.fill, { width: `${share * 100}%`, backgroundColor: FEATHERS[colour]!.colour }]} />
      <View style={[styles.edge, { left: `${share * 100}%` }]}>
        <View style={[styles.bar, { backgroundColor: tokens.wing }]} />
        <View style={[styles.bar, { backgroundColor: tokens.wing }]} />
      </View>
      <View
        {...{ onKeyDown }}
        role="slider"
        tabIndex={0}
        aria-label={`Level of ${name}`}
        aria-valuemin={LEVEL_SCALE.shown(0).number}
        aria-valuemax={0}
        aria-valuenow={Math.round(number * 10) / 10}
        aria-valuetext={words}
        style={styles.slider}
      />
      {children}
      {isDrawn && (
        <View aria-hidden style={[styles.number, { backgroundColor: tokens.slate }]}>
          <Text style={[styles.figures, { color: tokens.wing }]}>{words}</Text>
        </View>
      )}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  strip: { height: 46, borderRadius: RADIUS - 4, borderWidth: 1, overflow: 'hidden', touchAction: 'pan-y' } as ViewStyle,
  // The name on it stays readable on every feather.
  fill: { position: 'absolute', left: 0, top: 0, bottom: 0, opacity: 0.3, pointerEvents: 'none' },
  edge: { position: 'absolute', top: 0, bottom: 0, width: 9, marginLeft: -6, flexDirection: 'row', gap: 3, pointerEvents: 'none' },
  bar: { width: 2, height: '100%', transform: [{ skewX: '-8deg' }] },
  // For keys and assistive technology; a finger comes to it by way of the name.
  slider: { position: 'absolute', left: 0, right: 0, top: 0, bottom: 0, pointerEvents: 'none' },
  number: { position: 'absolute', left: 2, right: 2, top: 2, bottom: 2, borderRadius: RADIUS - 6, justifyContent: 'center', alignItems: 'center', pointerEvents: 'none' },
  figures: { fontFamily: NUMBERS, fontSize: grown(13), lineHeight: grown(17) },
}); // prettier-ignore
