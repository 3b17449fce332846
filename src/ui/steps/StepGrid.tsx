import { useEffect, useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { hitsInStep, stepCount } from '@/core/edit/steps';
import { KITS } from '@/core/model/kits';
import { PADS, type Hit, type Pattern } from '@/core/model/set';
import { passOf, type SoundingHit } from '@/core/sequence/soundingHits';
import { mod, ticksPerBar, ticksPerBeat } from '@/core/time/ticks';
import { CURRENT_TRACK, selectPattern, selectSet, selectTrack } from '@/store/selectors';
import { stepsErased, stepsPainted, velocitiesSet } from '@/store/setSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { deviceOf, KEY_VELOCITY } from '../pads/PadGrid';
import { useInstrument } from '../shared/InstrumentContext';
import { useFrame } from '../shared/useFrame';
import { WingBars } from '../shared/WingBars';
import { useTokens } from '../theme/theme';
import { NUMBERS, WORDS, WORDS_STRONG } from '../theme/tokens';
import { cellId, StepLane } from './StepLane';
import { VelocityLane } from './VelocityLane';

const LABEL_PX = 96;
const RULER_PX = 30;
/** Height of the velocities under the lanes, and the space above them. */
const VALUES_PX = 72;
const VALUES_GAP = 6;
/** Lanes are as high as a finger needs, and higher when there is room. */
const LANE_PX = 44;
/** A press that moves less than this is a tap. */
const TAP_PX = 8;
/** What a Page key changes the velocity of the cell's hit by. */
const KEY_VELOCITY_STEP = 5 / 127;
/** Lanes from the top of the screen: the kick lies at the bottom, as on the pads. */
const LANES = Array.from({ length: PADS }, (_, i) => PADS - 1 - i);
const NO_HITS: readonly SoundingHit[] = [];

interface Props {
  pattern: Pattern;
  /** Step size, ticks. */
  step: number;
  /** Ticks in view. */
  span: number;
  /** The lane whose velocities are shown: the one touched last. */
  pad: number;
  onPad: (pad: number) => void;
}

/**
 * Lanes and steps. A finger on the cells paints and never scrolls; on the labels it scrolls the lanes, on the ruler the
 * time, and never paints.
 */
export function StepGrid({ pattern, step, span, pad: chosen, onPad }: Props) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const { pads } = KITS[useAppSelector(selectTrack).kit];
  const meter = useAppSelector((state) => selectSet(state).meter);
  const playing = useAppSelector((state) => state.session.playing);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [scrollX, setScrollX] = useState(0);
  const [scrollY, setScrollY] = useState(Infinity); // from the kick upwards to begin with
  const [cursor, setCursor] = useState<{ lane: number; index: number } | null>(null);
  const playhead = useRef<HTMLElement | null>(null);

  const shown = Math.min(span, pattern.length);
  const width = Math.max(0, size.width - LABEL_PX);
  const scale = width / shown;
  const lanesHeight = Math.max(0, size.height - RULER_PX - VALUES_PX - VALUES_GAP);
  const laneHeight = Math.max(LANE_PX, Math.floor(lanesHeight / PADS));
  const mostY = Math.max(0, laneHeight * PADS - lanesHeight);
  const y = Math.min(mostY, Math.max(0, scrollY));
  const count = stepCount(pattern.length, step);
  const inView = Math.min(count, Math.ceil(shown / step));
  // Time scrolls by whole steps, so that no cell is cut at the left.
  const from = Math.min(Math.max(0, Math.round(scrollX / step)), Math.max(0, count - inView));

  const lanes = useMemo(() => {
    const { sounding, covered } = passOf(pattern);
    const of = (hits: SoundingHit[]) => {
      const byPad = new Map<number, SoundingHit[]>();
      for (const hit of hits) byPad.set(hit.pad, [...(byPad.get(hit.pad) ?? []), hit]);
      return byPad;
    };
    return { sounding: of(sounding), covered: of(covered) };
  }, [pattern]);

  useFrame((now) => {
    if (!playhead.current) return;
    const { performance } = instrument;
    const tick = playing ? Math.max(0, performance.tickHeard(now)) - performance.loopStart : performance.anchor.tick;
    const x = (mod(tick, pattern.length) - from * step) * scale;
    playhead.current.style.transform = `translateX(${x}px)`;
    playhead.current.style.opacity = x >= 0 && x <= width ? '1' : '0';
  }, playing);
  // Stopped, the picture still moves under the playhead when it is scrolled or zoomed.
  useEffect(() => {
    if (!playhead.current || playing) return;
    const x = (mod(instrument.performance.anchor.tick, pattern.length) - from * step) * scale;
    playhead.current.style.transform = `translateX(${x}px)`;
  });

  // --- painting ---------------------------------------------------------------------------------------------

  const swipe = useRef<{ pad: number; last: number; erase: boolean; gesture: string } | null>(null);
  const cellAt = (event: { clientX: number; clientY: number }, box: DOMRect) => {
    const lane = Math.floor((event.clientY - box.top + y) / laneHeight);
    const index = from + Math.floor((event.clientX - box.left) / scale / step);
    return { lane: Math.min(PADS - 1, Math.max(0, lane)), index: Math.min(count - 1, Math.max(0, index)) };
  };
  /** The pattern as it is now, not as it was drawn last: one swipe touches many steps between two pictures. */
  const touchStep = (pad: number, index: number, erase: boolean, gesture: string) => {
    const now = selectPattern(store.getState());
    if (!now) return;
    const there = hitsInStep(now, { pad, tick: index * step, length: step });
    if (erase && there.length > 0) {
      dispatch(stepsErased({ track: CURRENT_TRACK, ids: there.map((hit) => hit.id), gesture }));
    } else if (!erase && there.length === 0 && !instrument.isFull(CURRENT_TRACK)) {
      const { fixedVelocity } = store.getState().settings;
      const velocity = fixedVelocity.on ? fixedVelocity.value : KEY_VELOCITY;
      const hit: Hit = { id: instrument.nextId(), pad, tick: index * step, length: step / 2, velocity, snap: null };
      dispatch(stepsPainted({ track: CURRENT_TRACK, hits: [hit], gesture }));
    }
  };
  const begin = (lane: number, index: number) => {
    const pad = LANES[lane]!;
    const now = selectPattern(store.getState());
    const erase = now !== null && hitsInStep(now, { pad, tick: index * step, length: step }).length > 0;
    const gesture = `swipe ${++swipes}`;
    touchStep(pad, index, erase, gesture);
    return { pad, last: index, erase, gesture };
  };

  const changeVelocity = (pad: number, index: number, by: number) => {
    const ids = new Set(hitsInStep(pattern, { pad, tick: index * step, length: step }).map((hit) => hit.id));
    const velocities = pattern.hits
      .filter((hit) => ids.has(hit.id))
      .map((hit): [number, number] => [hit.id, Math.min(1, Math.max(1 / 127, hit.velocity + by))]);
    const gesture = `keys ${pad} ${index}`;
    if (velocities.length > 0) dispatch(velocitiesSet({ track: CURRENT_TRACK, velocities, gesture }));
  };

  const onKey = (event: React.KeyboardEvent) => {
    const at = cursor ?? { lane: PADS - 1, index: from };
    const move = MOVES[event.key];
    if (move) {
      const next = {
        lane: Math.min(PADS - 1, Math.max(0, at.lane + move[0])),
        index: Math.min(count - 1, Math.max(0, at.index + move[1])),
      };
      setCursor(next);
      onPad(LANES[next.lane]!);
      if (next.index < from) setScrollX(next.index * step);
      if (next.index >= from + inView) setScrollX((next.index - inView + 1) * step);
      const top = next.lane * laneHeight;
      if (top < y) setScrollY(top);
      if (top + laneHeight > y + lanesHeight) setScrollY(top + laneHeight - lanesHeight);
    } else if (event.key === 'Enter' || event.key === ' ') {
      begin(at.lane, at.index);
    } else if (event.key === 'PageUp' || event.key === 'PageDown') {
      changeVelocity(LANES[at.lane]!, at.index, event.key === 'PageUp' ? KEY_VELOCITY_STEP : -KEY_VELOCITY_STEP);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };

  // --- scrolling --------------------------------------------------------------------------------------------

  const drag = useRef<{ x: number; y: number; from: number; moved: boolean; pad: number | null } | null>(null);
  const bars = Array.from({ length: inView }, (_, i) => (from + i) * step).filter(
    (tick) => tick % (scale * ticksPerBeat(meter) > 34 ? ticksPerBeat(meter) : ticksPerBar(meter)) === 0,
  );

  return (
    <View
      style={[styles.grid, { backgroundColor: tokens.deep }]}
      onLayout={({ nativeEvent: { layout } }) => setSize({ width: layout.width, height: layout.height })}
    >
      <div
        aria-hidden
        style={{ ...rulerBox, height: RULER_PX, left: LABEL_PX }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drag.current = { x: event.clientX, y: 0, from: from * step, moved: false, pad: null };
        }}
        onPointerMove={(event) => {
          if (drag.current) setScrollX(drag.current.from - (event.clientX - drag.current.x) / scale);
        }}
        onPointerUp={() => (drag.current = null)}
        onPointerCancel={() => (drag.current = null)}
      >
        {bars.map((tick) => (
          <Text key={tick} style={[styles.rulerText, { color: tokens.cap, left: (tick - from * step) * scale + 4 }]}>
            {Math.floor(tick / ticksPerBar(meter)) + 1}.
            {Math.floor(mod(tick, ticksPerBar(meter)) / ticksPerBeat(meter)) + 1}
          </Text>
        ))}
      </div>
      <div style={{ ...columnBox, top: RULER_PX, width: LABEL_PX, height: lanesHeight }}>
        <div style={{ transform: `translateY(${-y}px)`, willChange: 'transform' }}>
          {LANES.map((pad) => (
            <div
              key={pad}
              role="button"
              tabIndex={0}
              aria-label={`Hear ${pads[pad]!.name}`}
              style={{ height: laneHeight, display: 'flex', alignItems: 'center', touchAction: 'none', cursor: 'grab' }}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                instrument.padDown(pad, KEY_VELOCITY, event.timeStamp, deviceOf(event));
                onPad(pad);
                drag.current = { x: 0, y: event.clientY, from: y, moved: false, pad };
              }}
              onPointerMove={(event) => {
                const d = drag.current;
                if (!d) return;
                if (Math.abs(event.clientY - d.y) > TAP_PX) d.moved = true;
                if (d.moved) setScrollY(d.from - (event.clientY - d.y));
              }}
              onPointerUp={(event) => {
                drag.current = null;
                instrument.padUp(pad, event.timeStamp, deviceOf(event));
              }}
              onPointerCancel={(event) => {
                drag.current = null;
                instrument.padUp(pad, event.timeStamp, deviceOf(event));
              }}
              onKeyDown={(event) => {
                if (event.repeat || (event.key !== 'Enter' && event.key !== ' ')) return;
                event.preventDefault();
                instrument.padDown(pad, KEY_VELOCITY, event.timeStamp, 'keys');
                instrument.padUp(pad, event.timeStamp, 'keys');
              }}
            >
              <Text numberOfLines={1} style={[styles.label, { color: tokens.wing }]}>
                {pads[pad]!.name}
              </Text>
            </div>
          ))}
        </div>
      </div>
      <div
        role="grid"
        aria-label="Steps"
        aria-activedescendant={cursor ? cellId(LANES[cursor.lane]!, cursor.index) : undefined}
        tabIndex={0}
        style={{ ...cellsBox, top: RULER_PX, left: LABEL_PX, height: lanesHeight }}
        onKeyDown={onKey}
        onFocus={() => setCursor((at) => at ?? { lane: PADS - 1, index: from })}
        onWheel={(event) => {
          if (event.deltaX !== 0 || event.shiftKey) setScrollX(from * step + (event.deltaX || event.deltaY) / scale);
          else setScrollY(y + event.deltaY);
        }}
        onPointerDown={(event) => {
          if (event.pointerType === 'mouse' && event.button !== 0) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          const { lane, index } = cellAt(event, event.currentTarget.getBoundingClientRect());
          setCursor({ lane, index });
          onPad(LANES[lane]!);
          swipe.current = begin(lane, index);
        }}
        onPointerMove={(event) => {
          const s = swipe.current;
          if (!s) return;
          const { index } = cellAt(event, event.currentTarget.getBoundingClientRect());
          // A fast finger leaps over steps: all between are touched too.
          const way = Math.sign(index - s.last);
          while (s.last !== index) touchStep(s.pad, (s.last += way), s.erase, s.gesture);
        }}
        onPointerUp={() => (swipe.current = null)}
        onPointerCancel={() => (swipe.current = null)}
      >
        <div style={{ transform: `translateY(${-y}px)`, willChange: 'transform' }}>
          {LANES.map((pad) => (
            <StepLane
              key={pad}
              pad={pad}
              name={pads[pad]!.name}
              hits={lanes.sounding.get(pad) ?? NO_HITS}
              covered={lanes.covered.get(pad) ?? NO_HITS}
              from={from}
              count={inView}
              step={step}
              length={pattern.length}
              scale={scale}
              height={laneHeight}
              meter={meter}
              tokens={tokens}
            />
          ))}
          {cursor && (
            <div
              style={{
                position: 'absolute',
                pointerEvents: 'none',
                boxSizing: 'border-box',
                left: (cursor.index - from) * step * scale,
                width: step * scale,
                top: cursor.lane * laneHeight,
                height: laneHeight,
                border: `2px solid ${tokens.breast}`,
              }}
            />
          )}
        </div>
        <div ref={(node) => void (playhead.current = node)} style={playheadBox}>
          <WingBars color={tokens.wing} height="100%" slant={0.6} />
        </div>
      </div>
      <div style={{ ...valuesBox, height: VALUES_PX }}>
        <div style={{ width: LABEL_PX, display: 'flex', flexDirection: 'column', justifyContent: 'center' }}>
          <Text style={[styles.caption, { color: tokens.cap }]}>Velocity</Text>
          <Text numberOfLines={1} style={[styles.label, { color: tokens.wing }]}>
            {pads[chosen]!.name}
          </Text>
        </div>
        <div style={{ width }}>
          <VelocityLane
            pad={chosen}
            name={pads[chosen]!.name}
            start={from * step}
            span={shown}
            scale={scale}
            height={VALUES_PX}
            tokens={tokens}
          />
        </div>
      </div>
    </View>
  );
}

let swipes = 0;
const MOVES: Record<string, readonly [lanes: number, steps: number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

const rulerBox = { position: 'absolute', top: 0, right: 0, overflow: 'hidden', touchAction: 'none', cursor: 'grab' } as const; // prettier-ignore
const columnBox = { position: 'absolute', left: 0, overflow: 'hidden', touchAction: 'none' } as const;
const cellsBox = { position: 'absolute', right: 0, overflow: 'hidden', touchAction: 'none', cursor: 'pointer' } as const; // prettier-ignore
const valuesBox = { position: 'absolute', left: 0, right: 0, bottom: 0, display: 'flex' } as const;
const playheadBox = { position: 'absolute', top: 0, bottom: 0, left: -4, pointerEvents: 'none' } as const;

const styles = StyleSheet.create({
  grid: { flex: 1, borderRadius: 12, overflow: 'hidden', minHeight: 0 },
  rulerText: { position: 'absolute', top: 6, fontFamily: NUMBERS, fontSize: 12, lineHeight: 18, userSelect: 'none' },
  caption: { fontFamily: WORDS, fontSize: 14, lineHeight: 16, paddingHorizontal: 10, userSelect: 'none' },
  label: { fontFamily: WORDS_STRONG, fontSize: 17, lineHeight: 21, paddingHorizontal: 10, userSelect: 'none' },
});
