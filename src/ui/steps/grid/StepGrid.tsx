import { usePatternEdit } from '../../shared/usePatternEdit';
import { useCallback, useDeferredValue, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { denseMoments } from '@/core/edit/density';
import { hitsInStep } from '@/core/edit/steps';
import { lanesOf } from '@/core/document/lanes';
import { windowOf } from '@/core/sequence/loopWindow';
import { passOf } from '@/core/sequence/soundingHits';
import { selectSet, selectTrace, selectTrack } from '@/store/selectors';
import { cursorMoved, selectSelected, selectSteps } from '@/store/stepsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { useInstrument } from '../../shared/InstrumentContext';
import { useFrame } from '../../shared/useFrame';
import { WingBars } from '../../shared/WingBars';
import { useTokens } from '../../theme/theme';
import { byPad, drawSteps, type StepsPicture } from './drawSteps';
import { geometryOf, LANES, RULER_PX, xOf } from '../geometry';
import { LaneCanvas } from '../LaneCanvas';
import { LaneLabels } from './LaneLabels';
import { MovesLane } from '../lanes/MovesLane';
import { Ruler } from './Ruler';
import { cellId, StepCells } from './StepCells';
import { useCellGestures } from './useCellGestures';
import { ValueLane, VALUES_PX } from '../lanes/ValueLane';
import { ValueTools } from '../lanes/ValueTools';
import { PADS } from '@/core/document/limits';
import type { LoopWindow, Pattern } from '@/core/document/pattern';
import { isPadHeard } from '@/core/document/track';

const LABEL_PX = 96;
/** With mute and solo beside the label. */
const ROOMY_LABEL_PX = 200;
const TOOLS_PX = 52;
const GAP_PX = 6;
const MOVES_PX = 92;
/** Lower than this, lanes have the room of the value lane, which folds away. */
const LOW_PX = 360;
/** What a Page key changes the velocity of the cell's hit by. */
const KEY_VELOCITY_STEP = 5 / 127;

interface Props {
  pattern: Pattern;
  /** Step size, ticks. */
  step: number;
  /** Ticks in view. */
  span: number;
}

/**
 * Lanes and steps. A finger on the cells paints and never scrolls; on the labels it scrolls the lanes, on the ruler the
 * time, and never paints.
 */
export function StepGrid({ pattern, step, span }: Props) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const { performance } = useInstrument();
  const track = useAppSelector(selectTrack);
  const pads = lanesOf(track);
  const names = useMemo(() => pads.map((pad) => pad.name), [pads]);
  const meter = useAppSelector((state) => selectSet(state).meter);
  const playing = useAppSelector((state) => state.session.playing);
  const trace = useAppSelector(selectTrace);
  const selectedIds = useAppSelector(selectSelected);
  const { pad: chosen, cursor, control, selecting } = useAppSelector(selectSteps);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [scrollX, setScrollX] = useState(0);
  const [scrollY, setScrollY] = useState(Infinity); // from the kick upwards to begin with
  const [focused, setFocused] = useState(false);
  const [scrolling, stir] = useScrolling();
  const scrollTime = useCallback(
    (tick: number) => {
      setScrollX(tick);
      stir();
    },
    [stir],
  );
  const scrollLanes = useCallback(
    (y: number) => {
      setScrollY(y);
      stir();
    },
    [stir],
  );
  const edit = usePatternEdit();
  const onWindow = useCallback(
    (next: LoopWindow, gesture: string) => edit({ kind: 'window', window: next }, gesture),
    [edit],
  );
  const playhead = useRef<HTMLElement | null>(null);
  const cells = useRef<HTMLDivElement>(null);

  const roomy = size.width > 760;
  const labels = roomy ? ROOMY_LABEL_PX : LABEL_PX;
  const low = size.height < LOW_PX;
  const valuesShown = useAppSelector((state) => state.settings.unfolded.values) || !low;
  const below = TOOLS_PX + (valuesShown ? VALUES_PX : 0) + GAP_PX + (control ? MOVES_PX : 0);
  const width = Math.max(0, size.width - labels);
  const height = Math.max(0, size.height - RULER_PX - below);
  const { length } = pattern;
  const g = useMemo(
    () => geometryOf({ width, height, length, step, span, scrollX, scrollY }),
    [width, height, length, step, span, scrollX, scrollY],
  );
  const { start, length: round } = windowOf(pattern);
  const window = useMemo(() => ({ start, length: round }), [start, round]);
  const gates = useMemo(
    () => ({ id: track.id, mutedPads: track.mutedPads, soloPads: track.soloPads }),
    [track.id, track.mutedPads, track.soloPads],
  );

  const lanes = useMemo(() => {
    const { sounding, covered } = passOf(pattern);
    return { sounding: byPad(sounding), covered: byPad(covered), dense: denseMoments(sounding) };
  }, [pattern]);
  const traced = useMemo(
    () => (trace && trace !== pattern ? { lanes: byPad(passOf(trace).sounding), length: trace.length } : null),
    [trace, pattern],
  );
  const selected = useMemo(() => new Set(selectedIds), [selectedIds]);
  const { box, toggle, openStep, handlers } = useCellGestures(g);

  const paint = (context: CanvasRenderingContext2D) => {
    const picture: StepsPicture = {
      ...{ geometry: g, meter, length, window, selected, box, tokens },
      ...{ sounding: lanes.sounding, covered: lanes.covered, trace: traced },
      isHeard: (pad) => isPadHeard(gates, pad),
    };
    drawSteps(context, picture);
  };
  useLayoutEffect(() => {
    if (cells.current) cells.current.scrollTop = g.y;
  }, [g.y]);
  // The cells' names are updated with low priority, and only once scrolling has stopped.
  const named = useRested(
    useMemo(() => ({ sounding: lanes.sounding, geometry: g }), [lanes, g]),
    scrolling,
  );
  const slow = useDeferredValue(named);

  const placePlayhead = (now: number) => {
    if (!playhead.current) return;
    const tick = performance.positionAt(playing ? performance.tickHeard(now) : performance.anchor.tick);
    const x = xOf(g, tick);
    playhead.current.style.transform = `translateX(${x}px)`;
    playhead.current.style.opacity = x >= 0 && x <= width ? '1' : '0';
  };
  useFrame(placePlayhead, playing);
  // While stopped, scrolling or zooming still moves the playhead on the screen.
  useEffect(() => {
    if (!playing) placePlayhead(0);
  });

  const changeVelocity = (pad: number, index: number, by: number) => {
    const ids = new Set(hitsInStep(pattern, { pad, tick: index * step, length: step }).map((hit) => hit.id));
    const values = pattern.hits
      .filter((hit) => ids.has(hit.id))
      .map((hit): [number, number] => [hit.id, hit.velocity + by]);
    const gesture = `keys ${pad} ${index}`;
    if (values.length > 0) edit({ kind: 'values', of: 'velocity', values, over: step }, gesture);
  };

  const at = cursor
    ? { lane: LANES.indexOf(cursor.pad), index: Math.min(g.count - 1, Math.floor(cursor.tick / step)) }
    : null;
  const onKey = (event: React.KeyboardEvent) => {
    // With these keys the chosen hits are meant, see `useStepKeys`.
    if (event.ctrlKey || event.metaKey || event.altKey || (event.shiftKey && event.key !== 'Enter')) return;
    const from = at ?? { lane: PADS - 1, index: g.from };
    const move = MOVES[event.key];
    const pad = LANES[from.lane]!;
    if (move) {
      const lane = Math.min(PADS - 1, Math.max(0, from.lane + move[0]));
      const index = Math.min(g.count - 1, Math.max(0, from.index + move[1]));
      dispatch(cursorMoved({ pad: LANES[lane]!, tick: index * step }));
      if (index < g.from) setScrollX(index * step);
      if (index >= g.from + g.inView) setScrollX((index - g.inView + 1) * step);
      const top = lane * g.laneHeight;
      if (top < g.y) setScrollY(top);
      if (top + g.laneHeight > g.y + height) setScrollY(top + g.laneHeight - height);
    } else if (event.key === 'Enter' && event.shiftKey) openStep(pad, from.index);
    else if (event.key === 'Enter' || event.key === ' ') toggle(pad, from.index);
    else if (event.key === 'PageUp' || event.key === 'PageDown') {
      changeVelocity(pad, from.index, event.key === 'PageUp' ? KEY_VELOCITY_STEP : -KEY_VELOCITY_STEP);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };

  return (
    <View
      style={[styles.grid, { backgroundColor: tokens.deep }]}
      onLayout={({ nativeEvent: { layout } }) => setSize({ width: layout.width, height: layout.height })}
    >
      <div style={{ ...topBox, left: labels, height: RULER_PX }}>
        <Ruler
          geometry={g}
          meter={meter}
          length={length}
          window={window}
          dense={lanes.dense}
          onScroll={scrollTime}
          onWindow={onWindow}
        />
      </div>
      <div style={{ ...columnBox, top: RULER_PX, width: labels, height }}>
        <LaneLabels
          names={names}
          gates={gates}
          laneHeight={g.laneHeight}
          y={g.y}
          chosen={chosen}
          roomy={roomy}
          onScroll={scrollLanes}
        />
      </div>
      <div
        role="grid"
        aria-label="Steps"
        aria-multiselectable
        aria-activedescendant={at ? cellId(LANES[at.lane]!, at.index) : undefined}
        tabIndex={0}
        style={{ ...cellsBox, top: RULER_PX, left: labels, height, cursor: selecting ? 'crosshair' : 'pointer' }}
        onKeyDown={onKey}
        onFocus={() => {
          setFocused(true);
          if (!cursor) dispatch(cursorMoved({ pad: 0, tick: g.start }));
        }}
        onBlur={() => setFocused(false)}
        onContextMenu={(event) => event.preventDefault()}
        onWheel={(event) => {
          if (event.deltaX !== 0 || event.shiftKey) scrollTime(g.start + (event.deltaX || event.deltaY) / g.scale);
          else scrollLanes(g.y + event.deltaY);
        }}
        ref={cells}
        // Assistive technology scrolls a cell into view: the lanes follow.
        onScroll={({ currentTarget: box }) => {
          if (box.scrollTop !== g.y) scrollLanes(box.scrollTop);
          box.scrollLeft = 0;
        }}
        {...handlers}
      >
        <div style={{ ...pictureBox, top: g.y, height }}>
          <LaneCanvas width={width} height={height} draw={paint} />
        </div>
        <StepCells names={names} sounding={slow.sounding} geometry={slow.geometry} length={length} meter={meter} />
        {at && (
          <div
            style={{
              ...cursorBox,
              left: xOf(g, at.index * step),
              width: step * g.scale,
              top: at.lane * g.laneHeight,
              height: g.laneHeight,
              border: `2px solid ${focused ? tokens.breast : tokens.cap}`,
            }}
          />
        )}
        <div ref={(node) => void (playhead.current = node)} style={{ ...playheadBox, top: g.y, height }}>
          <WingBars color={tokens.wing} height="100%" slant={0.6} />
        </div>
      </div>
      <div style={{ ...valuesBox, height: below - GAP_PX }}>
        <ValueTools pattern={pattern} names={names} height={TOOLS_PX} roomy={roomy} foldable={low} />
        {valuesShown && <ValueLane pattern={pattern} name={names[chosen]!} geometry={g} labels={labels} />}
        {control && (
          <MovesLane
            pattern={pattern}
            moved={typeof control === 'string' ? { pad: chosen, control } : control}
            name={typeof control === 'string' ? names[chosen]! : track.name}
            geometry={g}
            labels={labels}
            height={MOVES_PX}
          />
        )}
      </div>
    </View>
  );
}

const REST_MS = 120;

/** Whether the view is being scrolled, and what to call at each scroll. */
function useScrolling(): [boolean, () => void] {
  const [scrolling, setScrolling] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const stir = useCallback(() => {
    setScrolling(true);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => setScrolling(false), REST_MS);
  }, []);
  return [scrolling, stir];
}

/** The value; while it changes all the time, the one from before. */
function useRested<T>(value: T, restless: boolean): T {
  const [rested, setRested] = useState(value);
  if (!restless && rested !== value) setRested(value);
  return restless ? rested : value;
}

const MOVES: Record<string, readonly [lanes: number, steps: number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

const topBox = { position: 'absolute', top: 0, right: 0, contain: 'layout' } as const;
const columnBox = { position: 'absolute', left: 0, overflow: 'hidden', touchAction: 'none' } as const;
const cellsBox = {
  position: 'absolute',
  right: 0,
  overflow: 'hidden',
  touchAction: 'none',
  outline: 'none',
  contain: 'strict',
} as const;
const valuesBox = { position: 'absolute', left: 0, right: 0, bottom: 0, display: 'flex', flexDirection: 'column' } as const; // prettier-ignore
const cursorBox = { position: 'absolute', pointerEvents: 'none', boxSizing: 'border-box' } as const;
const pictureBox = { position: 'absolute', left: 0, right: 0 } as const;
const playheadBox = { position: 'absolute', left: -4, pointerEvents: 'none' } as const;

const styles = StyleSheet.create({
  grid: { flex: 1, borderRadius: 12, overflow: 'hidden', minHeight: 0 },
});
