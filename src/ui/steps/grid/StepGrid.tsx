import { usePatternEdit } from '../../shared/usePatternEdit';
import { useCallback, useDeferredValue, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { denseMoments } from '@/core/edit/density';
import { hitsInStep } from '@/core/edit/steps';
import { chosenBy, inLane, laneKey, laneKeys, stepLanes, type StepLane } from '@/core/document/stepLanes';
import { windowOf } from '@/core/sequence/loopWindow';
import { passOf } from '@/core/sequence/soundingHits';
import { selectPlace, selectSet, selectTrace, selectTracedTrack, selectTrack } from '@/store/selectors';
import { cursorMoved, selectLane, selectSelected, selectSteps } from '@/store/stepsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { useInstrument } from '../../shared/InstrumentContext';
import { useFrame } from '../../shared/useFrame';
import { WingBars } from '../../shared/WingBars';
import { useTokens } from '../../theme/theme';
import { useRoom } from '../../theme/room';
import { byLane, drawSteps, type StepsPicture } from './drawSteps';
import { geometryOf, RULER_PX, xOf } from '../geometry';
import { LaneCanvas } from '../LaneCanvas';
import { LaneLabels } from './LaneLabels';
import { MovesLane } from '../lanes/MovesLane';
import { Ruler } from './Ruler';
import { tracedIn, wordsBeneath } from './traced';
import { cellId, StepCells } from './StepCells';
import { useCellGestures } from './useCellGestures';
import { ValueLane, VALUES_PX } from '../lanes/ValueLane';
import { ValueTools } from '../lanes/ValueTools';
import type { Tones } from '@/core/document/tones';
import type { LoopWindow, Pattern } from '@/core/document/pattern';
import { isPadHeard, type Track } from '@/core/document/track';

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
  const allNotes = useAppSelector((state) => state.settings.unfolded.notes);
  const lanes = useStepLanes(track, pattern, allNotes);
  const meter = useAppSelector((state) => selectSet(state).meter);
  const playing = useAppSelector((state) => state.session.playing);
  const trace = useAppSelector(selectTrace);
  const selectedIds = useAppSelector(selectSelected);
  const tracedTrack = useAppSelector(selectTracedTrack);
  const { cursor, control, selecting } = useAppSelector(selectSteps);
  const chosenKey = useAppSelector(selectLane);
  const chosen = lanes.find(({ key }) => key === chosenKey) ?? lanes.at(-1)!;
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
  const onTop = useRef<{ track: number; key: number } | null>(null);

  const roomy = size.width > 760;
  const { type } = useRoom();
  const labels = Math.round((roomy ? ROOMY_LABEL_PX : LABEL_PX) * type);
  const low = size.height < LOW_PX;
  const valuesShown = useAppSelector((state) => state.settings.unfolded.values) || !low;
  const below = TOOLS_PX + (valuesShown ? VALUES_PX : 0) + GAP_PX + (control ? MOVES_PX : 0);
  const width = Math.max(0, size.width - labels);
  const height = Math.max(0, size.height - RULER_PX - below);
  const { length } = pattern;
  const g = useMemo(
    () => geometryOf({ width, height, lanes: lanes.length, length, step, span, scrollX, scrollY }),
    [width, height, lanes.length, length, step, span, scrollX, scrollY],
  );
  // Where lanes come and go, the one on top stays there.
  useLayoutEffect(() => {
    const top = onTop.current;
    const row = top?.track === track.id ? lanes.findIndex(({ key }) => key <= top.key) : -1;
    setScrollY((y) => (y === Infinity || row < 0 ? y : row * g.laneHeight + (y % g.laneHeight)));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only then
  }, [lanes]);
  useEffect(() => {
    const lane = lanes[Math.floor(g.y / g.laneHeight)];
    onTop.current = lane ? { track: track.id, key: lane.key } : null;
  }, [lanes, g, track.id]);
  const { start, length: round } = windowOf(pattern);
  const window = useMemo(() => ({ start, length: round }), [start, round]);
  const gates = useMemo(
    () => ({ id: track.id, mutedPads: track.mutedPads, soloPads: track.soloPads }),
    [track.id, track.mutedPads, track.soloPads],
  );

  const hits = useMemo(() => {
    const { sounding, covered } = passOf(pattern);
    const keyOf = laneKeys(track);
    return { sounding: byLane(sounding, lanes, keyOf), covered: byLane(covered, lanes, keyOf), dense: denseMoments(sounding) }; // prettier-ignore
  }, [pattern, track, lanes]);
  const traced = useMemo(
    () => (trace && tracedTrack && trace !== pattern ? tracedIn(lanes, track, tracedTrack, trace) : null),
    [trace, tracedTrack, pattern, lanes, track],
  );
  const beneath = useMemo(() => traced && wordsBeneath(traced, step, length), [traced, step, length]);
  const selected = useMemo(() => new Set(selectedIds), [selectedIds]);
  const { box, toggle, openStep, handlers } = useCellGestures(g, lanes);

  const paint = (context: CanvasRenderingContext2D) => {
    const picture: StepsPicture = {
      ...{ geometry: g, meter, length, window, selected, box, type, tokens, lanes, hasEnds: selecting },
      ...{ sounding: hits.sounding, covered: hits.covered, trace: traced },
      isHeard: (pad) => isPadHeard(gates, pad),
    };
    drawSteps(context, picture);
  };
  useLayoutEffect(() => {
    if (cells.current) cells.current.scrollTop = g.y;
  }, [g.y]);
  // The cells' names are updated with low priority, and only once scrolling has stopped.
  const named = useRested(
    useMemo(() => ({ lanes, sounding: hits.sounding, beneath, geometry: g }), [lanes, hits, beneath, g]),
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

  const changeVelocity = ({ key }: StepLane, index: number, by: number) => {
    const there = { lane: inLane(track, key), tick: index * step, length: step };
    const ids = new Set(hitsInStep(pattern, there).map((hit) => hit.id));
    const values = pattern.hits
      .filter((hit) => ids.has(hit.id))
      .map((hit): [number, number] => [hit.id, hit.velocity + by]);
    const gesture = `keys ${key} ${index}`;
    if (values.length > 0) edit({ kind: 'values', of: 'velocity', values, over: step }, gesture);
  };

  const cursorKey = cursor && laneKey(track, cursor);
  const cursorLane = lanes.findIndex(({ key }) => key === cursorKey);
  const at =
    cursor && cursorLane >= 0
      ? { lane: cursorLane, index: Math.min(g.count - 1, Math.floor(cursor.tick / step)) }
      : null;
  const onKey = (event: React.KeyboardEvent) => {
    // With these keys the chosen hits are meant, see `useStepKeys`.
    if (event.ctrlKey || event.metaKey || event.altKey || (event.shiftKey && event.key !== 'Enter')) return;
    const from = at ?? { lane: lanes.length - 1, index: g.from };
    const move = MOVES[event.key];
    const here = lanes[from.lane]!;
    if (move) {
      const lane = Math.min(lanes.length - 1, Math.max(0, from.lane + move[0]));
      const index = Math.min(g.count - 1, Math.max(0, from.index + move[1]));
      dispatch(cursorMoved({ ...chosenBy(lanes[lane]!), tick: index * step }));
      if (index < g.from) setScrollX(index * step);
      if (index >= g.from + g.inView) setScrollX((index - g.inView + 1) * step);
      const top = lane * g.laneHeight;
      if (top < g.y) setScrollY(top);
      if (top + g.laneHeight > g.y + height) setScrollY(top + g.laneHeight - height);
    } else if (event.key === 'Enter' && event.shiftKey) openStep(here, from.index);
    else if (event.key === 'Enter' || event.key === ' ') toggle(here, from.index);
    else if (event.key === 'PageUp' || event.key === 'PageDown') {
      changeVelocity(here, from.index, event.key === 'PageUp' ? KEY_VELOCITY_STEP : -KEY_VELOCITY_STEP);
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
          dense={hits.dense}
          onScroll={scrollTime}
          onWindow={onWindow}
        />
      </div>
      <div style={{ ...columnBox, top: RULER_PX, width: labels, height }}>
        <LaneLabels
          lanes={lanes}
          gates={gates}
          laneHeight={g.laneHeight}
          y={g.y}
          chosen={chosenKey}
          roomy={roomy}
          onScroll={scrollLanes}
        />
      </div>
      <div
        role="grid"
        aria-label="Steps"
        aria-multiselectable
        aria-activedescendant={at ? cellId(lanes[at.lane]!.key, at.index) : undefined}
        tabIndex={0}
        style={{ ...cellsBox, top: RULER_PX, left: labels, height, cursor: selecting ? 'crosshair' : 'pointer' }}
        onKeyDown={onKey}
        onFocus={() => {
          setFocused(true);
          if (!cursor) dispatch(cursorMoved({ ...chosenBy(lanes.at(-1)!), tick: g.start }));
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
        <StepCells {...slow} length={length} meter={meter} />
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
        <ValueTools pattern={pattern} lane={chosen} height={TOOLS_PX} roomy={roomy} foldable={low} />
        {valuesShown && <ValueLane pattern={pattern} lane={chosen} geometry={g} labels={labels} />}
        {control && (
          <MovesLane
            pattern={pattern}
            moved={typeof control === 'string' ? { pad: chosen.place.pad, control } : control}
            name={typeof control === 'string' ? chosen.name : track.name}
            geometry={g}
            labels={labels}
            height={MOVES_PX}
          />
        )}
      </div>
    </View>
  );
}

/**
 * The lanes of what is shown: the same list for as long as they are the same lanes. One that has come stays, though its last hit is taken
 * elsewhere: the lanes do not move under the finger that takes it.
 */
function useStepLanes(track: Track, pattern: Pattern, all: boolean): readonly StepLane[] {
  const { slot } = useAppSelector(selectPlace);
  const view = `${track.id} ${slot} ${all}`;
  const [kept, keep] = useState<{ view: string; tones: Tones | undefined; lanes: readonly StepLane[] }>({ view, tones: track.tones, lanes: [] }); // prettier-ignore
  const still = kept.view === view && kept.tones === track.tones ? kept.lanes : NO_LANES;
  const made = useMemo(
    () => stepLanes(track, track.tones ? [...pattern.hits, ...still.map(({ place }) => place)] : [], all),
    [track, pattern, still, all],
  );
  const isSame = still.length === made.length && still.every((lane, i) => isSameLane(lane, made[i]!));
  if (!isSame) keep({ view, tones: track.tones, lanes: made });
  return isSame ? still : made;
}

const NO_LANES: readonly StepLane[] = [];
const isSameLane = (a: StepLane, b: StepLane) =>
  a.key === b.key && a.name === b.name && a.place.pad === b.place.pad && a.place.pitch === b.place.pitch && a.degree === b.degree; // prettier-ignore

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
  // What a mouse has selected in passing would be dragged as text by the next press.
  userSelect: 'none',
  contain: 'strict',
} as const;
const valuesBox = { position: 'absolute', left: 0, right: 0, bottom: 0, display: 'flex', flexDirection: 'column' } as const; // prettier-ignore
const cursorBox = { position: 'absolute', pointerEvents: 'none', boxSizing: 'border-box' } as const;
const pictureBox = { position: 'absolute', left: 0, right: 0 } as const;
const playheadBox = { position: 'absolute', left: -4, pointerEvents: 'none' } as const;

const styles = StyleSheet.create({
  grid: { flex: 1, borderRadius: 12, overflow: 'hidden', minHeight: 0 },
});
