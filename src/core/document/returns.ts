import { ECHO_TIMES, FIRST_ECHO, FIRST_ROOM, ROOM_RANGES, type EchoTime } from './mix';
import type { ControlRange } from './moves';

/**
 * What can be moved of the echo and of the room, which all channels send to. Their places in this list are those in the engine's tables:
 * new ones come last.
 */
export const RETURN_CONTROLS = [
  { on: 'echo', control: 'time' },
  { on: 'echo', control: 'feedback' },
  { on: 'echo', control: 'tone' },
  { on: 'echo', control: 'width' },
  { on: 'room', control: 'size' },
  { on: 'room', control: 'damping' },
  { on: 'room', control: 'width' },
  { on: 'room', control: 'preDelay' },
] as const;
export type MovedReturn = (typeof RETURN_CONTROLS)[number];
export type Return = MovedReturn['on'];

/** The most there may ever be: so much room the engine's tables have. */
export const MOST_RETURN_CONTROLS = 16;

export const RETURN_NAMES: Record<Return, string> = { echo: 'Echo', room: 'Room' };
const CONTROL_NAMES: Record<MovedReturn['control'], string> = {
  time: 'time',
  feedback: 'feedback',
  tone: 'tone',
  width: 'width',
  size: 'size',
  damping: 'damping',
  preDelay: 'pre-delay',
};

/** @example returnName({ on: 'room', control: 'preDelay' }) // "Room pre-delay" */
export function returnName({ on, control }: MovedReturn): string {
  return `${RETURN_NAMES[on]} ${CONTROL_NAMES[control]}`;
}

/** The note values of the echo by their places, as a Move tells them. */
export const ECHO_TIME_NAMES = Object.keys(ECHO_TIMES) as EchoTime[];

const RANGES: Record<Return, Partial<Record<MovedReturn['control'], ControlRange>>> = {
  echo: {
    time: {
      min: 0,
      max: ECHO_TIME_NAMES.length - 1,
      neutral: ECHO_TIME_NAMES.indexOf(FIRST_ECHO.time as EchoTime),
      stepped: true,
    },
    feedback: { min: 0, max: 1, neutral: FIRST_ECHO.feedback },
    tone: { min: 0, max: 1, neutral: FIRST_ECHO.tone },
    width: { min: 0, max: 1, neutral: FIRST_ECHO.width },
  },
  room: {
    size: { ...ROOM_RANGES.size, neutral: FIRST_ROOM.size },
    damping: { ...ROOM_RANGES.damping, neutral: FIRST_ROOM.damping },
    width: { ...ROOM_RANGES.width, neutral: FIRST_ROOM.width },
    preDelay: { ...ROOM_RANGES.preDelay, neutral: FIRST_ROOM.preDelay },
  },
};

/** In the units of `Echo` and `RoomSettings`; the echo's time as a place in ECHO_TIME_NAMES. Undefined: it has no such control. */
export function returnRange({ on, control }: { on: Return; control: string }): ControlRange | undefined {
  return RANGES[on][control as MovedReturn['control']];
}

/** @returns the place in RETURN_CONTROLS; -1: there is none such */
export function returnPlace({ on, control }: { on: string; control: string }): number {
  return RETURN_CONTROLS.findIndex((one) => one.on === on && one.control === control);
}
