import type { Layer, Recipe } from '../recipe';

/** What all bass drums share: in the middle, nearly dry, one at a time. */
const KICK = { pan: 0, room: 0.03, rings: 1 } as const;

/** The beater's click: it stays sharp however hot the body is driven. */
function click(level: number, cutoff: number, decay: number): Layer {
  return { source: 'noise', level, filter: 'band', cutoff, q: 0.6, bright: 1.5, hardness: 0.6, attack: 0.0002, decay, isClean: true }; // prettier-ignore
}

/** Round, and dry: a felt beater on a damped drum. */
export const kick: Recipe = {
  ...KICK,
  level: 0.62,
  drive: 1.1,
  body: {
    pitch: 50,
    sweep: 5.2,
    sweepTime: 0.021,
    modes: [
      { ratio: 1, level: 1, decay: 0.5 },
      { ratio: 2.02, level: 0.16, decay: 0.12 },
      { ratio: 3.6, level: 0.06, decay: 0.06 },
    ],
  },
  layers: [
    click(1.3, 3400, 0.014),
    { source: 'noise', level: 0.18, filter: 'low', cutoff: 700, q: 0.7, bright: 1, attack: 0.0005, decay: 0.045 },
  ],
};

/** One long sine that sinks: no drum, a circuit. */
export const longKick: Recipe = {
  ...KICK,
  level: 0.62,
  drive: 0.5,
  body: {
    pitch: 44,
    sweep: 3.4,
    sweepTime: 0.032,
    modes: [
      { ratio: 1, level: 1, decay: 1.3 },
      { ratio: 2, level: 0.07, decay: 0.4 },
    ],
  },
  layers: [click(0.5, 2200, 0.01)],
};

/** Hard and short, for loud rooms: a fast fall from high up, driven until it barks. */
export const hardKick: Recipe = {
  ...KICK,
  level: 0.56,
  drive: 3.2,
  body: {
    pitch: 52,
    sweep: 9,
    sweepTime: 0.014,
    modes: [
      { ratio: 1, level: 1, decay: 0.42 },
      { ratio: 1.5, level: 0.12, decay: 0.07 },
    ],
  },
  layers: [click(1.6, 4200, 0.01)],
};

/** A mallet wrapped in cloth: all air. */
export const softKick: Recipe = {
  ...KICK,
  level: 0.8,
  room: 0.06,
  drive: 0,
  body: {
    pitch: 57,
    sweep: 1.8,
    sweepTime: 0.03,
    modes: [
      { ratio: 1, level: 0.9, decay: 0.5 },
      { ratio: 1.6, level: 0.2, decay: 0.2 },
      { ratio: 2.2, level: 0.08, decay: 0.12 },
    ],
  },
  layers: [
    { source: 'noise', level: 0.45, filter: 'low', cutoff: 700, q: 0.6, bright: 1.6, hardness: 0.5, attack: 0.003, decay: 0.1 }, // prettier-ignore
    { source: 'noise', level: 0.12, filter: 'band', cutoff: 1300, q: 0.6, bright: 1.6, hardness: 0.9, attack: 0.001, decay: 0.03 }, // prettier-ignore
  ],
};

/** A heel on a wooden box. */
export const boxKick: Recipe = {
  ...KICK,
  level: 0.62,
  room: 0.1,
  drive: 0.5,
  body: {
    pitch: 74,
    sweep: 1.5,
    sweepTime: 0.012,
    modes: [
      { ratio: 1, level: 0.9, decay: 0.26 },
      { ratio: 1.72, level: 0.4, decay: 0.14 },
      { ratio: 2.9, level: 0.25, decay: 0.08 },
      { ratio: 4.4, level: 0.12, decay: 0.05 },
    ],
  },
  layers: [
    click(0.8, 2400, 0.018),
    { source: 'noise', level: 0.3, filter: 'band', cutoff: 520, q: 0.7, bright: 0.8, attack: 0.0008, decay: 0.07 },
  ],
};

/** A very large drum far down a hall. */
export const bigKick: Recipe = {
  ...KICK,
  level: 0.62,
  room: 0.2,
  drive: 0.7,
  rings: 2,
  body: {
    pitch: 41,
    sweep: 1.45,
    sweepTime: 0.05,
    modes: [
      { ratio: 1, level: 0.9, decay: 1.4 },
      { ratio: 1.5, level: 0.35, decay: 0.8 },
      { ratio: 1.98, level: 0.2, decay: 0.5 },
      { ratio: 2.44, level: 0.12, decay: 0.35 },
    ],
  },
  layers: [
    click(0.6, 1800, 0.03),
    { source: 'noise', level: 0.35, filter: 'low', cutoff: 380, q: 0.6, bright: 1, attack: 0.002, decay: 0.2 },
  ],
};
