import { usePatternEdit } from '../../shared/usePatternEdit';
import { useMemo } from 'react';
import { StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import { strokeCourse, VALUE_RANGES, valueOf, type ValueKind } from '@/core/edit/values'; // prettier-ignore
import { isInLoop, soundingHits } from '@/core/sequence/soundingHits';
import { PPQ } from '@/core/time/ticks';
import { selectSet, selectTrack } from '@/store/selectors';
import { selectSelected, selectStepTicks, selectSteps } from '@/store/stepsSlice'; // prettier-ignore
import { useAppSelector } from '@/store/store';
import { gestureName, heightOf, useDrag, type DragPoint } from '../../shared/useDrag';
import { useTokens } from '../../theme/theme';
import { useRoom } from '../../theme/room';
import { NUMBERS, WORDS, WORDS_STRONG } from '../../theme/tokens';
import { grown } from '../../theme/type';
import { xOf, type Geometry } from '../geometry';
import { LaneCanvas } from '../LaneCanvas';
import { KIND_NAMES, numberText, shownValue } from '../valueWords';
import type { Hit } from '@/core/document/hit';
import type { Pattern } from '@/core/document/pattern';
import { inLane, type StepLane } from '@/core/document/stepLanes';

export const VALUES_PX = 72;
/** A hit is meant by a finger this near, px. */
const REACH_PX = 12;
const BAR_PX = 9;
/** What the lane's height stands for, where it is not the value's whole range: drawn, a pitch is a whole semitone. */
const DRAWN: Record<ValueKind, { min: number; max: number; step: number }> = {
  ...VALUE_RANGES,
  pitch: { min: -12, max: 12, step: 1 },
  glide: { min: -12, max: 12, step: 1 },
  odds: { min: 0, max: 1, step: 0.05 },
  swell: { min: -1, max: 1, step: 0.05 },
  nudge: { min: -PPQ / 16, max: PPQ / 16, step: 1 },
  length: { min: 0, max: PPQ, step: PPQ / 96 },
};

interface Props {
  pattern: Pattern;
  lane: StepLane;
  geometry: Geometry;
  /** Width of what stands to the left, px. */
  labels: number;
}

/** Where a finger is in the lane: px from its left, and 0..1 from its ground. */
interface LanePoint {
  x: number;
  y: number;
}

/** A stroke of a drawing finger. */
interface DrawnStroke {
  first: LanePoint;
  last: LanePoint;
  /** The hits' values as they were, by id. */
  before: Map<number, number>;
  gesture: string;
}

/**
 * One value of the hits of one lane, as bars: up from the ground, or both ways from the middle. A finger draws: what it passes
 * follows it, or, while hits are chosen, only those.
 */
export function ValueLane({ pattern, lane: { key, name }, geometry: g, labels }: Props) {
  const tokens = useTokens();
  const edit = usePatternEdit();
  const { type } = useRoom();
  const { kind, shape } = useAppSelector(selectSteps);
  const track = useAppSelector(selectTrack);
  const step = useAppSelector(selectStepTicks);
  const selectedIds = useAppSelector(selectSelected);
  const tempo = useAppSelector((state) => selectSet(state).tempo);
  const { min, max, step: drawnStep } = DRAWN[kind];
  const places = useMemo(() => new Map(soundingHits(pattern).map((hit) => [hit.id, hit.struck])), [pattern]);
  const chosen = useMemo(() => new Set(selectedIds), [selectedIds]);
  const x = (hit: Hit) => xOf(g, places.get(hit.id)!) + BAR_PX / 2;
  const isHere = inLane(track, key);
  const seen = pattern.hits.filter(
    (hit) =>
      isHere(hit) &&
      isInLoop(hit, pattern.length) &&
      places.has(hit.id) &&
      x(hit) > -BAR_PX &&
      x(hit) < g.width + BAR_PX,
  );
  const touched = seen.filter((hit) => chosen.size === 0 || chosen.has(hit.id));
  const share = (value: number) => Math.min(1, Math.max(0, (value - min) / (max - min)));
  const shown = shownValue(kind, tempo, step);

  const draw = (at: DragPoint, stroke: DrawnStroke) => {
    const to = { x: at.x, y: heightOf(at) };
    // A line or curve goes from where the finger came down; drawn freely, from where it was last.
    const from = shape === 'free' ? stroke.last : stroke.first;
    const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
    const reach = right - left < REACH_PX ? REACH_PX : 1;
    const values: [number, number][] = [];
    for (const hit of touched) {
      const hitX = x(hit);
      if (hitX >= left - reach && hitX <= right + reach) {
        const along = to.x === from.x ? 1 : Math.min(1, Math.max(0, (hitX - from.x) / (to.x - from.x)));
        const height = from.y + (to.y - from.y) * strokeCourse(shape, along);
        values.push([hit.id, Math.round((min + height * (max - min)) / drawnStep) * drawnStep]);
      } else if (shape !== 'free') values.push([hit.id, stroke.before.get(hit.id)!]); // the line has left it again
    }
    stroke.last = to;
    if (values.length === 0) return;
    edit({ kind: 'values', of: kind, values, over: step }, stroke.gesture);
  };
  const drawing = useDrag<DrawnStroke>({
    begin: (at) => {
      const here = { x: at.x, y: heightOf(at) };
      const before = new Map(touched.map((hit) => [hit.id, valueOf(hit, kind)]));
      const stroke = { first: here, last: here, before, gesture: gestureName(kind) };
      draw(at, stroke);
      return stroke;
    },
    move: draw,
  });
  const zero = share(kind === 'roll' ? 1 : Math.max(min, Math.min(0, max)));
  /** Bars from the ground or the middle, and the numbers of those that are not neutral where there is room. */
  const paint = (c: CanvasRenderingContext2D) => {
    const y = (part: number) => VALUES_PX * (1 - part);
    c.fillStyle = tokens.rule;
    if (zero > 0 && zero < 1) c.fillRect(0, y(zero), g.width, 1);
    c.font = `${10 * type}px ${NUMBERS}`;
    c.textBaseline = 'top';
    const numbers = seen.length <= 24 && kind !== 'velocity';
    for (const hit of seen) {
      const value = valueOf(hit, kind);
      const height = share(value);
      c.fillStyle = tokens.breast;
      c.globalAlpha = chosen.size > 0 && !chosen.has(hit.id) ? 0.4 : 1;
      const tall = Math.max(3, Math.abs(height - zero) * VALUES_PX);
      c.fillRect(x(hit) - BAR_PX / 2, Math.min(VALUES_PX - tall, y(Math.max(height, zero))), BAR_PX, tall);
      if (!numbers || value === VALUE_RANGES[kind].neutral) continue;
      c.fillStyle = tokens.cap;
      c.fillText(numberText(value, shown), x(hit) + BAR_PX / 2 + 2, 2);
    }
    c.globalAlpha = 1;
  };
  const plural = kind === 'velocity' ? 'Velocities' : KIND_NAMES[kind];
  return (
    <div style={{ height: VALUES_PX, display: 'flex' }}>
      <div style={{ width: labels, display: 'flex', flexDirection: 'column', justifyContent: 'center' }}>
        <Text style={[styles.caption, { color: tokens.cap }]}>{KIND_NAMES[kind]}</Text>
        <Text numberOfLines={1} style={[styles.label, { color: tokens.wing }]}>
          {name}
        </Text>
      </div>
      <div
        role="img"
        aria-label={`${plural} of ${name}: ${seen.map((hit) => numberText(valueOf(hit, kind), shown)).join(', ') || 'no hits in view'}`}
        style={{ ...laneBox, width: g.width, background: tokens.ground }}
        {...drawing()}
      >
        <LaneCanvas width={g.width} height={VALUES_PX} draw={paint} />
      </div>
    </div>
  );
}

const laneBox = { position: 'relative', height: VALUES_PX, overflow: 'hidden', touchAction: 'none', cursor: 'crosshair' } as const; // prettier-ignore

const styles = StyleSheet.create({
  caption: { fontFamily: WORDS, fontSize: grown(14), lineHeight: grown(16), paddingHorizontal: 10, userSelect: 'none' },
  label: {
    fontFamily: WORDS_STRONG,
    fontSize: grown(17),
    lineHeight: grown(21),
    paddingHorizontal: 10,
    userSelect: 'none',
  },
});
