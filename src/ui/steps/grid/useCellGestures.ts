import { usePatternEdit } from '../../shared/usePatternEdit';
import { useEffect, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { hitsInStep } from '@/core/edit/steps';
import { passOf } from '@/core/sequence/soundingHits';
import { selectPattern } from '@/store/selectors';
import { sheetShown } from '@/store/sessionSlice';
import { cursorMoved, hitOpened, hitsSelected, hitToggled } from '@/store/stepsSlice';
import type { Store } from '@/store/store';
import { KEY_VELOCITY } from '../../pads/PadGrid';
import { useInstrument } from '../../shared/InstrumentContext';
import { gestureName } from '../../shared/useDrag';
import { cellAt, LANES, tickAtX, xOf, type Geometry } from '../geometry';
import { PADS } from '@/core/document/limits';
import type { Hit } from '@/core/document/hit';

/** A finger held this long on a step opens it. */
const LONG_MS = 450;
/** A press that moves less than this is a tap. */
const TAP_PX = 8;
/** A tap this near means a hit. */
const REACH_PX = 14;

type Box = { x: number; y: number; width: number; height: number };

type Gesture =
  | { kind: 'paint'; pad: number; last: number; erase: boolean; pending: boolean; name: string }
  | { kind: 'box'; x: number; y: number }
  /** Chosen hits follow the finger; `done` is how far they have come. */
  | { kind: 'move'; x: number; y: number; ticks: number; lanes: number; free: boolean; moved: boolean; id: number; name: string }; // prettier-ignore

/**
 * What a finger does on the cells. It paints (or, begun on a filled step, erases) along its lane and never scrolls; held on a
 * step it opens it; while choosing, it draws a box around hits, or takes the chosen ones along.
 */
export function useCellGestures(geometry: Geometry) {
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
  const inStep = (pad: number, index: number) => {
    const pattern = selectPattern(store.getState());
    const { step } = geometry;
    return hitsInStep(pattern, { pad, tick: index * step, length: step });
  };

  /** Fills a step, or empties it. */
  const touch = (pad: number, index: number, erase: boolean, name: string) => {
    const there = inStep(pad, index);
    if (erase && there.length > 0) edit({ kind: 'erase', ids: there.map((hit) => hit.id) }, name);
    if (erase || there.length > 0 || instrument.isFull(instrument.placeOf(name))) return;
    const { fixedVelocity } = store.getState().settings;
    const velocity = fixedVelocity.on ? fixedVelocity.value : KEY_VELOCITY;
    const { step } = geometry;
    const hit: Hit = { id: instrument.nextId(), pad, tick: index * step, length: step / 2, velocity, snap: null };
    edit({ kind: 'paint', hits: [hit] }, name);
  };

  const toggle = (pad: number, index: number) => touch(pad, index, inStep(pad, index).length > 0, gestureName('swipe'));

  /** Opens the hit of a step in its sheet. */
  const openStep = (pad: number, index: number) => {
    const [hit] = inStep(pad, index);
    if (!hit) return;
    store.dispatch(hitOpened(hit.id));
    store.dispatch(sheetShown('step'));
  };

  const hitAt = (x: number, y: number) => {
    const pattern = selectPattern(store.getState());
    if (!pattern) return null;
    const pad = LANES[cellAt(geometry, x, y).lane]!;
    const { sounding, covered } = passOf(pattern);
    const near = [...sounding, ...covered]
      .filter((hit) => hit.pad === pad)
      .map((hit) => ({ id: hit.id, off: Math.abs(xOf(geometry, hit.struck) + 4 - x) }))
      .sort((a, b) => a.off - b.off)[0];
    return near && near.off <= REACH_PX ? near.id : null;
  };

  const select = ({ x, y, width, height }: Box) => {
    const pattern = selectPattern(store.getState());
    if (!pattern) return;
    const [top, bottom] = [cellAt(geometry, x, y).lane, cellAt(geometry, x, y + height).lane];
    const pads = LANES.slice(top, bottom + 1);
    const [from, to] = [tickAtX(geometry, x - 4), tickAtX(geometry, x + width - 4)];
    const { sounding, covered } = passOf(pattern);
    const inside = [...sounding, ...covered].filter((h) => pads.includes(h.pad) && h.struck >= from && h.struck < to);
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
    const { lane, index } = cellAt(geometry, x, y);
    const pad = LANES[lane]!;
    const { selecting, selected } = store.getState().steps;
    store.dispatch(cursorMoved({ pad, tick: index * geometry.step }));
    if (selecting || event.shiftKey) {
      const id = hitAt(x, y);
      if (id !== null && selected.includes(id)) {
        const name = gestureName('move');
        fingers.current.set(event.pointerId, {
          kind: 'move',
          x,
          y,
          ticks: 0,
          lanes: 0,
          free: event.altKey,
          moved: false,
          id,
          name,
        });
      } else fingers.current.set(event.pointerId, { kind: 'box', x, y });
      return;
    }
    const name = gestureName('swipe');
    const erase = inStep(pad, index).length > 0;
    // A filled step is emptied on release: the finger may stay, which opens the step.
    fingers.current.set(event.pointerId, { kind: 'paint', pad, last: index, erase, pending: erase, name });
    if (!erase) touch(pad, index, false, name);
    const { pointerId } = event;
    const opening = setTimeout(() => {
      const now = fingers.current.get(pointerId);
      if (now?.kind !== 'paint' || now.last !== index || (now.erase && !now.pending)) return;
      fingers.current.delete(pointerId);
      openStep(pad, index);
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
    if (now.kind === 'move') return take(now, x, y);
    const { index } = cellAt(geometry, x, y);
    if (index === now.last) return;
    if (now.pending) {
      now.pending = false;
      touch(now.pad, now.last, true, now.name);
    }
    // A fast finger leaps over steps: all between are touched too.
    const way = Math.sign(index - now.last);
    while (now.last !== index) touch(now.pad, (now.last += way), now.erase, now.name);
  };

  /** The chosen hits follow the finger, step by step or freely. */
  const take = (now: Extract<Gesture, { kind: 'move' }>, x: number, y: number) => {
    if (Math.hypot(x - now.x, y - now.y) > TAP_PX) now.moved = true;
    if (!now.moved) return;
    const { scale, step, laneHeight } = geometry;
    const way = (x - now.x) / scale;
    const ticks = now.free ? Math.round(way) : Math.round(way / step) * step;
    const lanes = Math.max(1 - PADS, Math.min(PADS - 1, Math.round((now.y - y) / laneHeight)));
    if (ticks === now.ticks && lanes === now.lanes) return;
    const ids = store.getState().steps.selected;
    edit({ kind: 'move', ids, ticks: ticks - now.ticks, lanes: lanes - now.lanes }, now.name);
    now.ticks = ticks;
    now.lanes = lanes;
  };

  const onPointerUp = (event: React.PointerEvent) => {
    const now = lift(event);
    if (now?.kind === 'paint' && now.pending) touch(now.pad, now.last, true, now.name);
    if (now?.kind === 'move' && !now.moved) store.dispatch(hitToggled(now.id));
    if (now?.kind === 'box') {
      const { x, y } = at(event);
      if (Math.hypot(x - now.x, y - now.y) > TAP_PX) return;
      const id = hitAt(x, y);
      if (id !== null) store.dispatch(hitToggled(id));
      else store.dispatch(hitsSelected([]));
    }
  };

  const onPointerCancel = (event: React.PointerEvent) => void lift(event);

  return { box, toggle, openStep, handlers: { onPointerDown, onPointerMove, onPointerUp, onPointerCancel } };
}
