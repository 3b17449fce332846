import { usePatternEdit } from '../shared/usePatternEdit';
import { useMemo, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { STROKES, strokeCourse, tidyValue, VALUE_KINDS, VALUE_RANGES, valueOf, type StrokeShape, type ValueKind } from '@/core/edit/values'; // prettier-ignore
import { isInLoop, soundingHits } from '@/core/sequence/soundingHits';
import { PPQ } from '@/core/time/ticks';
import { selectSet, selectTrack } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { kindShown, selectSelected, selectStepTicks, selectSteps, selectValueTargets, shapeChosen } from '@/store/stepsSlice'; // prettier-ignore
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { NumberField } from '../shared/NumberField';
import { PopMenu } from '../shared/PopMenu';
import { useTokens } from '../theme/theme';
import { NUMBERS, WORDS, WORDS_STRONG } from '../theme/tokens';
import { xOf, type Geometry } from './geometry';
import { LaneCanvas } from './LaneCanvas';
import { MuteSolo } from './LaneLabels';
import { gestureName } from './useCellGestures';
import { KIND_NAMES, numberText, shownValue, typedValue } from './valueWords';
import type { Hit } from '@/core/document/hit';
import type { Pattern } from '@/core/document/pattern';

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
const KINDS = VALUE_KINDS.map((value) => ({ value, name: KIND_NAMES[value] }));
const SHAPE_NAMES: Record<StrokeShape, string> = { free: 'Draw freely', line: 'Draw a line', curve: 'Draw a curve' };
const SHAPE_ICONS: Record<StrokeShape, string> = { free: 'draw', line: 'vector-line', curve: 'sine-wave' };

interface ToolsProps {
  pattern: Pattern;
  names: readonly string[];
  height: number;
  /** Mute and solo stand at the labels. */
  roomy: boolean;
}

/** Above the value lane: which value, the number of what is chosen, and how a finger draws. */
export function ValueTools({ pattern, names, height, roomy }: ToolsProps) {
  const dispatch = useAppDispatch();
  const edit = usePatternEdit();
  const track = useAppSelector(selectTrack);
  const { kind, shape, pad } = useAppSelector(selectSteps);
  const step = useAppSelector(selectStepTicks);
  const targets = useAppSelector(selectValueTargets);
  const tempo = useAppSelector((state) => selectSet(state).tempo);
  const shown = shownValue(kind, tempo, step);
  const { min, max, neutral } = VALUE_RANGES[kind];
  const values = useMemo(() => {
    const ids = new Set(targets);
    return pattern.hits.filter((hit) => ids.has(hit.id)).map((hit): [number, number] => [hit.id, valueOf(hit, kind)]);
  }, [pattern, targets, kind]);
  const mean = values.length > 0 ? values.reduce((sum, [, value]) => sum + value, 0) / values.length : neutral;
  const set = (next: (value: number) => number) => {
    if (values.length === 0) return;
    const changed = values.map(([id, value]): [number, number] => [id, next(value)]);
    edit({ kind: 'values', of: kind, values: changed, over: step }, gestureName('number'));
  };
  const stepBy =
    kind === 'pitch' || kind === 'glide' ? 1 : kind === 'odds' || kind === 'swell' ? 0.05 : VALUE_RANGES[kind].step;
  return (
    <View style={[styles.tools, { height }]}>
      {!roomy && <MuteSolo name={names[pad]!} pad={pad} gates={track} />}
      <Choice
        label="Value"
        caption={names[pad]}
        value={kind}
        options={KINDS}
        grow={!roomy}
        onChoose={(value) => dispatch(kindShown(value))}
        style={styles.choice}
      />
      <NumberField
        label={KIND_NAMES[kind]}
        caption={`${values.length === 1 ? '1 hit' : `${values.length} hits`}${shown.unit && `, ${shown.unit}`}`}
        value={Number(numberText(mean, shown))}
        min={Number(numberText(min, shown))}
        max={Number(numberText(max, shown))}
        text={numberText(mean, shown)}
        valueText={`${numberText(mean, shown)} ${shown.unit}`}
        onStep={(steps) => set((value) => (kind === 'roll' ? nextRoll(value, steps) : value + steps * stepBy))}
        onType={(text) => {
          const typed = typedValue(text, shown);
          if (!Number.isFinite(typed)) {
            dispatch(noticed(`${KIND_NAMES[kind]} “${text.trim()}” is not a number.`));
            return false;
          }
          const value = Math.min(max, Math.max(min, typed));
          if (Math.abs(value - typed) > 1e-9) {
            dispatch(
              noticed(
                `${KIND_NAMES[kind]} goes from ${numberText(min, shown)} to ${numberText(max, shown)} ${shown.unit}.`,
              ),
            );
          }
          set(() => value);
          return true;
        }}
        style={styles.number}
      />
      <PopMenu
        label="Draw"
        description={SHAPE_NAMES[shape]}
        icon={SHAPE_ICONS[shape]}
        items={STROKES.map((value) => ({
          title: SHAPE_NAMES[value],
          icon: SHAPE_ICONS[value],
          chosen: value === shape,
          act: () => dispatch(shapeChosen(value)),
        }))}
      />
    </View>
  );
}

/** The next roll that there is. */
function nextRoll(strokes: number, steps: number): number {
  let next = strokes;
  for (let i = 0; i < Math.abs(steps); i++) {
    const from = next;
    for (let by = 1; next === from && by < 4; by++) next = tidyValue('roll', from + Math.sign(steps) * by);
  }
  return next;
}

interface LaneProps {
  pattern: Pattern;
  /** The lane's name. */
  name: string;
  geometry: Geometry;
  /** Width of what stands to the left, px. */
  labels: number;
}

/**
 * One value of the hits of one lane, as bars: up from the ground, or both ways from the middle. A finger draws: what it passes
 * follows it, or, while hits are chosen, only those.
 */
export function ValueLane({ pattern, name, geometry: g, labels }: LaneProps) {
  const tokens = useTokens();
  const edit = usePatternEdit();
  const { kind, shape, pad } = useAppSelector(selectSteps);
  const step = useAppSelector(selectStepTicks);
  const selectedIds = useAppSelector(selectSelected);
  const tempo = useAppSelector((state) => selectSet(state).tempo);
  const drawing = useRef<{ x: number; y: number; lastX: number; lastY: number; before: Map<number, number>; gesture: string } | null>(null); // prettier-ignore
  const { min, max, step: drawnStep } = DRAWN[kind];
  const places = useMemo(() => new Map(soundingHits(pattern).map((hit) => [hit.id, hit.struck])), [pattern]);
  const chosen = useMemo(() => new Set(selectedIds), [selectedIds]);
  const x = (hit: Hit) => xOf(g, places.get(hit.id)!) + BAR_PX / 2;
  const seen = pattern.hits.filter(
    (hit) =>
      hit.pad === pad &&
      isInLoop(hit, pattern.length) &&
      places.has(hit.id) &&
      x(hit) > -BAR_PX &&
      x(hit) < g.width + BAR_PX,
  );
  const touched = seen.filter((hit) => chosen.size === 0 || chosen.has(hit.id));
  const share = (value: number) => Math.min(1, Math.max(0, (value - min) / (max - min)));
  const shown = shownValue(kind, tempo, step);

  const at = (event: React.PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - box.left, y: Math.min(1, Math.max(0, 1 - (event.clientY - box.top) / box.height)) };
  };
  const draw = (to: { x: number; y: number }) => {
    const d = drawing.current!;
    // A line or curve goes from where the finger came down; drawn freely, from where it was last.
    const from = shape === 'free' ? { x: d.lastX, y: d.lastY } : { x: d.x, y: d.y };
    const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
    const reach = right - left < REACH_PX ? REACH_PX : 1;
    const values: [number, number][] = [];
    for (const hit of touched) {
      const hitX = x(hit);
      if (hitX >= left - reach && hitX <= right + reach) {
        const along = to.x === from.x ? 1 : Math.min(1, Math.max(0, (hitX - from.x) / (to.x - from.x)));
        const height = from.y + (to.y - from.y) * strokeCourse(shape, along);
        values.push([hit.id, Math.round((min + height * (max - min)) / drawnStep) * drawnStep]);
      } else if (shape !== 'free') values.push([hit.id, d.before.get(hit.id)!]); // the line has left it again
    }
    d.lastX = to.x;
    d.lastY = to.y;
    if (values.length === 0) return;
    edit({ kind: 'values', of: kind, values, over: step }, d.gesture);
  };
  const zero = share(kind === 'roll' ? 1 : Math.max(min, Math.min(0, max)));
  /** Bars from the ground or the middle, and the numbers of those that are not neutral where there is room. */
  const paint = (c: CanvasRenderingContext2D) => {
    const y = (part: number) => VALUES_PX * (1 - part);
    c.fillStyle = tokens.rule;
    if (zero > 0 && zero < 1) c.fillRect(0, y(zero), g.width, 1);
    c.font = `10px ${NUMBERS}`;
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
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          const here = at(event);
          const before = new Map(touched.map((hit) => [hit.id, valueOf(hit, kind)]));
          drawing.current = { ...here, lastX: here.x, lastY: here.y, before, gesture: gestureName(kind) };
          draw(here);
        }}
        onPointerMove={(event) => {
          if (drawing.current) draw(at(event));
        }}
        onPointerUp={() => (drawing.current = null)}
        onPointerCancel={() => (drawing.current = null)}
      >
        <LaneCanvas width={g.width} height={VALUES_PX} draw={paint} />
      </div>
    </div>
  );
}

const laneBox = { position: 'relative', height: VALUES_PX, overflow: 'hidden', touchAction: 'none', cursor: 'crosshair' } as const; // prettier-ignore

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 4, alignItems: 'center', paddingHorizontal: 4 },
  choice: { flexGrow: 1, minWidth: 92 },
  number: { flexGrow: 1, flexBasis: 0, minWidth: 84, maxWidth: 200 },
  caption: { fontFamily: WORDS, fontSize: 14, lineHeight: 16, paddingHorizontal: 10, userSelect: 'none' },
  label: { fontFamily: WORDS_STRONG, fontSize: 17, lineHeight: 21, paddingHorizontal: 10, userSelect: 'none' },
});
