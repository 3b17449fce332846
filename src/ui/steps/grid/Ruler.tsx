import { memo } from 'react';
import { Text } from 'react-native-paper';
import { StyleSheet } from 'react-native';
import type { DenseMoment } from '@/core/edit/density';
import { stepWords } from '@/core/edit/steps';
import { mod, ticksPerBar, ticksPerBeat, type Meter } from '@/core/time/ticks';
import { gestureName, useDrag } from '../../shared/useDrag';
import { useTokens } from '../../theme/theme';
import { NUMBERS } from '../../theme/tokens';
import { grown } from '../../theme/type';
import { RULER_PX, xOf, type Geometry } from '../geometry';
import type { LoopWindow } from '@/core/document/pattern';
import { SHORTEST_LOOP } from '@/core/document/limits';

interface Props {
  geometry: Geometry;
  meter: Meter;
  /** Ticks of the pattern. */
  length: number;
  window: LoopWindow;
  dense: readonly DenseMoment[];
  /** Ticks from which the view is to begin. */
  onScroll: (tick: number) => void;
  /** `gesture` is the same for all changes of one drag. */
  onWindow: (window: LoopWindow, gesture: string) => void;
}

const GRIP_PX = 44;
const BRACKET_PX = 20;

interface Drag {
  kind: 'scroll' | 'window' | 'start' | 'end';
  /** As they were when it began: tick at the left edge, and the loop window. */
  start: number;
  window: LoopWindow;
  gesture: string;
}

/**
 * Bars and beats, and the loop window as a bracket with two grips beneath them. A finger on the numbers scrolls; on a grip
 * it moves that end, on the bracket between them the whole window.
 */
export const Ruler = memo(function Ruler({ geometry: g, meter, length, window, dense, onScroll, onWindow }: Props) {
  const tokens = useTokens();
  const windowed = window.length < length;
  const [bar, beat] = [ticksPerBar(meter), ticksPerBeat(meter)];
  const every = g.scale * beat > 34 ? beat : bar * Math.max(1, Math.ceil(30 / (g.scale * bar)));
  const numbers: number[] = [];
  for (let tick = Math.ceil(g.start / every) * every; tick < Math.min(length, g.start + g.span); tick += every) numbers.push(tick); // prettier-ignore
  const end = window.start + window.length;
  const snapped = (ticks: number) => Math.round(ticks / g.step) * g.step;

  const dragging = useDrag<Drag, Drag['kind']>({
    begin: (_, kind) => ({ kind, start: g.start, window, gesture: gestureName('window') }),
    move: ({ dx }, drag) => {
      const ticks = dx / g.scale;
      if (drag.kind === 'scroll') return onScroll(drag.start - ticks);
      const next = change(drag.kind, drag.window, snapped(ticks));
      if (next.start !== window.start || next.length !== window.length) onWindow(next, drag.gesture);
    },
  });
  /** One end moved, or both, kept within the pattern. */
  const change = (kind: Drag['kind'], from: LoopWindow, by: number): LoopWindow => {
    const last = from.start + from.length;
    if (kind === 'start') {
      const start = Math.min(last - SHORTEST_LOOP, Math.max(0, from.start + by));
      return { start, length: last - start };
    }
    if (kind === 'end') {
      return { start: from.start, length: Math.min(length - from.start, Math.max(SHORTEST_LOOP, from.length + by)) };
    }
    return { start: Math.min(length - from.length, Math.max(0, from.start + by)), length: from.length };
  };
  const grip = (kind: 'start' | 'end', tick: number) => (
    <div
      role="slider"
      tabIndex={0}
      aria-label={kind === 'start' ? 'Loop start' : 'Loop end'}
      aria-valuemin={0}
      aria-valuemax={length}
      aria-valuenow={tick}
      aria-valuetext={kind === 'start' ? stepWords(tick, g.step, meter) : `before ${stepWords(tick, g.step, meter)}`}
      {...dragging(kind)}
      onKeyDown={(event) => {
        const steps = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
        if (steps === 0) return;
        event.preventDefault();
        event.stopPropagation();
        onWindow(change(kind, window, steps * g.step), gestureName('window'));
      }}
      style={{
        ...gripBox,
        left: Math.min(g.width - GRIP_PX / 2, Math.max(-GRIP_PX / 2, xOf(g, tick) - GRIP_PX / 2)),
        opacity: tick < g.start || tick > g.start + g.span ? 0.35 : 1,
      }}
    >
      <div
        style={{
          ...gripMark,
          background: windowed ? tokens.wing : tokens.cap,
          [kind === 'start' ? 'left' : 'right']: GRIP_PX / 2,
        }}
      />
    </div>
  );
  const left = Math.max(0, xOf(g, window.start));
  const right = Math.min(g.width, xOf(g, end));
  return (
    <div
      aria-label={dense.length > 0 ? denseWords(dense, g.step, meter) : undefined}
      role={dense.length > 0 ? 'note' : undefined}
      style={{ ...box, height: RULER_PX }}
      {...dragging('scroll')}
    >
      {numbers.map((tick) => (
        <Text key={tick} aria-hidden style={[styles.number, { color: tokens.cap, left: xOf(g, tick) + 4 }]}>
          {Math.floor(tick / bar) + 1}.{Math.floor(mod(tick, bar) / beat) + 1}
        </Text>
      ))}
      {dense
        .filter(({ tick }) => tick >= g.start && tick < g.start + g.span)
        .map(({ tick, sounds }) => (
          <div key={tick} aria-hidden style={{ ...denseMark, left: xOf(g, tick), color: tokens.wing }}>
            {sounds}
          </div>
        ))}
      <div
        {...dragging(windowed ? 'window' : 'scroll')}
        style={{ ...bracketBox, left, width: Math.max(0, right - left) }}
      >
        <div style={{ ...bracketLine, background: windowed ? tokens.wing : tokens.rule }} />
      </div>
      {grip('start', window.start)}
      {grip('end', end)}
    </div>
  );
}, isSame);

/** Whether both draw the same: the list of dense moments is a new one after every change of the pattern. */
function isSame({ dense: before, ...a }: Props, { dense, ...b }: Props): boolean {
  return (
    before.length === dense.length &&
    before.every(({ tick, sounds }, i) => dense[i]!.tick === tick && dense[i]!.sounds === sounds) &&
    (Object.keys(a) as (keyof typeof a)[]).every((key) => a[key] === b[key])
  );
}

/** Where many sounds fall together, in words. */
function denseWords(dense: readonly DenseMoment[], step: number, meter: Meter): string {
  return `Dense: ${dense.map(({ tick, sounds }) => `${stepWords(tick, step, meter)}, ${sounds} sounds`).join('; ')}`;
}

const box = { position: 'absolute', top: 0, left: 0, right: 0, overflow: 'hidden', touchAction: 'none', cursor: 'grab' } as const; // prettier-ignore
const bracketBox = { position: 'absolute', bottom: 0, height: BRACKET_PX, touchAction: 'none' } as const;
const bracketLine = { position: 'absolute', left: 0, right: 0, bottom: 4, height: 2 } as const;
const gripBox = { position: 'absolute', bottom: 0, width: GRIP_PX, height: GRIP_PX, touchAction: 'none', cursor: 'ew-resize' } as const; // prettier-ignore
const gripMark = {
  position: 'absolute',
  bottom: 4,
  width: 8,
  height: 20,
  borderRadius: 1,
  transform: 'skewX(-10deg)',
} as const;
const denseMark = { position: 'absolute', top: 20, paddingLeft: 3, font: `10px ${NUMBERS}`, pointerEvents: 'none' } as const; // prettier-ignore

const styles = StyleSheet.create({
  number: {
    position: 'absolute',
    top: 2,
    fontFamily: NUMBERS,
    fontSize: grown(12),
    lineHeight: 18,
    userSelect: 'none',
  },
});
