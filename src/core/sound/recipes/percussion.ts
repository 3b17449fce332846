import type { Recipe } from '../recipe';

/** Beads thrown forward, and falling back. */
export const shaker: Recipe = {
  level: 0.39,
  pan: -0.3,
  room: 0.08,
  drive: 0.7,
  rings: 2,
  layers: [
    {
      source: 'grains',
      grains: 8000,
      level: 1.2,
      filter: 'band',
      cutoff: 6600,
      q: 0.7,
      bright: 1.1,
      attack: 0.006,
      decay: 0.12,
    },
    { source: 'grains', grains: 5000, level: 0.5, filter: 'band', cutoff: 5200, q: 0.9, bright: 1.1, attack: 0.01, decay: 0.07, after: 0.052 }, // prettier-ignore
    {
      source: 'noise',
      level: 0.35,
      filter: 'band',
      cutoff: 11000,
      q: 0.6,
      bright: 1.2,
      hardness: 0.5,
      attack: 0.004,
      decay: 0.05,
    },
    { source: 'grains', grains: 6000, level: 0.6, filter: 'band', cutoff: 7600, q: 0.8, bright: 1.1, attack: 0.008, decay: 0.12, isSide: true }, // prettier-ignore
  ],
};

/** A frame of small jingles that meet one after the other. */
export const tambourine: Recipe = {
  level: 0.35,
  pan: -0.18,
  room: 0.12,
  drive: 0.6,
  rings: 2,
  layers: [
    { source: 'metal', level: 1, filter: 'band', cutoff: 10500, q: 0.7, bright: 1, attack: 0.001, decay: 0.36, bursts: { count: 2, every: 0.014, decay: 0.05, uneven: 0.5 } }, // prettier-ignore
    {
      source: 'grains',
      grains: 1600,
      level: 0.7,
      filter: 'band',
      cutoff: 8600,
      q: 1,
      bright: 1,
      attack: 0.003,
      decay: 0.16,
    },
    { source: 'noise', level: 0.35, filter: 'band', cutoff: 1700, q: 0.8, bright: 1, attack: 0.0003, decay: 0.02 },
    {
      source: 'metal',
      level: 0.6,
      filter: 'band',
      cutoff: 10000,
      q: 0.6,
      bright: 1,
      attack: 0.003,
      decay: 0.32,
      isSide: true,
    },
  ],
};

/** Seeds in a dry gourd: shorter and harder than a shaker. */
export const maraca: Recipe = {
  level: 0.55,
  pan: -0.26,
  room: 0.08,
  drive: 0.5,
  rings: 2,
  layers: [
    { source: 'grains', grains: 8000, level: 1.4, filter: 'band', cutoff: 4600, q: 0.8, bright: 1.1, attack: 0.002, decay: 0.09 }, // prettier-ignore
    { source: 'grains', grains: 9000, level: 0.7, filter: 'band', cutoff: 8200, q: 0.8, bright: 1.1, hardness: 0.5, attack: 0.001, decay: 0.06 }, // prettier-ignore
    { source: 'grains', grains: 8000, level: 0.5, filter: 'band', cutoff: 5600, q: 0.9, bright: 1, attack: 0.003, decay: 0.06, isSide: true }, // prettier-ignore
  ],
};

/** Hiss for sixteenths: a circuit's shaker. */
export const hiss: Recipe = {
  level: 0.5,
  pan: -0.2,
  room: 0.04,
  drive: 0,
  rings: 2,
  layers: [
    { source: 'noise', level: 0.9, filter: 'band', cutoff: 8600, q: 0.8, bright: 1.4, attack: 0.009, decay: 0.11 },
    { source: 'noise', level: 0.45, filter: 'band', cutoff: 10500, q: 0.7, bright: 1.4, attack: 0.012, decay: 0.1, isSide: true }, // prettier-ignore
  ],
};

/** A chain let down on stone. */
export const chain: Recipe = {
  level: 0.42,
  pan: -0.28,
  room: 0.16,
  drive: 0.4,
  rings: 2,
  layers: [
    { source: 'grains', grains: 3000, level: 1.5, filter: 'band', cutoff: 3800, q: 0.8, bright: 1.6, attack: 0.003, decay: 0.26 }, // prettier-ignore
    {
      source: 'metal',
      level: 0.6,
      filter: 'band',
      cutoff: 6800,
      q: 0.7,
      bright: 1,
      hardness: 0.3,
      attack: 0.003,
      decay: 0.2,
    },
    { source: 'grains', grains: 1600, level: 0.9, filter: 'band', cutoff: 5400, q: 1.1, bright: 1.6, attack: 0.006, decay: 0.3, isSide: true }, // prettier-ignore
  ],
};

/** A notched stick, scraped: teeth one after the other, then the last. */
export const scraper: Recipe = {
  level: 0.5,
  pan: 0.22,
  room: 0.12,
  drive: 0.4,
  rings: 1,
  layers: [
    { source: 'noise', level: 1, filter: 'band', cutoff: 2700, q: 1.3, bright: 1.1, attack: 0.0006, decay: 0.06, bursts: { count: 9, every: 0.013, decay: 0.02, uneven: 0.35 } }, // prettier-ignore
    { source: 'noise', level: 0.5, filter: 'band', cutoff: 5400, q: 0.8, bright: 1.2, hardness: 0.4, attack: 0.0004, decay: 0.04, bursts: { count: 9, every: 0.013, decay: 0.012, uneven: 0.35 } }, // prettier-ignore
  ],
};

/** Keys on a ring. */
export const keyRing: Recipe = {
  level: 0.45,
  pan: -0.16,
  room: 0.1,
  drive: 0.6,
  rings: 2,
  body: {
    pitch: 4100,
    sweep: 1,
    sweepTime: 0.01,
    modes: [
      { ratio: 1, level: 0.16, decay: 0.2 },
      { ratio: 1.31, level: 0.14, decay: 0.24 },
      { ratio: 1.77, level: 0.12, decay: 0.16 },
    ],
  },
  layers: [
    { source: 'grains', grains: 3200, level: 1.4, filter: 'band', cutoff: 7200, q: 1, bright: 1.5, attack: 0.002, decay: 0.22 }, // prettier-ignore
    { source: 'metal', level: 0.5, filter: 'band', cutoff: 11000, q: 0.8, bright: 1, attack: 0.001, decay: 0.14 },
    { source: 'grains', grains: 2600, level: 0.9, filter: 'band', cutoff: 9000, q: 1.3, bright: 1.5, attack: 0.004, decay: 0.24, isSide: true }, // prettier-ignore
  ],
};
