import { useEffect, useRef, type CSSProperties } from 'react';
import type { BenchDevice } from '@/midi/bench/benchDevice';
import { lightCss } from './lightCss';
import { useTokens } from '../theme/theme';
import { INK, NUMBERS, TOUCH } from '../theme/tokens';
import { useBenchDevice } from './useBenchDevice';

/** Velocity of a key of the computer, which knows no force. */
const KEY_VELOCITY = 100;

interface Props {
  device: BenchDevice;
  columns: number;
  rows: number;
  /** The note that a pad sends; columns from the left, rows from the bottom. Null: there is none. */
  noteAt: (column: number, row: number) => number | null;
  /** What the pad of a note is called. */
  nameOf: (note: number) => string;
  /** px */
  height: number;
  /** What stands on the pad of a note. */
  textOf?: (note: number) => string;
  /** They know no pressure. */
  keys?: boolean;
}

/** Pads, buttons or keys that send notes: as hard as they are touched low or high, with pressure as the finger goes up. */
export function NotePads({ device, columns, rows, noteAt, nameOf, height, textOf, keys }: Props) {
  const tokens = useTokens();
  const board = useRef<HTMLDivElement>(null);
  const lights = useBenchDevice(device, () => JSON.stringify([...device.lights]));
  const lit = new Map(JSON.parse(lights) as [number, number][]);
  useEffect(() => {
    const element = board.current!;
    const held = new Map<number | string, number>();
    const noteOf = (event: Event) => {
      const key = (event.target as Element).closest<HTMLElement>('[data-note]');
      return key ? { key, note: Number(key.dataset.note) } : null;
    };
    const share = (event: PointerEvent, key: HTMLElement) => {
      const box = key.getBoundingClientRect();
      return Math.min(1, Math.max(0, 1 - (event.clientY - box.top) / box.height));
    };
    const down = (event: PointerEvent) => {
      const found = noteOf(event);
      if (!found) return;
      found.key.setPointerCapture(event.pointerId);
      held.set(event.pointerId, found.note);
      const velocity = Math.round(20 + 107 * share(event, found.key));
      device.send({ type: 'noteOn', channel: 1, note: found.note, velocity }, event.timeStamp);
    };
    const move = (event: PointerEvent) => {
      const note = held.get(event.pointerId);
      const key = note === undefined ? null : element.querySelector<HTMLElement>(`[data-note="${note}"]`);
      if (!key || keys) return;
      const pressure = Math.round(127 * share(event, key));
      device.send({ type: 'polyPressure', channel: 1, note: note!, pressure }, event.timeStamp);
    };
    const letGo = (by: number | string, timeStamp: number) => {
      const note = held.get(by);
      held.delete(by);
      if (note !== undefined) device.send({ type: 'noteOff', channel: 1, note, velocity: 64 }, timeStamp);
    };
    const up = (event: PointerEvent) => letGo(event.pointerId, event.timeStamp);
    const isPress = (event: KeyboardEvent) => event.key === 'Enter' || event.key === ' ';
    const keyDown = (event: KeyboardEvent) => {
      const found = noteOf(event);
      if (!found || !isPress(event)) return;
      event.preventDefault();
      event.stopPropagation();
      if (event.repeat) return;
      held.set(event.code, found.note);
      device.send({ type: 'noteOn', channel: 1, note: found.note, velocity: KEY_VELOCITY }, event.timeStamp);
    };
    const keyUp = (event: KeyboardEvent) => isPress(event) && letGo(event.code, event.timeStamp);
    const away = () => [...held.keys()].forEach((by) => letGo(by, performance.now()));
    element.addEventListener('pointerdown', down);
    element.addEventListener('pointermove', move);
    element.addEventListener('pointerup', up);
    element.addEventListener('pointercancel', up);
    element.addEventListener('keydown', keyDown);
    window.addEventListener('keyup', keyUp);
    window.addEventListener('blur', away);
    return () => {
      away();
      element.removeEventListener('pointerdown', down);
      element.removeEventListener('pointermove', move);
      element.removeEventListener('pointerup', up);
      element.removeEventListener('pointercancel', up);
      element.removeEventListener('keydown', keyDown);
      window.removeEventListener('keyup', keyUp);
      window.removeEventListener('blur', away);
    };
  }, [device, keys]);
  const first = noteAt(0, 0);
  return (
    <div
      ref={board}
      style={{
        display: 'grid',
        gap: columns > 4 ? 2 : 6,
        gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
        touchAction: 'none',
      }}
    >
      {Array.from({ length: rows * columns }, (_, i) => {
        const note = noteAt(i % columns, rows - 1 - Math.floor(i / columns));
        if (note === null) return <div key={`none ${i}`} />;
        const light = lit.get(note) ?? 0;
        const style: CSSProperties = {
          ...pad,
          height,
          border: `1px solid ${tokens.cap}`,
          background: lightCss(light, tokens.ground),
          color: light > 0 && light % 2 === 0 ? INK : tokens.wing,
        };
        return (
          <div
            key={note}
            role="button"
            // One stop for all of a large board: arrows are not needed to try it.
            tabIndex={columns <= 4 || keys || note === first ? 0 : -1}
            aria-label={nameOf(note)}
            data-note={note}
            data-light={light}
            style={style}
          >
            {textOf?.(note)}
          </div>
        );
      })}
    </div>
  );
}

const pad: CSSProperties = {
  minWidth: TOUCH,
  borderRadius: 6,
  fontFamily: NUMBERS,
  fontSize: 12,
  paddingBottom: 2,
  boxSizing: 'border-box',
  display: 'flex',
  alignItems: 'flex-end',
  justifyContent: 'center',
  cursor: 'pointer',
  userSelect: 'none',
};
