import type { Recipe } from '../recipe';

/** A wooden drum: two heads that push each other apart in pitch, and wires under the lower one. */
export const snare: Recipe = {
  level: 0.58,
  pan: 0.03,
  room: 0.18,
  drive: 0.7,
  rings: 3,
  body: {
    pitch: 186,
    sweep: 1.22,
    sweepTime: 0.012,
    modes: [
      { ratio: 1, level: 0.8, decay: 0.17 },
      { ratio: 1.53, level: 0.3, decay: 0.1 },
      { ratio: 1.79, level: 0.4, decay: 0.12 },
      { ratio: 2.3, level: 0.16, decay: 0.06 },
    ],
  },
  layers: [
    {
      source: 'noise',
      level: 0.9,
      filter: 'band',
      cutoff: 3600,
      q: 0.5,
      bright: 1.2,
      hardness: 0.2,
      attack: 0.001,
      decay: 0.26,
    },
    {
      source: 'noise',
      level: 0.5,
      filter: 'band',
      cutoff: 7000,
      q: 0.6,
      bright: 1.2,
      hardness: 0.6,
      attack: 0.0004,
      decay: 0.075,
    },
    { source: 'noise', level: 0.5, filter: 'band', cutoff: 2600, q: 0.8, bright: 1, hardness: 0.6, attack: 0.0002, decay: 0.014, isClean: true }, // prettier-ignore
    {
      source: 'noise',
      level: 0.45,
      filter: 'band',
      cutoff: 4600,
      q: 0.5,
      bright: 1.2,
      attack: 0.002,
      decay: 0.17,
      isSide: true,
    },
  ],
};

/** A stick across the drum, whose end strikes the rim. */
export const rim: Recipe = {
  level: 0.95,
  pan: -0.12,
  room: 0.14,
  drive: 0,
  rings: 2,
  body: {
    pitch: 455,
    sweep: 1.08,
    sweepTime: 0.004,
    modes: [
      { ratio: 1, level: 0.5, decay: 0.085 },
      { ratio: 1.84, level: 0.7, decay: 0.055 },
      { ratio: 3.71, level: 0.5, decay: 0.03 },
      { ratio: 5.3, level: 0.2, decay: 0.018 },
    ],
  },
  layers: [
    { source: 'noise', level: 0.9, filter: 'band', cutoff: 3400, q: 0.9, bright: 1, hardness: 0.6, attack: 0.0002, decay: 0.014 }, // prettier-ignore
    {
      source: 'noise',
      level: 0.4,
      filter: 'band',
      cutoff: 1900,
      q: 0.7,
      bright: 0.8,
      attack: 0.0008,
      decay: 0.05,
      isSide: true,
    },
  ],
};

/** Some people's hands, none of them quite together. */
export const clap: Recipe = {
  level: 0.9,
  pan: 0.06,
  room: 0.3,
  drive: 0.9,
  rings: 2,
  layers: [
    { source: 'noise', level: 1.3, filter: 'band', cutoff: 1300, q: 1.2, bright: 0.6, attack: 0.0004, decay: 0.26, bursts: { count: 3, every: 0.011, decay: 0.022, uneven: 0.55 } }, // prettier-ignore
    { source: 'noise', level: 0.4, filter: 'band', cutoff: 5200, q: 0.5, bright: 1.3, hardness: 0.5, attack: 0.0003, decay: 0.09, bursts: { count: 3, every: 0.011, decay: 0.014, uneven: 0.55 } }, // prettier-ignore
    { source: 'noise', level: 0.75, filter: 'band', cutoff: 2000, q: 0.7, bright: 0.8, attack: 0.001, decay: 0.28, bursts: { count: 3, every: 0.011, decay: 0.02, uneven: 0.55 }, isSide: true }, // prettier-ignore
  ],
};

/** Finger and thumb. */
export const snap: Recipe = {
  level: 1.14,
  pan: -0.08,
  room: 0.26,
  drive: 0.6,
  rings: 2,
  body: {
    pitch: 1720,
    sweep: 1.2,
    sweepTime: 0.004,
    modes: [
      { ratio: 1, level: 0.4, decay: 0.035 },
      { ratio: 1.63, level: 0.25, decay: 0.025 },
    ],
  },
  layers: [
    { source: 'noise', level: 1.3, filter: 'band', cutoff: 2500, q: 1.2, bright: 0.8, attack: 0.0003, decay: 0.075, bursts: { count: 1, every: 0.009, decay: 0.01, uneven: 0.2 } }, // prettier-ignore
    { source: 'noise', level: 0.35, filter: 'band', cutoff: 7000, q: 0.5, bright: 1.6, hardness: 0.8, attack: 0.0003, decay: 0.03, bursts: { count: 1, every: 0.009, decay: 0.008, uneven: 0.2 } }, // prettier-ignore
    {
      source: 'noise',
      level: 0.8,
      filter: 'band',
      cutoff: 3200,
      q: 0.8,
      bright: 0.8,
      attack: 0.001,
      decay: 0.08,
      isSide: true,
    },
  ],
};

/** Two tones and a hiss: a circuit's snare. */
export const wireSnare: Recipe = {
  level: 0.55,
  pan: 0.02,
  room: 0.1,
  drive: 0.4,
  rings: 2,
  body: {
    pitch: 178,
    sweep: 1.9,
    sweepTime: 0.01,
    modes: [
      { ratio: 1, level: 0.8, decay: 0.14 },
      { ratio: 1.86, level: 0.5, decay: 0.1 },
    ],
  },
  layers: [
    {
      source: 'noise',
      level: 0.8,
      filter: 'band',
      cutoff: 7500,
      q: 0.6,
      bright: 1.4,
      hardness: 0.4,
      attack: 0.0004,
      decay: 0.24,
    },
    { source: 'noise', level: 0.7, filter: 'band', cutoff: 1900, q: 0.6, bright: 0.8, attack: 0.0004, decay: 0.1 },
    { source: 'noise', level: 0.35, filter: 'band', cutoff: 6000, q: 0.5, bright: 1, attack: 0.001, decay: 0.2, isSide: true }, // prettier-ignore
  ],
};

/** A bundle of wires swept over a skin. */
export const brushSnare: Recipe = {
  level: 1.2,
  pan: 0.03,
  room: 0.16,
  drive: 0,
  rings: 2,
  body: {
    pitch: 204,
    sweep: 1.05,
    sweepTime: 0.02,
    modes: [
      { ratio: 1, level: 0.35, decay: 0.12 },
      { ratio: 1.53, level: 0.16, decay: 0.08 },
    ],
  },
  layers: [
    { source: 'noise', level: 0.7, filter: 'band', cutoff: 2900, q: 0.5, bright: 1.2, attack: 0.012, decay: 0.3 },
    { source: 'grains', grains: 5000, level: 0.5, filter: 'band', cutoff: 5200, q: 0.6, bright: 1, hardness: 0.4, attack: 0.004, decay: 0.12 }, // prettier-ignore
    { source: 'noise', level: 0.4, filter: 'band', cutoff: 3600, q: 0.5, bright: 1, attack: 0.016, decay: 0.32, isSide: true }, // prettier-ignore
  ],
};

/** A shallow drum of steel: it cracks, and its shell rings. */
export const steelSnare: Recipe = {
  level: 0.56,
  pan: 0.03,
  room: 0.2,
  drive: 0.9,
  rings: 3,
  body: {
    pitch: 242,
    sweep: 1.15,
    sweepTime: 0.009,
    modes: [
      { ratio: 1, level: 0.55, decay: 0.14 },
      { ratio: 1.6, level: 0.35, decay: 0.2 },
      { ratio: 2.32, level: 0.25, decay: 0.26 },
      { ratio: 3.87, level: 0.14, decay: 0.22 },
    ],
  },
  layers: [
    { source: 'noise', level: 1, filter: 'band', cutoff: 5200, q: 0.5, bright: 1.2, hardness: 0.3, attack: 0.0006, decay: 0.2 }, // prettier-ignore
    { source: 'noise', level: 0.8, filter: 'band', cutoff: 3300, q: 0.8, bright: 1, hardness: 0.6, attack: 0.0002, decay: 0.012, isClean: true }, // prettier-ignore
    { source: 'noise', level: 0.5, filter: 'band', cutoff: 6200, q: 0.5, bright: 1, attack: 0.001, decay: 0.15, isSide: true }, // prettier-ignore
  ],
};

/** A deep drum in a stairwell. */
export const deepSnare: Recipe = {
  level: 0.55,
  pan: 0,
  room: 0.4,
  drive: 0.9,
  rings: 2,
  body: {
    pitch: 142,
    sweep: 1.3,
    sweepTime: 0.018,
    modes: [
      { ratio: 1, level: 0.85, decay: 0.3 },
      { ratio: 1.53, level: 0.4, decay: 0.18 },
      { ratio: 2.1, level: 0.25, decay: 0.12 },
    ],
  },
  layers: [
    { source: 'noise', level: 0.95, filter: 'band', cutoff: 2300, q: 0.5, bright: 1.2, hardness: 0.2, attack: 0.001, decay: 0.42 }, // prettier-ignore
    { source: 'noise', level: 0.4, filter: 'band', cutoff: 6000, q: 0.6, bright: 1.2, hardness: 0.6, attack: 0.0004, decay: 0.1 }, // prettier-ignore
    { source: 'noise', level: 0.6, filter: 'band', cutoff: 2800, q: 0.5, bright: 1, attack: 0.004, decay: 0.45, isSide: true }, // prettier-ignore
  ],
};

/** A flat hand near the edge: of a box with loose strings in it. */
export const boxSnare: Recipe = {
  level: 0.62,
  pan: 0.04,
  room: 0.14,
  drive: 0.5,
  rings: 2,
  body: {
    pitch: 216,
    sweep: 1.08,
    sweepTime: 0.008,
    modes: [
      { ratio: 1, level: 0.5, decay: 0.1 },
      { ratio: 1.83, level: 0.4, decay: 0.07 },
      { ratio: 3.2, level: 0.25, decay: 0.04 },
    ],
  },
  layers: [
    { source: 'noise', level: 0.9, filter: 'band', cutoff: 2600, q: 0.6, bright: 1.6, hardness: 0.4, attack: 0.0004, decay: 0.09 }, // prettier-ignore
    {
      source: 'grains',
      grains: 2400,
      level: 0.7,
      filter: 'band',
      cutoff: 4400,
      q: 0.7,
      bright: 1,
      attack: 0.003,
      decay: 0.13,
    },
    { source: 'noise', level: 0.3, filter: 'band', cutoff: 3200, q: 0.6, bright: 1, attack: 0.001, decay: 0.1, isSide: true }, // prettier-ignore
  ],
};

/** Two hands, once. */
export const slap: Recipe = {
  level: 0.85,
  pan: 0.08,
  room: 0.18,
  drive: 0.8,
  rings: 2,
  layers: [
    { source: 'noise', level: 1.2, filter: 'band', cutoff: 1650, q: 0.9, bright: 1, attack: 0.0003, decay: 0.11 },
    { source: 'noise', level: 0.7, filter: 'band', cutoff: 4600, q: 0.6, bright: 1.3, hardness: 0.6, attack: 0.0002, decay: 0.04 }, // prettier-ignore
    { source: 'noise', level: 0.5, filter: 'band', cutoff: 2300, q: 0.7, bright: 0.8, attack: 0.001, decay: 0.1, isSide: true }, // prettier-ignore
  ],
};

/** A circuit's clap: three even bursts and a tail. */
export const evenClap: Recipe = {
  level: 0.85,
  pan: 0,
  room: 0.12,
  drive: 0.5,
  rings: 2,
  layers: [
    { source: 'noise', level: 1.4, filter: 'band', cutoff: 1050, q: 1.8, bright: 0.7, attack: 0.0002, decay: 0.24, bursts: { count: 3, every: 0.0095, decay: 0.014, uneven: 0.1 } }, // prettier-ignore
    { source: 'noise', level: 0.4, filter: 'band', cutoff: 4200, q: 0.6, bright: 1.2, hardness: 0.6, attack: 0.0002, decay: 0.1, bursts: { count: 3, every: 0.0095, decay: 0.01, uneven: 0.1 } }, // prettier-ignore
  ],
};
