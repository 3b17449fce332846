import { usePatternEdit } from '../../shared/usePatternEdit';
import { useEffect, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { hitsInStep } from '@/core/edit/steps';
import { passOf } from '@/core/sequence/soundingHits';
import { selectPattern, selectTrack } from '@/store/selectors';
import { sheetShown } from '@/store/sessionSlice';
import { cursorMoved, hitOpened, hitsSelected, hitToggled, selectNoteStep, selectSelected } from '@/store/stepsSlice';
import type { Store } from '@/store/store';
import { KEY_VELOCITY } from '../../pads/PadGrid';
import { useInstrument } from '../../shared/InstrumentContext';
import { gestureName } from '../../shared/useDrag';
import { cellAt, tickAtX, xOf, type Geometry } from '../geometry';
import { chosenBy, inLane, laneKeys, type StepLane } from '@/core/document/stepLanes';
import { hitOn, type Hit } from '@/core/document/hit';
import { dragged, type Drag } from '@/core/edit/drag';
import type { Pattern } from '@/core/document/pattern';
import type { SoundingHit } from '@/core/sequence/soundingHits';

/** A finger held this long on a step opens it. */
const LONG_MS = 450;
/** A press that moves less than this is a tap. */
const TAP_PX = 8;
/** A tap this near means a hit. */
const REACH_PX = 14;

type Box = { x: number; y: number; width: number; height: number };

type Gesture =
  | { kind: 'paint'; lane: StepLane; last: number; erase: boolean; pending: boolean; name: string }
  | { kind: 'box'; x: number; y: number }
  | Taken;

/** Chosen hits follow the finger, or their ends do: the one that it has taken hold of, and all as they were. */
interface Taken {
  kind: 'move' | 'stretch';
  x: number;
  y: number;
  hit: SoundingHit;
  /** The lanes as they were, and which of them it is in. */
  lanes: readonly StepLane[];
  row: number;
  ids: readonly number[];
  before: Pattern;
  free: boolean;
  moved: boolean;
  name: string;
}

/**
 * What a finger does on the cells. It paints (or, begun on a filled step, erases) along its lane and never scrolls; held on a
 * step it opens it; while choosing, it draws a box around hits, or takes the chosen ones along, or the ends of chosen notes.
 */
export function useCellGestures(geometry: Geometry, lanes: readonly StepLane[]) {
  const store = useStore() as Store;
  const instrument = useInstrument();
  /** What each finger is at, and the timers of those that may be opening a step, by their pointers. */
  const fingers = useRef(new Map<number, Gesture>());
  const holds = useRef(new Map<number, ReturnType<typeof setTimeout>>());
  const [box, setBox] = useState<Box | null>(null);
  useEffect(() => {
    const timers = holds.current;
    return () => timers.forEach(clearTimeout);
  }, []);

  const edit = usePatternEdit();

  /** The pattern as it is now, not as it was drawn last: one swipe touches many steps between two pictures. */
  const inStep = ({ key }: StepLane, index: number) => {
    const state = store.getState();
    const { step } = geometry;
    return hitsInStep(selectPattern(state), { lane: inLane(selectTrack(state), key), tick: index * step, length: step }); // prettier-ignore
  };

  /** Fills a step, or empties it. */
  const touch = (lane: StepLane, index: number, erase: boolean, name: string) => {
    const there = inStep(lane, index);
    if (erase && there.length > 0) edit({ kind: 'erase', ids: there.map((hit) => hit.id) }, name);
    if (erase || there.length > 0 || instrument.isFull(instrument.placeOf(name))) return;
    const { fixedVelocity } = store.getState().settings;
    const velocity = fixedVelocity.on ? fixedVelocity.value : KEY_VELOCITY;
    const { step } = geometry;
    const { pad } = lane.place;
    const hit: Hit = { id: instrument.nextId(), pad, tick: index * step, length: step / 2, velocity, snap: null };
    edit({ kind: 'paint', hits: [hitOn(hit, lane.place)] }, name);
  };

  const toggle = (lane: StepLane, index: number) =>
    touch(lane, index, inStep(lane, index).length > 0, gestureName('swipe'));

  /** Opens the hit of a step in its sheet. */
  const openStep = (lane: StepLane, index: number) => {
    const [hit] = inStep(lane, index);
    if (!hit) return;
    store.dispatch(hitOpened(hit.id));
    store.dispatch(sheetShown('step'));
  };

  /** The hit under a finger, and whether that has its end: near its quill or, of a note, anywhere along it. */
  const hitAt = (x: number, y: number): { hit: SoundingHit; isEnd: boolean } | null => {
    const state = store.getState();
    const track = selectTrack(state);
    const isHere = inLane(track, lanes[cellAt(geometry, x, y).lane]!.key);
    const { sounding, covered } = passOf(selectPattern(state));
    const near = [...sounding, ...covered].filter(isHere).map((hit) => {
      const start = xOf(geometry, hit.struck) + 4;
      const end = xOf(geometry, hit.struck + hit.length);
      const toStart = Math.abs(start - x);
      const toEnd = track.tones ? Math.abs(end - x) : Infinity;
      const isWithin = track.tones !== undefined && x >= start && x <= end;
      return {
        hit,
        isEnd: toEnd < toStart && toEnd <= REACH_PX,
        off: isWithin ? 0 : Math.min(toStart, toEnd),
        toStart,
      };
    });
    const [best] = near.sort((a, b) => a.off - b.off || a.toStart - b.toStart);
    return best && best.off <= REACH_PX ? best : null;
  };

  const select = ({ x, y, width, height }: Box) => {
    const state = store.getState();
    const keyOf = laneKeys(selectTrack(state));
    const [top, bottom] = [cellAt(geometry, x, y).lane, cellAt(geometry, x, y + height).lane];
    const keys = new Set(lanes.slice(top, bottom + 1).map(({ key }) => key));
    const [from, to] = [tickAtX(geometry, x - 4), tickAtX(geometry, x + width - 4)];
    const { sounding, covered } = passOf(selectPattern(state));
    const inside = [...sounding, ...covered].filter((h) => keys.has(keyOf(h)) && h.struck >= from && h.struck < to);
    store.dispatch(hitsSelected(inside.map((hit) => hit.id)));
  };

  const at = (event: React.PointerEvent) => {
    const { left, top } = event.currentTarget.getBoundingClientRect();
    // The browser has scrolled, and the lanes are not drawn again yet: the scroll position is read from the element.
    const ahead = event.currentTarget.scrollTop - geometry.y;
    return { x: event.clientX - left, y: event.clientY - top + ahead };
  };

  const onPointerDown = (event: React.PointerEvent) => {
    if (event.pointerType === 'mouse' && event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const { x, y } = at(event);
    const { lane: row, index } = cellAt(geometry, x, y);
    const lane = lanes[row]!;
    const state = store.getState();
    const { selecting } = state.steps;
    store.dispatch(cursorMoved({ ...chosenBy(lane), tick: index * geometry.step }));
    if (selecting || event.shiftKey) {
      const ids = selectSelected(state);
      const found = hitAt(x, y);
      const taken = found && ids.includes(found.hit.id);
      const kind = found?.isEnd ? 'stretch' : 'move';
      fingers.current.set(
        event.pointerId,
        taken
          ? { kind, x, y, hit: found.hit, lanes, row, ids, before: selectPattern(state), free: event.altKey, moved: false, name: gestureName(kind) } // prettier-ignore
          : { kind: 'box', x, y },
      );
      return;
    }
    const name = gestureName('swipe');
    const erase = inStep(lane, index).length > 0;
    // A filled step is emptied on release: the finger may stay, which opens the step.
    fingers.current.set(event.pointerId, { kind: 'paint', lane, last: index, erase, pending: erase, name });
    if (!erase) touch(lane, index, false, name);
    const { pointerId } = event;
    const opening = setTimeout(() => {
      const now = fingers.current.get(pointerId);
      if (now?.kind !== 'paint' || now.last !== index || (now.erase && !now.pending)) return;
      fingers.current.delete(pointerId);
      openStep(lane, index);
    }, LONG_MS);
    holds.current.set(pointerId, opening);
  };

  /** A finger is up: returns and removes its gesture. */
  const lift = ({ pointerId }: React.PointerEvent): Gesture | undefined => {
    clearTimeout(holds.current.get(pointerId));
    holds.current.delete(pointerId);
    const gesture = fingers.current.get(pointerId);
    fingers.current.delete(pointerId);
    if (gesture?.kind === 'box') setBox(null);
    return gesture;
  };

  const onPointerMove = (event: React.PointerEvent) => {
    const now = fingers.current.get(event.pointerId);
    if (!now) return;
    const { x, y } = at(event);
    if (now.kind === 'box') {
      const [left, top] = [Math.min(x, now.x), Math.min(y, now.y)];
      const next = { x: left, y: top, width: Math.abs(x - now.x), height: Math.abs(y - now.y) };
      setBox(next);
      return select(next);
    }
    if (now.kind !== 'paint') return take(now, x, y);
    const { index } = cellAt(geometry, x, y);
    if (index === now.last) return;
    if (now.pending) {
      now.pending = false;
      touch(now.lane, now.last, true, now.name);
    }
    // A fast finger leaps over steps: all between are touched too.
    const way = Math.sign(index - now.last);
    while (now.last !== index) touch(now.lane, (now.last += way), now.erase, now.name);
  };

  /** The chosen hits follow the finger in time and across lanes at once, step by step or freely; or their ends do. */
  const take = (now: Taken, x: number, y: number) => {
    if (Math.hypot(x - now.x, y - now.y) > TAP_PX) now.moved = true;
    if (!now.moved) return;
    const { scale, step, laneHeight } = geometry;
    const state = store.getState();
    const ticks = (x - now.x) / scale;
    const row = Math.min(now.lanes.length - 1, Math.max(0, now.row + Math.round((y - now.y) / laneHeight)));
    const drag: Drag =
      now.kind === 'stretch'
        ? { kind: 'stretch', ticks, from: now.hit.struck + now.hit.length }
        : { kind: 'move', ticks, from: now.lanes[now.row]!.key, to: now.lanes[row]!.key };
    const { tones } = selectTrack(state);
    const hits = dragged(now.before, now.ids, drag, {
      grid: now.free ? 1 : step,
      ...(tones && { tones, by: selectNoteStep(state) }),
    });
    edit({ kind: 'drag', hits }, now.name);
  };

  const onPointerUp = (event: React.PointerEvent) => {
    const now = lift(event);
    if (now?.kind === 'paint' && now.pending) touch(now.lane, now.last, true, now.name);
    if ((now?.kind === 'move' || now?.kind === 'stretch') && !now.moved) store.dispatch(hitToggled(now.hit.id));
    if (now?.kind === 'box') {
      const { x, y } = at(event);
      if (Math.hypot(x - now.x, y - now.y) > TAP_PX) return;
      const found = hitAt(x, y);
      if (found) store.dispatch(hitToggled(found.hit.id));
      else store.dispatch(hitsSelected([]));
    }
  };

  const onPointerCancel = (event: React.PointerEvent) => void lift(event);

  return { box, toggle, openStep, handlers: { onPointerDown, onPointerMove, onPointerUp, onPointerCancel } };
}
