import { useMemo } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import { SAMPLE_RATE } from '@/core/sample/levels';
import type { Piece } from '@/core/slice/cuts';
import { counted } from '@/core/counted';
import { gestureName, useDrag } from '../shared/useDrag';
import { SHEET_WIDTH } from '../shared/Sheet';
import { useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS } from '../theme/tokens';
import { grown } from '../theme/type';
import { SoundPicture } from '../sounds/SoundPicture';
import { usePinch } from './usePinch';
import type { Recording } from './useRecording';
import { viewPeaks } from './viewPeaks';

const COLUMNS = 240;
const OVERVIEW_COLUMNS = 160;
/** px within which an edge is taken, and further than which a touch is a drag. */
const GRIP_PX = 20;
const TAP_PX = 6;
/** The least that is shown large, frames: 20 ms. */
export const LEAST_VIEW = 960;
/** Pieces narrower than this have no number, px on a phone. */
const NUMBERED = 24;

/** An edge of a piece: a cut by its index, or where the played part begins or ends. */
export type Edge = number | 'start' | 'end';

interface Props {
  recording: Recording;
  view: Piece;
  /** Index of the chosen piece, and the frame that was touched last. */
  chosen: number;
  mark: number | null;
  onEdge: (edge: Edge, frame: number, gesture: string) => void;
  onTouch: (frame: number) => void;
  onView: (view: Piece) => void;
}

/**
 * A recording large: its pieces between slanted cuts. A cut is dragged, a piece touched, and the whole
 * moved where it is longer than the picture, and made larger by two fingers.
 */
export function SlicePicture({ recording, view, chosen, mark, onEdge, onTouch, onView }: Props) {
  const tokens = useTokens();
  const room = useRoom();
  const { audio, part, cuts, pieces, frames } = recording;
  const length = view.to - view.from;
  const numbered = (NUMBERED * room.type) / Math.min(SHEET_WIDTH * room.type, room.width - 24);
  const shareOf = (frame: number) => (frame - view.from) / length;
  const peaks = useMemo(
    () => audio && { peaks: viewPeaks(audio, COLUMNS, { from: view.from, to: view.to }), seconds: 0 },
    [audio, view.from, view.to],
  );
  const edges: { edge: Edge; frame: number }[] = [
    { edge: 'start', frame: part.from },
    { edge: 'end', frame: part.to },
    ...cuts.map((frame, edge) => ({ edge, frame })),
  ];
  const pinch = usePinch<{ frame: number; length: number }>({
    begin: ({ x, width }) => ({ frame: view.from + (x / width) * length, length }),
    // What lies between the fingers stays between them.
    move: ({ times, x, width }, begun) => {
      const next = Math.min(frames, Math.max(Math.min(frames, LEAST_VIEW), begun.length / times));
      onView(within(frames, begun.frame - (x / width) * next, next));
    },
  });
  const dragging = useDrag<{ edge?: Edge; from: number; gesture: string; moved: boolean }>({
    begin: ({ x, width }) => {
      const px = ({ frame }: { frame: number }) => Math.abs(shareOf(frame) * width - x);
      // Of edges at one place the last: that can be moved away from it.
      const nearest = edges.reduce((best, one) => (px(one) <= px(best) ? one : best));
      const taken = px(nearest) <= GRIP_PX;
      return { ...(taken && { edge: nearest.edge }), from: taken ? nearest.frame : view.from, gesture: gestureName('cut'), moved: false }; // prettier-ignore
    },
    move: ({ dx, width }, drag) => {
      if (Math.abs(dx) > TAP_PX) drag.moved = true;
      if (!drag.moved) return;
      const by = (dx / width) * length;
      if (drag.edge !== undefined) onEdge(drag.edge, drag.from + by, drag.gesture);
      else onView(within(frames, drag.from - by, length));
    },
    end: ({ x, width }, { moved }, cancelled) => {
      if (!moved && !cancelled && !pinch.isOn()) onTouch(view.from + (x / width) * length);
    },
  });
  const percent = (frame: number): `${number}%` => `${shareOf(frame) * 100}%`;
  const piece = pieces[chosen];
  return (
    <View
      role="img"
      aria-label={`Recording, ${(frames / SAMPLE_RATE).toFixed(2)} s, ${counted(pieces.length, 'piece')}`}
      style={[styles.picture, room.layout === 'lying' && styles.low, { backgroundColor: tokens.deep }]}
      {...pinch.around(dragging())}
    >
      {piece && (
        <View
          style={[
            styles.piece,
            {
              left: percent(piece.from),
              width: `${((piece.to - piece.from) / length) * 100}%`,
              backgroundColor: tokens.warm,
            },
          ]}
        />
      )}
      <View style={styles.drawing}>
        <SoundPicture peaks={peaks} columns={COLUMNS} color={tokens.wing} fitted />
      </View>
      <View style={[styles.shade, { left: 0, width: percent(part.from), backgroundColor: tokens.deep }]} />
      <View style={[styles.shade, { left: percent(part.to), right: 0, backgroundColor: tokens.deep }]} />
      <svg aria-hidden style={LINES} width="100%" height="100%" viewBox="0 0 100 100" preserveAspectRatio="none">
        {edges.map(({ edge, frame }) => (
          <path
            key={edge}
            d={`M${shareOf(frame) * 100 + 0.4} 0L${shareOf(frame) * 100 - 0.4} 100`}
            stroke={typeof edge === 'number' ? tokens.straw : tokens.cap}
            strokeWidth={typeof edge === 'number' ? 2 : 5}
            vectorEffect="non-scaling-stroke"
          />
        ))}
        {mark !== null && (
          <path
            d={`M${shareOf(mark) * 100} 0V100`}
            stroke={tokens.breast}
            strokeWidth={2}
            strokeDasharray="4 4"
            vectorEffect="non-scaling-stroke"
          />
        )}
      </svg>
      {pieces.map(({ from, to }, i) => {
        const [left, right] = [Math.max(0, shareOf(from)), Math.min(1, shareOf(to))];
        return right - left < numbered ? null : (
          <Text key={from} style={[styles.number, { left: `${left * 100}%`, color: tokens.wing }]}>
            {i + 1}
          </Text>
        );
      })}
    </View>
  );
}

/** All of a recording in small, with a frame around what is shown large: it is dragged, or put where it is touched. */
export function SliceOverview({ recording, view, onView }: Pick<Props, 'recording' | 'view' | 'onView'>) {
  const tokens = useTokens();
  const { audio, frames } = recording;
  const peaks = useMemo(
    () => audio && { peaks: viewPeaks(audio, OVERVIEW_COLUMNS, { from: 0, to: frames }), seconds: 0 },
    [audio, frames],
  );
  const length = view.to - view.from;
  const dragging = useDrag<number>({
    begin: ({ x, width }) => {
      const touched = (x / width) * frames;
      const from = touched >= view.from && touched < view.to ? view.from : touched - length / 2;
      onView(within(frames, from, length));
      return from;
    },
    move: ({ dx, width }, from) => onView(within(frames, from + (dx / width) * frames, length)),
  });
  return (
    <View
      role="img"
      aria-label={`Shown large: ${(view.from / SAMPLE_RATE).toFixed(2)} to ${(view.to / SAMPLE_RATE).toFixed(2)} s`}
      style={[styles.overview, { backgroundColor: tokens.deep }]}
      {...dragging()}
    >
      <View style={StyleSheet.absoluteFill}>
        <SoundPicture peaks={peaks} columns={OVERVIEW_COLUMNS} color={tokens.cap} fitted />
      </View>
      <View
        style={[
          styles.frame,
          {
            left: `${(view.from / frames) * 100}%`,
            width: `${(length / frames) * 100}%`,
            borderColor: tokens.wing,
          },
        ]}
      />
    </View>
  );
}

/** A stretch of this length that lies within a recording. */
export function within(frames: number, from: number, length: number): Piece {
  const kept = Math.min(frames, Math.round(length));
  const first = Math.round(Math.min(frames - kept, Math.max(0, from)));
  return { from: first, to: first + kept };
}

const LINES = { position: 'absolute', inset: 0, overflow: 'hidden', pointerEvents: 'none' } as const;
const styles = StyleSheet.create({
  picture: {
    height: 168,
    borderRadius: RADIUS,
    overflow: 'hidden',
    touchAction: 'none',
    cursor: 'pointer',
  } as ViewStyle,
  low: { height: 120 },
  drawing: { position: 'absolute', left: 0, right: 0, top: 20, bottom: 4, pointerEvents: 'none' },
  piece: { position: 'absolute', top: 0, bottom: 0, pointerEvents: 'none' },
  shade: { position: 'absolute', top: 0, bottom: 0, opacity: 0.72, pointerEvents: 'none' },
  number: {
    position: 'absolute',
    top: 2,
    paddingLeft: 6,
    fontFamily: NUMBERS,
    fontSize: grown(12),
    lineHeight: grown(16),
    pointerEvents: 'none',
    userSelect: 'none',
  },
  overview: {
    height: 44,
    borderRadius: RADIUS,
    overflow: 'hidden',
    touchAction: 'none',
    cursor: 'pointer',
  } as ViewStyle,
  frame: { position: 'absolute', top: 0, bottom: 0, borderWidth: 2, borderRadius: 6, pointerEvents: 'none' },
});
