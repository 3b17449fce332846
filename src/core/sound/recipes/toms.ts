import type { Recipe } from '../recipe';

/** Low drums stand to the left, high ones to the right. */
const PLACES = { low: -0.3, mid: -0.05, high: 0.22 };

/**
 * A drum of two heads. Under a hard stroke the skin is stretched and stands a few per cent higher for a moment; the air in it brings
 * its modes near to whole ratios (Fletcher and Rossing, The Physics of Musical Instruments, on membranes; from memory).
 */
function tom(pitch: number, decay: number, pan: number): Recipe {
  return {
    level: 0.52,
    pan,
    room: 0.16,
    drive: 0,
    rings: 2,
    body: {
      pitch,
      sweep: 1.12,
      sweepTime: 0.045,
      modes: [
        { ratio: 1, level: 0.85, decay },
        { ratio: 1.51, level: 0.42, decay: decay * 0.62 },
        { ratio: 1.99, level: 0.24, decay: decay * 0.45 },
        { ratio: 2.46, level: 0.14, decay: decay * 0.3 },
      ],
    },
    layers: [
      { source: 'noise', level: 0.5, filter: 'band', cutoff: 3200, q: 0.7, bright: 1, hardness: 0.6, attack: 0.0002, decay: 0.016 }, // prettier-ignore
      {
        source: 'noise',
        level: 0.16,
        filter: 'low',
        cutoff: 1200,
        q: 0.7,
        bright: 1,
        attack: 0.002,
        decay: decay * 0.4,
      },
    ],
  };
}

export const lowTom = tom(86, 0.62, PLACES.low);
export const midTom = tom(122, 0.52, PLACES.mid);
export const highTom = tom(168, 0.42, PLACES.high);

/** A circuit's idea of a tom: one tone that falls nearly an octave. */
function fallingTom(pitch: number, decay: number, pan: number): Recipe {
  return {
    level: 0.52,
    pan,
    room: 0.08,
    drive: 0.4,
    rings: 2,
    body: {
      pitch,
      sweep: 1.75,
      sweepTime: 0.06,
      modes: [
        { ratio: 1, level: 1, decay },
        { ratio: 2.02, level: 0.1, decay: decay * 0.4 },
      ],
    },
    layers: [
      { source: 'noise', level: 0.35, filter: 'band', cutoff: 2600, q: 0.6, bright: 1.4, hardness: 0.6, attack: 0.0002, decay: 0.02, isClean: true }, // prettier-ignore
      {
        source: 'noise',
        level: 0.12,
        filter: 'band',
        cutoff: 1200,
        q: 0.6,
        bright: 1,
        attack: 0.002,
        decay: decay * 0.4,
      },
    ],
  };
}

export const lowFall = fallingTom(72, 0.8, PLACES.low);
export const midFall = fallingTom(104, 0.7, PLACES.mid);
export const highFall = fallingTom(150, 0.6, PLACES.high);

/** A tall hand drum: flesh on skin, whose tone stands and hardly falls. */
function handDrum(pitch: number, decay: number, pan: number, slap: number): Recipe {
  return {
    level: 0.52,
    pan,
    room: 0.12,
    drive: 0,
    rings: 2,
    body: {
      pitch,
      sweep: 1.05,
      sweepTime: 0.02,
      modes: [
        { ratio: 1, level: 0.9, decay },
        { ratio: 1.96, level: 0.3, decay: decay * 0.5 },
        { ratio: 2.83, level: 0.2, decay: decay * 0.3 },
        { ratio: 4.1, level: 0.1, decay: decay * 0.2 },
      ],
    },
    layers: [
      { source: 'noise', level: slap, filter: 'band', cutoff: 1900, q: 0.8, bright: 1.2, hardness: 0.6, attack: 0.0004, decay: 0.03 }, // prettier-ignore
      {
        source: 'noise',
        level: 0.2,
        filter: 'band',
        cutoff: pitch * 3,
        q: 0.7,
        bright: 0.6,
        attack: 0.001,
        decay: 0.06,
      },
    ],
  };
}

export const lowHand = handDrum(118, 0.4, PLACES.low, 0.35);
export const midHand = handDrum(186, 0.32, PLACES.mid, 0.5);
export const highHand = handDrum(262, 0.22, PLACES.high, 0.8);

/** A kettle of copper: one clear tone with its fifth and octave, long. */
function kettle(pitch: number, decay: number, pan: number): Recipe {
  return {
    level: 0.5,
    pan,
    room: 0.3,
    drive: 0,
    rings: 3,
    body: {
      pitch,
      sweep: 1.02,
      sweepTime: 0.05,
      modes: [
        { ratio: 1, level: 0.7, decay },
        { ratio: 1.5, level: 0.45, decay: decay * 0.8 },
        { ratio: 1.98, level: 0.3, decay: decay * 0.6 },
        { ratio: 2.44, level: 0.18, decay: decay * 0.45 },
        { ratio: 0.56, level: 0.25, decay: decay * 0.2 },
      ],
    },
    layers: [
      {
        source: 'noise',
        level: 0.4,
        filter: 'low',
        cutoff: 900,
        q: 0.6,
        bright: 1.4,
        hardness: 0.5,
        attack: 0.001,
        decay: 0.09,
      },
      { source: 'noise', level: 0.14, filter: 'band', cutoff: 2600, q: 0.6, bright: 1, hardness: 0.7, attack: 0.0004, decay: 0.03 }, // prettier-ignore
    ],
  };
}

export const lowKettle = kettle(78, 2, PLACES.low);
export const midKettle = kettle(104, 1.7, PLACES.mid);
export const highKettle = kettle(139, 1.4, PLACES.high);
