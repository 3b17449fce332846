import { REPEAT_RATES } from '../quantize/grid';
import { PADS } from './limits';
import { MIX_CONTROL_NAMES, MIX_CONTROLS, MIX_RANGES, type MixControl } from './mix';
import { MOST_RETURN_CONTROLS, returnName, returnPlace, returnRange, type MovedReturn } from './returns';

/** What a pattern can move of a pad while it plays. */
export const CONTROLS = ['pitch', 'filter', 'decay', 'level', 'pan', 'rate', 'drive', 'room', 'resonance', 'start', 'pressure', 'bright'] as const; // prettier-ignore
export type Control = (typeof CONTROLS)[number];
/** Those that go on moving a note while its key is held. */
export const HELD_CONTROLS = ['pressure', 'bright'] as const satisfies readonly Control[];
export type HeldControl = (typeof HELD_CONTROLS)[number];
export function isHeldControl(control: Control): control is HeldControl {
  return (HELD_CONTROLS as readonly Control[]).includes(control);
}
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
  pressure: 'Pressure',
  bright: 'Bright',
};

/** A breakpoint. */
export interface MovePoint {
  /** In the pattern. */
  tick: number;
  value: number;
}

/** The channels of the mix that a pattern can move: its track's, that of the group its track goes to, the whole mix's. */
export const MOVED_CHANNELS = ['track', 'group', 'whole'] as const;
export type MovedChannel = (typeof MOVED_CHANNELS)[number];
const CHANNEL_NAMES: Record<MovedChannel, string> = { track: 'Track', group: 'Group', whole: 'Whole mix' };

/** A control of one pad, and one of a channel of the mix. */
export interface MovedPad {
  pad: number;
  control: Control;
}
export interface MovedMix {
  on: MovedChannel;
  control: MixControl;
}
/** What a Move moves: a control of a pad, of a channel, or of the echo or the room. */
export type Moved = MovedPad | MovedInMix;
export type MovedInMix = MovedMix | MovedReturn;

/** The recorded or drawn course of one control, its points in order of time. */
export type Move = Moved & { points: MovePoint[] };

/** Names what is moved. */
export function movedKey(moved: Moved): string {
  return `${'pad' in moved ? moved.pad : moved.on} ${moved.control}`;
}

/** Whether two Moves move the same. */
export function isSameMoved(one: Moved, other: Moved): boolean {
  return movedKey(one) === movedKey(other);
}

export function isOfReturn(moved: Moved): moved is MovedReturn {
  return 'on' in moved && (moved.on === 'echo' || moved.on === 'room');
}

export function movedRange(moved: Moved): ControlRange {
  if ('pad' in moved) return CONTROL_RANGES[moved.control];
  return isOfReturn(moved) ? returnRange(moved)! : MIX_RANGES[moved.control];
}

/** @example movedName({ on: 'group', control: 'echo' }) // "Group Echo" */
export function movedName(moved: Moved): string {
  if ('pad' in moved) return CONTROL_NAMES[moved.control];
  if (isOfReturn(moved)) return returnName(moved);
  return `${CHANNEL_NAMES[moved.on]} ${MIX_CONTROL_NAMES[moved.control]}`;
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
 * factor, each added to the sound's own; start as the share of a sample by which it begins later; pressure 0..1, on the key of a note
 * while it is held, and bright -1..1, added to what the voice's own is: these go on moving what sounds, while all the others shape a stroke
 * when it begins.
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
  pressure: { min: 0, max: 1, neutral: 0 },
  bright: { min: -1, max: 1, neutral: 0 },
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

/** Where the tables of the mix begin, far enough for more controls of pads: those of the echo and the room, then those of channels. */
const FIRST_MIX_TABLE = PADS * 32;
const FIRST_RETURN_TABLE = FIRST_MIX_TABLE - MOST_RETURN_CONTROLS;
/** Tables of pads, and of all. */
export const PAD_TABLES = PADS * CONTROLS.length;
export const MOVE_TABLES = FIRST_MIX_TABLE + MOVED_CHANNELS.length * MIX_CONTROLS.length;

/** Place of what a Move moves in the engine's tables. */
export function moveTable(moved: Moved): number {
  if ('pad' in moved) return moveIndex(moved.pad, CONTROLS.indexOf(moved.control));
  if (isOfReturn(moved)) return FIRST_RETURN_TABLE + returnPlace(moved);
  // Those of one control side by side: where controls are added, the tables of stored logs stay.
  return (
    FIRST_MIX_TABLE + MIX_CONTROLS.indexOf(moved.control) * MOVED_CHANNELS.length + MOVED_CHANNELS.indexOf(moved.on)
  );
}

/** Whether a table is one of the mix. */
export function isMixTable(table: number): boolean {
  return table >= FIRST_RETURN_TABLE;
}
/** Of which control of the echo or the room a table of the mix is, as a place in RETURN_CONTROLS; -1: of a channel's. */
export function returnOfTable(table: number): number {
  return table < FIRST_MIX_TABLE ? table - FIRST_RETURN_TABLE : -1;
}
/** Of which channel and control it is then, as places in MOVED_CHANNELS and MIX_CONTROLS. */
export function channelOfTable(table: number): number {
  return (table - FIRST_MIX_TABLE) % MOVED_CHANNELS.length;
}
export function controlOfTable(table: number): number {
  return Math.floor((table - FIRST_MIX_TABLE) / MOVED_CHANNELS.length);
}

/** Breakpoints as the engine reads them: tick, value, tick, value ... */
export function flatPoints(points: readonly MovePoint[]): number[] {
  return points.flatMap(({ tick, value }) => [tick, value]);
}
