import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { ticksPerBar } from '@/core/time/ticks';
import type { OpenedRun } from '@/instrument/openedRun';
import { useFrame } from '../shared/useFrame';
import { useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { drawScore, planScore, type ScorePicture } from './drawScore';
import type { RunDesk } from './useRunDesk';
import { lineOf } from './scoreLines';
import type { ScoreView } from './scoreView';
import { useScoreGestures, type Gesture } from './useScoreGestures';
import { useScoreKeys } from './useScoreKeys';

const HELP = 'Arrow keys move the cursor, Page Up and Page Down go from section to section, plus and minus zoom.';
const FIX_HELP =
  ' Enter chooses the block at the cursor, Shift with an arrow key moves what is chosen, Delete takes it away.';

/** A run's tracks over its time, large: blocks, what hands struck, sections above and one line below. */
export function RunTimeline({ opened, view, desk }: { opened: OpenedRun; view: ScoreView; desk: RunDesk }) {
  const tokens = useTokens();
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { type } = useRoom();
  const [room, setRoom] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = box.current!;
    const measure = () => setRoom({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const gestureRef = useRef<Gesture | null>(null);
  /** What is to be drawn now. */
  const picture = (): ScorePicture => {
    const { score } = opened;
    const row = Math.min(desk.row, score.tracks.length - 1);
    const track = score.tracks[row]!;
    const line = lineOf(score, track, desk.line);
    const going = gestureRef.current;
    return {
      plan: planScore(room.width, room.height, score.tracks.length, type),
      score,
      from: view.from,
      to: view.to,
      row,
      line: going?.kind === 'draw' ? { ...line, kind: 'steps', points: going.steps } : line,
      chosen: desk.chosen,
      stretch: going?.kind === 'stretch' ? going.stretch : desk.stretch,
      cursor: desk.cursor,
      now: opened.tick,
      dragged: going?.kind === 'move' ? going.dragged : null,
      tokens,
    };
  };
  const draw = () => {
    const context = canvas.current?.getContext('2d');
    if (!context || room.width === 0) return;
    const ratio = window.devicePixelRatio || 1;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    const now = opened.tick;
    if (now !== null && desk.follows && !gestureRef.current) view.reveal(now);
    drawScore(context, picture());
  };
  useFrame(draw, opened.isHeard);
  const latest = useRef(draw);
  useEffect(() => {
    latest.current = draw;
  });
  const again = useRef(0);
  const redraw = useCallback(() => {
    cancelAnimationFrame(again.current);
    again.current = requestAnimationFrame(() => latest.current());
  }, []);
  useEffect(() => view.subscribe(redraw), [view, redraw]);
  const handlers = useScoreGestures({ box, picture, gestureRef, redraw, opened, view, desk });
  const keys = useScoreKeys({ opened, view, desk });
  const ratio = globalThis.devicePixelRatio || 1;
  const bar = ticksPerBar(opened.score.meter);
  return (
    <div
      ref={box}
      role="application"
      tabIndex={0}
      aria-label="Timeline"
      aria-description={`${desk.words} Bar ${Math.floor(desk.cursor / bar) + 1}. ${HELP}${desk.fixing ? FIX_HELP : ''}`}
      {...handlers}
      onKeyDown={keys}
      style={{
        position: 'relative',
        flex: 1,
        minHeight: 0,
        touchAction: 'none',
        overflow: 'hidden',
        userSelect: 'none',
      }}
    >
      <canvas
        ref={canvas}
        aria-hidden
        width={Math.round(room.width * ratio)}
        height={Math.round(room.height * ratio)}
        style={{ position: 'absolute', left: 0, top: 0, width: room.width, height: room.height }}
      />
    </div>
  );
}
