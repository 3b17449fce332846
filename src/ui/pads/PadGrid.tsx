import { useEffect, useRef } from 'react';
import { lanesOf, type Lane } from '@/core/document/lanes';
import { isInScale, isRoot, noteName, type Tones } from '@/core/document/tones';
import { selectTrack } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import type { Sounded } from '@/instrument/performance';
import { codeOf, padTarget } from '@/store/keyBindings';
import type { InputDevice } from '@/store/settingsSlice';
import { LESS_MOTION, matches } from '../shared/useMedia';
import { useInstrument } from '../shared/InstrumentContext';
import { keyName } from './keyName';
import { DueLights } from './dueLights';
import { Pad, type PadMark } from './Pad';
import { PadBoard } from './PadBoard';
import { PadTouches } from './padTouches';
import { heldAside, heldPressure, heldVelocity, slideSteps, strikeVelocity } from './strike';

const GLOW_MS = 260;
/** What is lit now is on the glass so much later: the display shows a frame when the next one begins. */
const DRAWN_IN_MS = 1000 / 60;
/** What was heard longer ago lights no more. */
const STALE_MS = 100;
/** Velocity of a strike that has no place: a key, or assistive technology. */
export const KEY_VELOCITY = 0.8;

/**
 * Pads that answer on press, with any number of fingers, and light when they sound.
 * @param shown which of them, 0..15; all sixteen if none are given
 */
export function PadGrid({ shown }: { shown?: readonly number[] }) {
  const instrument = useInstrument();
  const kit = useAppSelector((state) => selectTrack(state).kit);
  const tones = useAppSelector((state) => selectTrack(state).tones);
  const fixed = useAppSelector((state) => state.settings.fixedVelocity);
  const keys = useAppSelector((state) => state.settings.keys);
  const grid = useRef<HTMLDivElement>(null);
  const fixedNow = useRef(fixed);
  useEffect(() => {
    fixedNow.current = fixed;
  }, [fixed]);

  // Native listeners instead of React's: the shortest way from the touch to the sound.
  useEffect(() => {
    const element = grid.current;
    if (!element) return undefined;
    const touches = new PadTouches();
    const strikePoint = new Map<number, { x: number; y: number }>();

    const down = (event: PointerEvent) => {
      const target = padElement(event.target);
      if (!target || (event.pointerType === 'mouse' && event.button !== 0)) return;
      const box = target.getBoundingClientRect();
      const x = (event.clientX - box.left) / box.width;
      const y = (event.clientY - box.top) / box.height;
      const pad = padOf(target);
      const { on, value } = fixedNow.current;
      const velocity = on ? value : strikeVelocity({ x, y, pressure: event.pressure });
      const device = deviceOf(event);
      instrument.padDown(pad, velocity, event.timeStamp, device);
      const { clientX, clientY, pressure } = event;
      touches.down(event.pointerId, { pad, device, velocity, pressure, x: clientX, y: clientY, height: box.height });
      strikePoint.set(pad, { x: x * box.width, y: y * box.height });
    };
    // Up and down, or the pressure: for note repeat how hard, for a note that is held how it is pressed. Sideways: how fast, or how bright.
    const move = (event: PointerEvent) => {
      const touch = touches.at(event.pointerId);
      if (!touch) return;
      const up = (touch.y - event.clientY) / touch.height;
      const { on, value } = fixedNow.current;
      const press = {
        velocity: on ? value : heldVelocity(touch.velocity, up, event.pressure),
        pressure: heldPressure(touch.pressure, up, event.pressure),
        aside: heldAside((event.clientX - touch.x) / touch.height),
      };
      instrument.padPress(touch.pad, press, event.timeStamp, touch.device);
      instrument.slide(touch.pad, slideSteps(event.clientX - touch.x));
    };
    const up = (event: PointerEvent) => {
      const touch = touches.up(event.pointerId);
      if (touch) instrument.padUp(touch.pad, event.timeStamp, touch.device);
    };
    // Enter, Space and assistive technology press without a pointer.
    const pressWithout = (pad: number, timeStamp: number) => {
      const { on, value } = fixedNow.current;
      instrument.padDown(pad, on ? value : KEY_VELOCITY, timeStamp, 'keys');
      instrument.padUp(pad, timeStamp, 'keys');
    };
    const click = (event: MouseEvent) => {
      const target = padElement(event.target);
      if (target && event.detail === 0) pressWithout(padOf(target), event.timeStamp);
    };
    const key = (event: KeyboardEvent) => {
      const target = padElement(event.target);
      if (!target || event.repeat || (event.key !== 'Enter' && event.key !== ' ')) return;
      event.preventDefault();
      pressWithout(padOf(target), event.timeStamp);
    };
    const lightPad = ({ pad, velocity, live }: Sounded) => {
      const target = element.querySelector<HTMLElement>(`[data-pad="${pad}"]`);
      if (target) light(target, velocity, live ? strikePoint.get(pad) : undefined);
      strikePoint.delete(pad);
    };
    const { performance } = instrument;
    const lights = new DueLights();
    const heardAgo = (ms: number) => performance.frameHeardAt(window.performance.now() - ms);
    let request = 0;
    const lightDue = () => {
      for (const sounded of lights.take(heardAgo(-DRAWN_IN_MS), heardAgo(STALE_MS))) lightPad(sounded);
      request = lights.count > 0 ? requestAnimationFrame(lightDue) : 0;
    };
    const stopLighting = performance.onSounded((sounded) => {
      if (sounded.track !== performance.shown) return;
      if (sounded.live) return lightPad(sounded);
      lights.add(sounded, heardAgo(STALE_MS));
      request ||= requestAnimationFrame(lightDue);
    });

    element.addEventListener('pointerdown', down);
    element.addEventListener('click', click);
    element.addEventListener('keydown', key);
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
    window.addEventListener('pointercancel', up);
    return () => {
      stopLighting();
      cancelAnimationFrame(request);
      element.removeEventListener('pointerdown', down);
      element.removeEventListener('click', click);
      element.removeEventListener('keydown', key);
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      window.removeEventListener('pointercancel', up);
      for (const { pad, device } of touches.upAll()) instrument.padUp(pad, window.performance.now(), device);
    };
  }, [instrument]);

  const pads = lanesOf({ kit, tones });
  return (
    <PadBoard label="Pads" ref={grid} {...(shown && { pads: shown })}>
      {(pad) => (
        <Pad
          pad={pad}
          name={handName(tones, pads[pad]!)}
          mark={markOf(tones, pads[pad]!.note)}
          keyName={keys.on ? keyName(codeOf(keys, padTarget(pad)) ?? '') : ''}
        />
      )}
    </PadBoard>
  );
}

/** What a hand plays on a pad: a note with its octave, or the drum. */
function handName(tones: Tones | undefined, { name, note }: Lane): string {
  return tones?.octave ? noteName(note + 12 * tones.octave) : name;
}

function markOf(tones: Tones | undefined, note: number): PadMark {
  if (!tones) return 'drum';
  return isRoot(tones, note) ? 'root' : isInScale(tones, note) ? 'scale' : 'outside';
}

function padElement(target: EventTarget | null): HTMLElement | null {
  return target instanceof Element ? target.closest<HTMLElement>('[data-pad]') : null;
}

/** What a pointer event was made with. */
export function deviceOf({ pointerType }: Pick<PointerEvent, 'pointerType'>): InputDevice {
  return pointerType === 'touch' || pointerType === 'pen' ? pointerType : 'mouse';
}

function padOf(element: HTMLElement): number {
  return Number(element.dataset.pad);
}

/** Fills the pad from where it was struck, as far as it was hard; from the middle when nobody's finger struck it. */
function light(element: HTMLElement, velocity: number, point?: { x: number; y: number }): void {
  const glow = element.firstElementChild as HTMLElement;
  const { offsetWidth: width, offsetHeight: height } = element;
  glow.style.left = `${point?.x ?? width / 2}px`;
  glow.style.top = `${point?.y ?? height / 2}px`;
  const reach = (Math.hypot(width, height) * (0.25 + 0.75 * velocity)) / 5;
  glow.getAnimations().forEach((animation) => animation.cancel());
  element.dataset.lit = 'true';
  const from = matches(LESS_MOTION) ? reach : reach * 0.55;
  const animation = glow.animate(
    [
      { transform: `scale(${from})`, opacity: 0.95 },
      // Bright for a moment, then so that the pad's name is easy to read on it.
      { transform: `scale(${reach})`, opacity: 0.58, offset: 0.22 },
      { transform: `scale(${reach})`, opacity: 0.5, offset: 0.6 },
      { transform: `scale(${reach})`, opacity: 0 },
    ],
    { duration: GLOW_MS, easing: 'ease-out' },
  );
  animation.onfinish = () => delete element.dataset.lit;
}
