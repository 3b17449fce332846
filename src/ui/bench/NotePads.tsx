import { useEffect, useRef, type CSSProperties } from 'react';
import type { BenchDevice } from '@/midi/bench/benchDevice';
import { lightCss } from './lightCss';
import { useTokens } from '../theme/theme';
import { NUMBERS } from '../theme/tokens';
import { useBenchDevice } from './useBenchDevice';

/** Velocity of a key of the computer, which knows no force. */
const KEY_VELOCITY = 100;
const BLACK = [1, 3, 6, 8, 10];

interface Props {
  device: BenchDevice;
  columns: number;
  rows: number;
  /** The note that a pad sends; columns from the left, rows from the bottom. */
  noteAt: (column: number, row: number) => number;
  /** What one of them is called. */
  name: string;
  small?: boolean;
  keyboard?: boolean;
}

/** Pads, buttons or keys that send notes: as hard as they are touched low or high, with pressure as the finger goes up. */
export function NotePads({ device, columns, rows, noteAt, name, small, keyboard }: Props) {
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
      if (!key || keyboard) return;
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
  }, [device, keyboard]);
  return (
    <div
      ref={board}
      style={{
        display: 'grid',
        gap: small || keyboard ? 3 : 6,
        gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
        touchAction: 'none',
      }}
    >
      {Array.from({ length: rows * columns }, (_, i) => {
        const [column, row] = [i % columns, rows - 1 - Math.floor(i / columns)];
        const note = noteAt(column, row);
        const colour = lit.get(note) ?? 0;
        const isBlack = keyboard && BLACK.includes(note % 12);
        const style: CSSProperties = {
          height: keyboard ? 92 : small ? 36 : 72,
          borderRadius: 6,
          border: `1px solid ${tokens.cap}`,
          background: isBlack ? tokens.deep : lightCss(colour, tokens.ground),
          color: colour > 0 ? '#14191F' : tokens.cap,
          fontFamily: NUMBERS,
          fontSize: 12,
          paddingBottom: 2,
          display: 'flex',
          alignItems: 'flex-end',
          justifyContent: 'center',
          cursor: 'pointer',
          userSelect: 'none',
        };
        return (
          <div
            key={note}
            role="button"
            tabIndex={i === (rows - 1) * columns ? 0 : small || keyboard ? -1 : 0}
            aria-label={`${name} ${row * columns + column + 1}`}
            data-note={note}
            data-light={colour}
            style={style}
          >
            {!small && !keyboard && row * columns + column + 1}
          </div>
        );
      })}
    </div>
  );
}
