import type { Recipe } from '../recipe';

/** Seconds in which a ringing hat falls shut. */
const CLOSES = 0.032;

export const closedHat: Recipe = {
  level: 0.6,
  pan: 0.2,
  room: 0.05,
  drive: 0.6,
  rings: 1,
  layers: [
    { source: 'metal', level: 1, filter: 'band', cutoff: 9500, q: 0.6, bright: 1.1, attack: 0.0005, decay: 0.19 },
    { source: 'noise', level: 0.3, filter: 'high', cutoff: 7000, q: 0.7, hardness: 0.8, attack: 0.0002, decay: 0.022 },
    {
      source: 'metal',
      level: 0.5,
      filter: 'band',
      cutoff: 10500,
      q: 0.6,
      bright: 1.1,
      attack: 0.001,
      decay: 0.14,
      isSide: true,
    },
  ],
  closes: CLOSES,
};

export const pedalHat: Recipe = {
  level: 0.6,
  pan: 0.2,
  room: 0.05,
  drive: 0.6,
  rings: 1,
  body: { pitch: 310, sweep: 1.15, sweepTime: 0.01, modes: [{ ratio: 1, level: 0.1, decay: 0.03 }] },
  layers: [
    { source: 'metal', level: 1, filter: 'band', cutoff: 7000, q: 0.6, bright: 1, attack: 0.005, decay: 0.2 },
    {
      source: 'noise',
      level: 0.3,
      filter: 'band',
      cutoff: 4200,
      q: 0.8,
      bright: 0.8,
      hardness: 0.5,
      attack: 0.001,
      decay: 0.04,
    },
    {
      source: 'metal',
      level: 0.45,
      filter: 'band',
      cutoff: 8000,
      q: 0.6,
      bright: 1,
      attack: 0.005,
      decay: 0.16,
      isSide: true,
    },
  ],
  closes: CLOSES,
};

export const openHat: Recipe = {
  level: 0.28,
  pan: 0.2,
  room: 0.08,
  drive: 0.4,
  rings: 1,
  layers: [
    {
      source: 'metal',
      level: 1.1,
      filter: 'band',
      cutoff: 10000,
      q: 0.6,
      bright: 1,
      hardness: 0.3,
      attack: 0.003,
      decay: 0.5,
    },
    { source: 'metal', level: 0.8, filter: 'band', cutoff: 5400, q: 0.6, bright: 0.8, attack: 0.006, decay: 0.85 },
    {
      source: 'noise',
      level: 0.4,
      filter: 'band',
      cutoff: 9500,
      q: 0.6,
      bright: 1.2,
      hardness: 0.5,
      attack: 0.0002,
      decay: 0.06,
    },
    {
      source: 'metal',
      level: 0.6,
      filter: 'band',
      cutoff: 8500,
      q: 0.5,
      bright: 1,
      attack: 0.005,
      decay: 0.6,
      isSide: true,
    },
  ],
  closes: CLOSES,
};

/** What a circuit makes of a hat: hiss with a few high tones in it. */
const THIN = { pitch: 3320, sweep: 1, sweepTime: 0.01 };
const THIN_MODES = [1, 1.43, 1.71, 2.16, 2.59] as const;

function thinHat(level: number, decay: number, closes?: number): Recipe {
  return {
    level,
    pan: 0.16,
    room: 0.03,
    drive: 0,
    rings: 1,
    body: { ...THIN, modes: THIN_MODES.map((ratio) => ({ ratio, level: 0.11, decay: decay * 0.8 })) },
    layers: [
      { source: 'noise', level: 0.9, filter: 'band', cutoff: 11000, q: 0.8, bright: 1.4, attack: 0.0003, decay },
      { source: 'noise', level: 0.4, filter: 'band', cutoff: 8000, q: 0.7, bright: 1.2, hardness: 0.6, attack: 0.0002, decay: decay * 0.3 }, // prettier-ignore
      { source: 'noise', level: 0.35, filter: 'band', cutoff: 12000, q: 0.7, bright: 1.4, attack: 0.001, decay: decay * 0.8, isSide: true }, // prettier-ignore
    ],
    ...(closes !== undefined && { closes }),
  };
}

export const closedThin = thinHat(0.6, 0.14, 0.025);
export const pedalThin = thinHat(0.55, 0.24, 0.025);
export const openThin = thinHat(0.4, 0.8, 0.025);

/** Loose scrap that falls together: grains among the metal. */
function scrapHat(level: number, decay: number, grains: number): Recipe {
  return {
    level,
    pan: 0.22,
    room: 0.1,
    drive: 0.4,
    rings: 1,
    layers: [
      { source: 'metal', level: 0.9, filter: 'band', cutoff: 4600, q: 0.6, bright: 1.3, attack: 0.0008, decay },
      { source: 'grains', grains, level: 1, filter: 'band', cutoff: 6400, q: 0.9, bright: 1.5, hardness: 0.3, attack: 0.001, decay: decay * 1.2 }, // prettier-ignore
      {
        source: 'metal',
        level: 0.5,
        filter: 'band',
        cutoff: 5600,
        q: 0.6,
        bright: 1.3,
        attack: 0.001,
        decay,
        isSide: true,
      },
    ],
    closes: CLOSES,
  };
}

export const closedScrap = scrapHat(0.5, 0.17, 4000);
export const pedalScrap = scrapHat(0.45, 0.24, 3000);
export const openScrap = scrapHat(0.32, 0.75, 4000);
