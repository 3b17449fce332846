import type { Recipe } from '../recipe';

/** The stick, then the plate, whose middle lives on when its highs are long gone. */
export const crash: Recipe = {
  level: 0.21,
  pan: -0.22,
  room: 0.16,
  drive: 0,
  rings: 3,
  layers: [
    { source: 'metal', level: 1.1, filter: 'band', cutoff: 3600, q: 0.5, bright: 0.9, attack: 0.02, decay: 3 },
    {
      source: 'metal',
      level: 1.3,
      filter: 'band',
      cutoff: 9500,
      q: 0.5,
      bright: 1.1,
      hardness: 0.4,
      attack: 0.01,
      decay: 1.3,
    },
    {
      source: 'noise',
      level: 0.6,
      filter: 'band',
      cutoff: 7500,
      q: 0.5,
      bright: 1.2,
      hardness: 0.5,
      attack: 0.0006,
      decay: 0.16,
    },
    {
      source: 'metal',
      level: 0.75,
      filter: 'band',
      cutoff: 6500,
      q: 0.5,
      bright: 1,
      attack: 0.015,
      decay: 2,
      isSide: true,
    },
  ],
  closes: 0.04,
};

export const ride: Recipe = {
  level: 0.43,
  pan: 0.28,
  room: 0.1,
  drive: 0,
  rings: 4,
  body: {
    pitch: 562,
    sweep: 1,
    sweepTime: 0.01,
    modes: [
      { ratio: 1, level: 0.07, decay: 0.9 },
      { ratio: 2.91, level: 0.11, decay: 1.1 },
      { ratio: 4.23, level: 0.09, decay: 0.7 },
    ],
  },
  layers: [
    { source: 'metal', level: 0.75, filter: 'band', cutoff: 6000, q: 0.5, bright: 0.9, attack: 0.008, decay: 2 },
    {
      source: 'noise',
      level: 0.9,
      filter: 'band',
      cutoff: 6800,
      q: 0.7,
      bright: 1,
      hardness: 0.6,
      attack: 0.0002,
      decay: 0.018,
    },
    {
      source: 'metal',
      level: 0.45,
      filter: 'band',
      cutoff: 7500,
      q: 0.5,
      bright: 1,
      attack: 0.012,
      decay: 1.5,
      isSide: true,
    },
  ],
  closes: 0.04,
};

/** A circuit's crash: hiss that dies evenly, with a hard edge. */
export const hissCrash: Recipe = {
  level: 0.3,
  pan: -0.16,
  room: 0.1,
  drive: 0,
  rings: 2,
  layers: [
    { source: 'noise', level: 0.8, filter: 'band', cutoff: 8500, q: 0.5, bright: 1.4, attack: 0.001, decay: 1.6 },
    { source: 'metal', level: 0.8, filter: 'band', cutoff: 6400, q: 0.7, bright: 1.2, attack: 0.002, decay: 1.1 },
    { source: 'noise', level: 0.6, filter: 'band', cutoff: 9500, q: 0.5, bright: 1.4, attack: 0.002, decay: 1.5, isSide: true }, // prettier-ignore
  ],
  closes: 0.04,
};

/** A sheet of tin, torn down a stair. */
export const sheet: Recipe = {
  level: 0.3,
  pan: -0.24,
  room: 0.24,
  drive: 0.6,
  rings: 2,
  body: {
    pitch: 213,
    sweep: 1,
    sweepTime: 0.01,
    modes: [
      { ratio: 1, level: 0.1, decay: 1.2 },
      { ratio: 1.37, level: 0.12, decay: 1.4 },
      { ratio: 2.93, level: 0.12, decay: 1.1 },
      { ratio: 4.18, level: 0.1, decay: 0.9 },
    ],
  },
  layers: [
    { source: 'metal', level: 1.2, filter: 'band', cutoff: 2300, q: 0.5, bright: 1.1, attack: 0.004, decay: 1.9 },
    { source: 'grains', grains: 900, level: 0.5, filter: 'band', cutoff: 5200, q: 0.7, bright: 1.2, hardness: 0.5, attack: 0.004, decay: 0.6 }, // prettier-ignore
    {
      source: 'metal',
      level: 0.8,
      filter: 'band',
      cutoff: 3200,
      q: 0.5,
      bright: 1,
      attack: 0.006,
      decay: 1.6,
      isSide: true,
    },
  ],
  closes: 0.05,
};
