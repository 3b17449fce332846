import { useState, type ReactNode } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import type { Track } from '@/core/document/track';
import { LevelFill } from '../mix/LevelFill';
import { LEVEL_SCALE } from '../mix/mixScales';
import { MovedMark } from '../mix/MovedMark';
import { useLevel } from '../mix/useLevel';
import { useSideDrag } from '../shared/useSideDrag';
import { useTokens } from '../theme/theme';
import { FEATHERS, NUMBERS, RADIUS } from '../theme/tokens';
import { grown } from '../theme/type';

/** The level of a track behind its name, which a finger draws sideways: as in Mix, to the wing bar. While it is drawn it is a number. */
export function TrackLevel({ track, children }: { track: Track; children: ReactNode }) {
  const tokens = useTokens();
  const [isDrawn, setDrawn] = useState(false);
  const level = useLevel(track.id, track.level);
  const dragging = useSideDrag<number>({
    begin: () => {
      setDrawn(true);
      return level.share;
    },
    move: (by, from) => level.set(LEVEL_SCALE.at(from + by)),
    end: () => {
      setDrawn(false);
      level.letGo();
    },
  });
  return (
    <View {...dragging} style={[styles.strip, { backgroundColor: tokens.deep, borderColor: tokens.rule }]}>
      <LevelFill share={level.share} colour={FEATHERS[track.colour]!.colour} />
      {level.moves && <MovedMark ridden={level.moves} />}
      <View
        {...{ onKeyDown: level.onKeyDown }}
        {...level.slider}
        aria-label={`Level of ${track.name}`}
        style={styles.slider}
      />
      {children}
      {isDrawn && (
        <View aria-hidden style={[styles.number, { backgroundColor: tokens.slate }]}>
          <Text style={[styles.figures, { color: tokens.wing }]}>{level.words}</Text>
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  strip: { height: grown(46), borderRadius: RADIUS - 4, borderWidth: 1, overflow: 'hidden', touchAction: 'pan-y' } as ViewStyle,
  // For keys and assistive technology; a finger comes to it by way of the name.
  slider: { position: 'absolute', left: 0, right: 0, top: 0, bottom: 0, pointerEvents: 'none' },
  number: { position: 'absolute', left: 2, right: 2, top: 2, bottom: 2, borderRadius: RADIUS - 6, justifyContent: 'center', alignItems: 'center', pointerEvents: 'none' },
  figures: { fontFamily: NUMBERS, fontSize: grown(13), lineHeight: grown(17) },
}); // prettier-ignore
