import { usePatternEdit } from '../../shared/usePatternEdit';
import { useState } from 'react';
import { StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import { drawnOver, erasedPoints, movePoints, thinnedOut } from '@/core/edit/editMoves';
import { movedName, movedRange, type ControlRange, type Moved, type MovePoint } from '@/core/document/moves';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { ControlButton } from '../../shared/ControlButton';
import { gestureName, heightOf, useDrag, type DragPoint } from '../../shared/useDrag';
import { useTokens } from '../../theme/theme';
import { WORDS, type Tokens } from '../../theme/tokens';
import { grown } from '../../theme/type';
import { tickAtX, xOf, type Geometry } from '../geometry';
import { LaneCanvas } from '../LaneCanvas';
import { movedScale, type MovedScale } from '../movedScale';
import type { Pattern } from '@/core/document/pattern';

interface Props {
  pattern: Pattern;
  moved: Moved;
  /** Whose it is: the lane's, or the track's. */
  name: string;
  geometry: Geometry;
  /** Width of what stands to the left, px. */
  labels: number;
  height: number;
}

/** A stroke of a finger that draws or rubs out. */
interface DrawnStroke {
  /** The points as they were. */
  before: readonly MovePoint[];
  drawn: MovePoint[];
  /** Ticks between which it has been. */
  from: number;
  to: number;
  gesture: string;
}

/** Points are dropped where the course changes by less than this share of its range. */
const DRAWN_TOLERANCE = 0.01;
const THIN_TOLERANCE = 0.05;

/** The Move of one control, of a lane or of the mix: its breakpoints and the course between them. A finger draws it, or rubs it out. */
export function MovesLane({ pattern, moved, name, geometry: g, labels, height }: Props) {
  const tokens = useTokens();
  const edit = usePatternEdit();
  const dispatch = useAppDispatch();
  const [erasing, setErasing] = useState(false);
  const points = movePoints(pattern, moved);
  const range = movedRange(moved);
  const scale = movedScale(moved);
  const span = range.max - range.min;
  const title = movedName(moved);

  const set = (next: readonly MovePoint[], gesture: string) => edit({ kind: 'moves', moved, points: next }, gesture);
  const pointAt = (at: DragPoint): MovePoint => {
    const tick = Math.min(pattern.length, Math.max(0, tickAtX(g, at.x)));
    return { tick, value: scale.at(heightOf(at)) };
  };
  const follow = (at: DragPoint, stroke: DrawnStroke) => {
    const point = pointAt(at);
    stroke.from = Math.min(stroke.from, point.tick);
    stroke.to = Math.max(stroke.to, point.tick);
    if (erasing) return set(erasedPoints(stroke.before, stroke.from, stroke.to), stroke.gesture);
    // The finger may move back and forth: at each place the last value drawn holds.
    const last = stroke.drawn[stroke.drawn.length - 1];
    const [low, high] = [
      Math.min(last?.tick ?? point.tick, point.tick),
      Math.max(last?.tick ?? point.tick, point.tick),
    ];
    stroke.drawn = [...stroke.drawn.filter(({ tick }) => tick < low || tick > high || tick === last?.tick), point];
    const inOrder = [...stroke.drawn].sort((a, b) => a.tick - b.tick);
    set(drawnOver(stroke.before, thinnedOut(inOrder, range.stepped ? 0 : span * DRAWN_TOLERANCE)), stroke.gesture);
  };
  const drawing = useDrag<DrawnStroke>({
    begin: (at) => {
      const { tick } = pointAt(at);
      const stroke = { before: points, drawn: [], from: tick, to: tick, gesture: gestureName('moves') };
      follow(at, stroke);
      return stroke;
    },
    move: follow,
  });
  const words = points.map(({ tick, value }) => `${Math.round(tick)}: ${scale.words(value)}`).join('; ');
  return (
    <div style={{ height, display: 'flex' }}>
      <div style={{ width: labels, display: 'flex', flexDirection: 'column', justifyContent: 'center' }}>
        <Text numberOfLines={1} style={[styles.caption, { color: tokens.cap }]}>
          {'pad' in moved ? `${title} · ${name}` : title}
        </Text>
        <div style={{ display: 'flex', gap: 2 }}>
          <ControlButton
            label="Erase points"
            icon="eraser"
            pressed={erasing}
            onPress={() => setErasing(!erasing)}
            style={styles.key}
          />
          <ControlButton
            label="Thin out"
            icon="chart-timeline-variant"
            disabled={points.length < 3}
            onPress={() => {
              const fewer = thinnedOut(points, span * THIN_TOLERANCE);
              set(fewer, gestureName('thin'));
              dispatch(noticed(`${points.length} breakpoints, now ${fewer.length}.`, true));
            }}
            style={styles.key}
          />
        </div>
      </div>
      <div
        role="img"
        aria-label={`Moves of ${title.toLowerCase()} of ${name}: ${words || 'none'}`}
        style={{
          ...laneBox,
          width: g.width,
          height,
          background: tokens.ground,
          cursor: erasing ? 'cell' : 'crosshair',
        }}
        {...drawing()}
      >
        <LaneCanvas
          width={g.width}
          height={height}
          draw={(c) => drawMove(c, g, { height, points, scale, range, length: pattern.length }, tokens)}
        />
      </div>
    </div>
  );
}

interface DrawnMove {
  height: number;
  points: readonly MovePoint[];
  scale: MovedScale;
  range: ControlRange;
  /** Of the pattern, ticks. */
  length: number;
}

function drawMove(
  c: CanvasRenderingContext2D,
  g: Geometry,
  { height, points, scale, range: { neutral, stepped }, length }: DrawnMove,
  tokens: Tokens,
): void {
  const y = (value: number) => 6 + (height - 12) * (1 - scale.share(value));
  c.fillStyle = tokens.rule;
  c.fillRect(0, y(neutral), g.width, 1);
  const [first, last] = [points[0], points[points.length - 1]];
  if (!first || !last) return;
  c.strokeStyle = tokens.breast;
  c.lineWidth = 2;
  c.beginPath();
  c.moveTo(xOf(g, 0), y(first.value));
  let before = first;
  for (const point of points) {
    if (stepped) c.lineTo(xOf(g, point.tick), y(before.value));
    c.lineTo(xOf(g, point.tick), y(point.value));
    before = point;
  }
  c.lineTo(xOf(g, length), y(last.value));
  c.stroke();
  c.fillStyle = tokens.wing;
  for (const { tick, value } of points) c.fillRect(xOf(g, tick) - 3, y(value) - 3, 6, 6);
}

const laneBox = { position: 'relative', overflow: 'hidden', touchAction: 'none' } as const;

const styles = StyleSheet.create({
  caption: { fontFamily: WORDS, fontSize: grown(14), lineHeight: grown(18), paddingHorizontal: 8, userSelect: 'none' },
  key: { minWidth: 44, paddingHorizontal: 0 },
});
