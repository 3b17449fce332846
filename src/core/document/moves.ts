import { REPEAT_RATES } from '../quantize/grid';
import { PADS } from './limits';

/** What a pattern can move while it plays. */
export const CONTROLS = ['pitch', 'filter', 'decay', 'level', 'pan', 'rate', 'drive', 'room', 'resonance', 'start'] as const; // prettier-ignore
export type Control = (typeof CONTROLS)[number];
/** Those that shape a stroke; the rate is of note repeat. */
export const SHAPING_CONTROLS = CONTROLS.filter((control): control is Exclude<Control, 'rate'> => control !== 'rate');
export const CONTROL_NAMES: Record<Control, string> = {
  pitch: 'Pitch',
  filter: 'Filter',
  decay: 'Decay',
  level: 'Level',
  pan: 'Pan',
  rate: 'Repeat rate',
  drive: 'Drive',
  room: 'Room',
  resonance: 'Resonance',
  start: 'Start',
};

/** A breakpoint. */
export interface MovePoint {
  /** In the pattern. */
  tick: number;
  value: number;
}

/** The recorded or drawn course of one control of one pad, its points in order of time. */
export interface Move {
  pad: number;
  control: Control;
  points: MovePoint[];
}

export interface ControlRange {
  min: number;
  max: number;
  /** What it is where nothing moves it. */
  neutral: number;
  /** Whole values only, each held until the next point. */
  stepped?: true;
}

/**
 * Pitch in semitones; filter in octaves of the cutoff; decay as a power of two of the sound's own; level 0..1; pan -1..1
 * from the sound's own place; rate as a place in REPEAT_RATES; drive in dB, room as a share and resonance in octaves of the quality
 * factor, each added to the sound's own; start as the share of a sample by which it begins later.
 */
export const CONTROL_RANGES: Record<Control, ControlRange> = {
  pitch: { min: -24, max: 24, neutral: 0 },
  filter: { min: -5, max: 2, neutral: 0 },
  decay: { min: -4, max: 1, neutral: 0 },
  level: { min: 0, max: 1, neutral: 1 },
  pan: { min: -1, max: 1, neutral: 0 },
  rate: { min: 0, max: REPEAT_RATES.length - 1, neutral: REPEAT_RATES.indexOf('1/16'), stepped: true },
  drive: { min: -24, max: 24, neutral: 0 },
  room: { min: -1, max: 1, neutral: 0 },
  resonance: { min: -2, max: 3, neutral: 0 },
  start: { min: -1, max: 1, neutral: 0 },
};

/** The most breakpoints of one Move. */
export const MAX_POINTS = 4096;

/** The controls that there were when stored logs were first written: their places in the tables stay. */
const FIRST_CONTROLS = 6;

/** Place of one pad's control in the engine's tables. */
export function moveIndex(pad: number, control: number): number {
  if (control < FIRST_CONTROLS) return pad * FIRST_CONTROLS + control;
  return PADS * control + pad;
}

export const MOVE_TABLES = PADS * CONTROLS.length;

/** Breakpoints as the engine reads them: tick, value, tick, value ... */
export function flatPoints(points: readonly MovePoint[]): number[] {
  return points.flatMap(({ tick, value }) => [tick, value]);
}
