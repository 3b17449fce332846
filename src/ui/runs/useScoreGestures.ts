import { useEffect, useRef, type MutableRefObject, type PointerEvent, type RefObject } from 'react';
import type { Stretch } from '@/core/score/make';
import type { Step } from '@/core/score/score';
import type { OpenedRun } from '@/instrument/openedRun';
import type { ScorePicture } from './drawScore';
import { drawFix } from './scoreLines';
import { drawnTo, snapped, tickAt, touchedAt, valueAt, type Touched } from './scoreTouch';
import type { ScoreView } from './scoreView';
import { chosenBlocks, chosenHits, snapTicks, type RunDesk } from './useRunDesk';

/** What a finger is doing. */
export type Gesture =
  | { kind: 'scroll'; touched: Touched }
  | { kind: 'stretch'; stretch: Stretch; start: number }
  | { kind: 'draw'; steps: readonly Step[] }
  | { kind: 'move'; start: number; startRow: number; dragged: NonNullable<ScorePicture['dragged']> };

interface Options {
  box: RefObject<HTMLElement | null>;
  picture: () => ScorePicture;
  gestureRef: MutableRefObject<Gesture | null>;
  redraw: () => void;
  opened: OpenedRun;
  view: ScoreView;
  desk: RunDesk;
}

/** Nearer than this to where it came down a finger has touched, and not dragged, px. */
const TOUCH_PX = 6;

interface Finger {
  x: number;
  y: number;
  startX: number;
  startY: number;
}

/**
 * Fingers on the timeline: one scrolls, two zoom, on the ruler one marks a stretch. While the run is being fixed one moves what is
 * chosen, drags its ends, and draws the line.
 */
export function useScoreGestures({ box, picture, gestureRef, redraw, opened, view, desk }: Options) {
  const fingers = useRef(new Map<number, Finger>());
  const at = (event: { clientX: number; clientY: number }) => {
    const { left, top } = box.current!.getBoundingClientRect();
    return { x: event.clientX - left, y: event.clientY - top };
  };
  // Chromium listens to the wheel passively where React does it.
  useEffect(() => {
    const element = box.current!;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const { x } = at(event);
      if (event.ctrlKey || event.metaKey) view.zoom(Math.exp(event.deltaY * 0.005), tickAt(picture(), x));
      else view.scroll(((event.deltaX || event.deltaY) / element.clientWidth) * view.span);
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  });

  const begin = (x: number, y: number): Gesture => {
    const seen = picture();
    const touched = touchedAt(seen, x, y);
    const step = snapTicks(desk.snap, seen.score);
    if (touched.kind === 'ruler') {
      const start = snapped(touched.tick, step);
      return { kind: 'stretch', start, stretch: { from: start, to: start } };
    }
    if (!desk.fixing) return { kind: 'scroll', touched };
    if (touched.kind === 'line')
      return { kind: 'draw', steps: [{ tick: Math.max(0, touched.tick), value: touched.value }] };
    if (touched.kind === 'hit' && desk.chosen.has(touched.hit.id)) {
      return { kind: 'move', start: touched.tick, startRow: touched.row, dragged: { ids: desk.chosen, by: 0, rows: 0, grows: null } }; // prettier-ignore
    }
    if (touched.kind === 'block' && desk.chosen.has(touched.block.id)) {
      const ids = touched.edge ? new Set([touched.block.id]) : desk.chosen;
      return { kind: 'move', start: touched.tick, startRow: touched.row, dragged: { ids, by: 0, rows: 0, grows: touched.edge } }; // prettier-ignore
    }
    return { kind: 'scroll', touched };
  };

  const move = (going: Gesture, from: Finger, x: number, y: number): Gesture => {
    const seen = picture();
    const { score, plan } = seen;
    const step = snapTicks(desk.snap, score);
    const tick = tickAt(seen, x);
    switch (going.kind) {
      case 'scroll':
        view.scroll(((from.x - x) / (plan.width - plan.names)) * view.span);
        return going;
      case 'stretch': {
        const end = Math.min(score.length, Math.max(0, snapped(tick, step)));
        return { ...going, stretch: { from: Math.min(going.start, end), to: Math.max(going.start, end) } };
      }
      case 'draw':
        return { ...going, steps: drawnTo(going.steps, Math.max(0, tick), valueAt(seen, y)) };
      case 'move': {
        const { dragged } = going;
        const rows = dragged.grows ? 0 : Math.round((y - from.startY) / plan.rowHeight);
        const by = snappedMove(tick - going.start, step);
        return { ...going, dragged: { ...dragged, by, rows } };
      }
    }
  };

  const finish = (going: Gesture, touched: boolean) => {
    const { score } = opened;
    if (touched && going.kind === 'scroll') return touch(going.touched);
    if (going.kind === 'stretch') {
      const { from, to } = going.stretch;
      if (to > from) desk.set({ stretch: going.stretch, cursor: from });
      else jump(going.start);
    } else if (going.kind === 'draw') {
      const track = score.tracks[desk.row]!;
      const [first, last] = [going.steps[0]!.tick, going.steps.at(-1)!.tick];
      opened.fix(drawFix(desk.line, track.id, first, Math.max(first + 1, last), going.steps));
    } else if (going.kind === 'move' && (going.dragged.by !== 0 || going.dragged.rows !== 0)) {
      const { by, rows, grows } = going.dragged;
      const blocks = chosenBlocks(score, going.dragged.ids);
      const hits = chosenHits(score, going.dragged.ids);
      const [one] = blocks;
      if (grows && one) {
        const { from, length, id } = one.block;
        const changed = grows === 'to' ? { from, length: length + by } : { from: from + by, length: length - by };
        if (changed.length > 0) opened.fix({ type: 'boundBlock', block: id, ...changed });
      } else if (blocks.length > 0)
        opened.fix({ type: 'moveBlocks', blocks: blocks.map(({ block }) => block.id), by, rows });
      if (hits.length > 0 && by !== 0) opened.fix({ type: 'moveHits', hits, by });
    }
  };

  /** What was touched without being dragged. */
  const touch = (touched: Touched) => {
    if (touched.kind === 'name') desk.set({ row: touched.row });
    else if (touched.kind === 'block' || touched.kind === 'hit') {
      if (desk.fixing) {
        const id = touched.kind === 'block' ? touched.block.id : touched.hit.id;
        const chosen = new Set(desk.chosen);
        if (!chosen.delete(id)) chosen.add(id);
        desk.set({ row: touched.row, chosen });
      } else {
        desk.set({ row: touched.row });
        jump(touched.tick);
      }
    } else if (touched.kind !== 'ruler') {
      desk.set({ chosen: new Set(), ...(touched.kind === 'row' && touched.row >= 0 && { row: touched.row }) });
      jump(touched.tick);
    }
  };

  const jump = (tick: number) => desk.jump(snapped(Math.max(0, tick), snapTicks(desk.snap, opened.score)));

  const lift = (event: PointerEvent, cancelled: boolean) => {
    const finger = fingers.current.get(event.pointerId);
    if (!finger) return;
    fingers.current.delete(event.pointerId);
    const going = gestureRef.current;
    gestureRef.current = null;
    if (going && !cancelled) {
      const away = Math.hypot(finger.x - finger.startX, finger.y - finger.startY);
      finish(going, away < TOUCH_PX);
    }
    redraw();
  };

  return {
    onPointerDown: (event: PointerEvent) => {
      if (event.button !== 0) return;
      box.current!.setPointerCapture(event.pointerId);
      const { x, y } = at(event);
      fingers.current.set(event.pointerId, { x, y, startX: x, startY: y });
      // A second finger zooms: what the first one did was not meant.
      gestureRef.current = fingers.current.size === 1 ? begin(x, y) : null;
    },
    onPointerMove: (event: PointerEvent) => {
      const finger = fingers.current.get(event.pointerId);
      if (!finger) return;
      const { x, y } = at(event);
      const others = [...fingers.current.entries()].filter(([id]) => id !== event.pointerId);
      const [other] = others;
      if (other) {
        const before = Math.abs(finger.x - other[1].x);
        const now = Math.abs(x - other[1].x);
        if (before > 8 && now > 8) view.zoom(before / now, tickAt(picture(), (x + other[1].x) / 2));
      } else if (gestureRef.current) {
        const away = Math.hypot(x - finger.startX, y - finger.startY);
        if (gestureRef.current.kind !== 'scroll' || away >= TOUCH_PX)
          gestureRef.current = move(gestureRef.current, finger, x, y);
      }
      Object.assign(finger, { x, y });
      redraw();
    },
    onPointerUp: (event: PointerEvent) => lift(event, false),
    onPointerCancel: (event: PointerEvent) => lift(event, true),
  };
}

/** By how much something is moved: in whole steps, so that what lies off the grid stays as far off it. */
function snappedMove(by: number, step: number): number {
  return step > 0 ? Math.round(by / step) * step : Math.round(by);
}
