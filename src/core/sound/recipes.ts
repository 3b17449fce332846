import type { MadeSound } from '../document/sound';
import type { Tone } from './toneVoice';

/** One sine mode of a body. */
export interface Mode {
  /** Of its pitch to the body's. */
  ratio: number;
  level: number;
  /** Seconds to -60 dB. */
  decay: number;
}

/** Short strokes before the last one, as of many hands or jingles. */
export interface Bursts {
  count: number;
  /** Seconds from one to the next. */
  every: number;
  /** Seconds to -60 dB of each. */
  decay: number;
}

/** A tuned body: inharmonic sine modes that share one downward pitch sweep. */
export interface Body {
  /** Resting pitch of the first mode, Hz. */
  pitch: number;
  /** How many times higher the strike begins (1 = no sweep), at full velocity. */
  sweep: number;
  /** Time constant of the sweep, seconds. */
  sweepTime: number;
  /** At most 4. */
  modes: readonly Mode[];
}

/** A filtered burst of noise or of the cymbals' metal. */
export interface Layer {
  source: 'noise' | 'metal';
  level: number;
  filter: 'low' | 'band' | 'high';
  /** Hz, at full velocity. */
  cutoff: number;
  /** Resonance; 0.7 is flat. */
  q: number;
  /** Octaves by which the cutoff falls towards velocity 0. */
  bright: number;
  /** Seconds to full level. */
  attack: number;
  /** Seconds to -60 dB. */
  decay: number;
  bursts?: Bursts;
}

/** One sound as the engine makes it: what is layered, how loud, and where. */
export interface Recipe {
  /** Peak at full velocity, linear. */
  level: number;
  /** -1 left .. 1 right */
  pan: number;
  /** Share sent to the room, 0..1. */
  room: number;
  /** Saturation: 0 none. */
  drive: number;
  /** How many strokes of this pad may ring at once. */
  rings: number;
  body?: Body;
  /** At most 3. */
  layers: readonly Layer[];
  /** Its notes cut each other off: one plays at a time. */
  isMono?: true;
  /** It plays notes, which last as long as they are held. */
  tone?: Tone;
}

function tom(pitch: number, decay: number, pan: number): Recipe {
  return {
    level: 0.66,
    pan,
    room: 0.16,
    drive: 0.5,
    rings: 2,
    body: {
      pitch,
      sweep: 1.7,
      sweepTime: 0.045,
      modes: [
        { ratio: 1, level: 1, decay },
        { ratio: 1.59, level: 0.35, decay: decay * 0.45 },
        { ratio: 2.14, level: 0.16, decay: decay * 0.28 },
      ],
    },
    layers: [
      { source: 'noise', level: 0.35, filter: 'band', cutoff: 2600, q: 0.8, bright: 1.5, attack: 0.0003, decay: 0.03 },
      { source: 'noise', level: 0.1, filter: 'low', cutoff: 900, q: 0.7, bright: 1, attack: 0.002, decay: decay * 0.5 },
    ],
  };
}

/** The sounds that are made: dry and round, for a big wooden room. */
export const RECIPES: Record<MadeSound, Recipe> = {
  kick: {
    level: 0.82,
    pan: 0,
    room: 0.03,
    drive: 1.1,
    rings: 1,
    body: {
      pitch: 50,
      sweep: 5.2,
      sweepTime: 0.021,
      modes: [
        { ratio: 1, level: 1, decay: 0.5 },
        { ratio: 2.02, level: 0.16, decay: 0.12 },
      ],
    },
    layers: [
      { source: 'noise', level: 0.5, filter: 'band', cutoff: 3600, q: 0.7, bright: 2, attack: 0.0002, decay: 0.009 },
      { source: 'noise', level: 0.18, filter: 'low', cutoff: 700, q: 0.7, bright: 1, attack: 0.0005, decay: 0.045 },
    ],
  },
  rim: {
    level: 0.5,
    pan: -0.12,
    room: 0.14,
    drive: 0.8,
    rings: 2,
    body: {
      pitch: 455,
      sweep: 1.15,
      sweepTime: 0.004,
      modes: [
        { ratio: 1, level: 0.8, decay: 0.085 },
        { ratio: 1.84, level: 1, decay: 0.055 },
        { ratio: 3.71, level: 0.5, decay: 0.03 },
      ],
    },
    layers: [
      { source: 'noise', level: 0.7, filter: 'band', cutoff: 3400, q: 1.1, bright: 1.2, attack: 0.0002, decay: 0.014 },
    ],
  },
  snare: {
    level: 0.72,
    pan: 0.03,
    room: 0.18,
    drive: 0.7,
    rings: 3,
    body: {
      pitch: 186,
      sweep: 1.5,
      sweepTime: 0.012,
      modes: [
        { ratio: 1, level: 0.75, decay: 0.17 },
        { ratio: 1.77, level: 0.45, decay: 0.12 },
        { ratio: 2.61, level: 0.2, decay: 0.07 },
      ],
    },
    layers: [
      { source: 'noise', level: 0.85, filter: 'high', cutoff: 1900, q: 0.7, bright: 1.3, attack: 0.0008, decay: 0.21 },
      { source: 'noise', level: 0.55, filter: 'band', cutoff: 5200, q: 0.9, bright: 1.6, attack: 0.0002, decay: 0.028 },
    ],
  },
  clap: {
    level: 0.62,
    pan: 0.1,
    room: 0.3,
    drive: 0.4,
    rings: 2,
    layers: [
      {
        source: 'noise',
        level: 1.5,
        filter: 'band',
        cutoff: 1250,
        q: 1.5,
        bright: 0.8,
        attack: 0.0004,
        decay: 0.2,
        bursts: { count: 3, every: 0.0105, decay: 0.022 },
      },
      {
        source: 'noise',
        level: 0.3,
        filter: 'high',
        cutoff: 3800,
        q: 0.7,
        bright: 1,
        attack: 0.0004,
        decay: 0.11,
        bursts: { count: 3, every: 0.0105, decay: 0.016 },
      },
    ],
  },
  closedHat: {
    level: 0.34,
    pan: 0.24,
    room: 0.05,
    drive: 0,
    rings: 1,
    layers: [
      { source: 'metal', level: 1, filter: 'high', cutoff: 7400, q: 0.9, bright: 0.7, attack: 0.0004, decay: 0.09 },
      { source: 'noise', level: 0.55, filter: 'high', cutoff: 9500, q: 0.8, bright: 0.9, attack: 0.0002, decay: 0.03 },
    ],
  },
  pedalHat: {
    level: 0.27,
    pan: 0.24,
    room: 0.05,
    drive: 0,
    rings: 1,
    body: { pitch: 310, sweep: 1.2, sweepTime: 0.01, modes: [{ ratio: 1, level: 0.12, decay: 0.03 }] },
    layers: [
      { source: 'metal', level: 1, filter: 'high', cutoff: 5400, q: 0.7, bright: 0.6, attack: 0.003, decay: 0.11 },
      { source: 'noise', level: 0.25, filter: 'band', cutoff: 4200, q: 0.9, bright: 0.8, attack: 0.001, decay: 0.04 },
    ],
  },
  openHat: {
    level: 0.32,
    pan: 0.24,
    room: 0.08,
    drive: 0,
    rings: 1,
    layers: [
      { source: 'metal', level: 1.2, filter: 'high', cutoff: 6200, q: 0.8, bright: 0.7, attack: 0.0005, decay: 0.6 },
      { source: 'metal', level: 0.8, filter: 'band', cutoff: 5600, q: 0.7, bright: 0.5, attack: 0.001, decay: 0.85 },
      { source: 'noise', level: 0.5, filter: 'high', cutoff: 9000, q: 0.8, bright: 0.9, attack: 0.0002, decay: 0.12 },
    ],
  },
  lowTom: tom(86, 0.62, -0.3),
  midTom: tom(122, 0.52, -0.05),
  highTom: tom(168, 0.42, 0.22),
  crash: {
    level: 0.42,
    pan: -0.28,
    room: 0.16,
    drive: 0.3,
    rings: 3,
    layers: [
      { source: 'metal', level: 1.5, filter: 'band', cutoff: 4300, q: 0.5, bright: 1.4, attack: 0.004, decay: 2.8 },
      { source: 'metal', level: 1.3, filter: 'high', cutoff: 6500, q: 0.7, bright: 1.2, attack: 0.001, decay: 1.2 },
      { source: 'noise', level: 0.6, filter: 'high', cutoff: 5200, q: 0.7, bright: 1.2, attack: 0.0006, decay: 0.42 },
    ],
  },
  ride: {
    level: 0.3,
    pan: 0.32,
    room: 0.1,
    drive: 0,
    rings: 4,
    body: {
      pitch: 1184,
      sweep: 1,
      sweepTime: 0.01,
      modes: [
        { ratio: 1, level: 0.22, decay: 0.9 },
        { ratio: 2.43, level: 0.3, decay: 1.1 },
        { ratio: 3.87, level: 0.24, decay: 0.7 },
        { ratio: 5.31, level: 0.14, decay: 0.5 },
      ],
    },
    layers: [
      { source: 'metal', level: 0.9, filter: 'band', cutoff: 6400, q: 0.6, bright: 0.8, attack: 0.002, decay: 1.7 },
      { source: 'noise', level: 0.5, filter: 'high', cutoff: 7000, q: 0.8, bright: 1, attack: 0.0002, decay: 0.02 },
    ],
  },
  shaker: {
    level: 0.5,
    pan: -0.34,
    room: 0.08,
    drive: 0,
    rings: 2,
    layers: [
      { source: 'noise', level: 1.1, filter: 'band', cutoff: 6800, q: 1.1, bright: 0.8, attack: 0.014, decay: 0.11 },
      { source: 'noise', level: 0.3, filter: 'high', cutoff: 10000, q: 0.8, bright: 0.6, attack: 0.008, decay: 0.06 },
    ],
  },
  cowbell: {
    level: 0.4,
    pan: 0.3,
    room: 0.12,
    drive: 1.8,
    rings: 2,
    body: {
      pitch: 547,
      sweep: 1.02,
      sweepTime: 0.006,
      modes: [
        { ratio: 1, level: 0.75, decay: 0.32 },
        { ratio: 1.508, level: 0.85, decay: 0.38 },
        { ratio: 2.97, level: 0.25, decay: 0.14 },
        { ratio: 4.52, level: 0.14, decay: 0.08 },
      ],
    },
    layers: [
      { source: 'noise', level: 0.4, filter: 'band', cutoff: 4000, q: 0.8, bright: 1, attack: 0.0002, decay: 0.012 },
    ],
  },
  tambourine: {
    level: 0.3,
    pan: -0.2,
    room: 0.12,
    drive: 0,
    rings: 2,
    layers: [
      {
        source: 'metal',
        level: 1,
        filter: 'high',
        cutoff: 8200,
        q: 1.1,
        bright: 0.6,
        attack: 0.001,
        decay: 0.28,
        bursts: { count: 2, every: 0.017, decay: 0.05 },
      },
      { source: 'noise', level: 0.35, filter: 'band', cutoff: 9800, q: 1.2, bright: 0.6, attack: 0.002, decay: 0.13 },
      { source: 'noise', level: 0.2, filter: 'band', cutoff: 1700, q: 0.9, bright: 1, attack: 0.0003, decay: 0.02 },
    ],
  },
  snap: {
    level: 0.5,
    pan: -0.08,
    room: 0.26,
    drive: 0.3,
    rings: 2,
    body: {
      pitch: 1720,
      sweep: 1.3,
      sweepTime: 0.004,
      modes: [
        { ratio: 1, level: 0.5, decay: 0.035 },
        { ratio: 1.63, level: 0.3, decay: 0.025 },
      ],
    },
    layers: [
      {
        source: 'noise',
        level: 1.2,
        filter: 'band',
        cutoff: 2500,
        q: 2.2,
        bright: 0.6,
        attack: 0.0003,
        decay: 0.075,
        bursts: { count: 1, every: 0.0085, decay: 0.01 },
      },
    ],
  },
};
