import type { Mode, Recipe } from '../recipe';

/** Something stiff and small that is struck: its modes, and what strikes it. */
interface Struck {
  level: number;
  pitch: number;
  pan: number;
  room?: number;
  drive?: number;
  rings?: number;
  /** Ratio to the lowest, level and seconds of each mode. */
  modes: readonly (readonly [ratio: number, level: number, decay: number])[];
  /** The stick: level, Hz, seconds. */
  stick: readonly [level: number, cutoff: number, decay: number];
}

function struck({ level, pitch, pan, room = 0.14, drive = 0, rings = 2, modes, stick }: Struck): Recipe {
  const [stickLevel, cutoff, decay] = stick;
  return {
    level,
    pan,
    room,
    drive,
    rings,
    body: {
      pitch,
      sweep: 1.01,
      sweepTime: 0.005,
      modes: modes.map(([ratio, of, seconds]): Mode => ({ ratio, level: of, decay: seconds })),
    },
    layers: [
      { source: 'noise', level: stickLevel, filter: 'band', cutoff, q: 0.8, bright: 1.2, hardness: 0.6, attack: 0.0002, decay, isClean: true }, // prettier-ignore
    ],
  };
}

/** Two welded plates: two tones a little wider than a fifth. */
export const cowbell = struck({
  level: 0.66,
  pitch: 547,
  pan: 0.26,
  room: 0.12,
  drive: 0.35,
  modes: [
    [1, 0.4, 0.3],
    [1.508, 0.44, 0.36],
    [2.97, 0.14, 0.14],
    [4.52, 0.09, 0.08],
  ],
  stick: [0.45, 4000, 0.014],
});

/** Two rounds of hard wood. A free bar's modes lie at 1, 2.76, 5.40 (Euler and Bernoulli's beam; from memory). */
export const clave = struck({
  level: 0.6,
  pitch: 2350,
  pan: -0.1,
  room: 0.2,
  modes: [
    [1, 0.7, 0.09],
    [2.756, 0.2, 0.03],
  ],
  stick: [0.5, 5200, 0.008],
});

/** A hollow block. */
export const woodBlock = struck({
  level: 0.6,
  pitch: 830,
  pan: -0.14,
  room: 0.16,
  modes: [
    [1, 0.7, 0.1],
    [2.42, 0.35, 0.05],
    [4.1, 0.15, 0.025],
  ],
  stick: [0.7, 3000, 0.012],
});

export const lowBlock = struck({
  level: 0.6,
  pitch: 545,
  pan: 0.24,
  room: 0.16,
  modes: [
    [1, 0.75, 0.13],
    [2.38, 0.35, 0.06],
    [4.2, 0.15, 0.03],
  ],
  stick: [0.6, 2400, 0.014],
});

/** A clay jar, struck on its belly. */
export const jar = struck({
  level: 0.62,
  pitch: 132,
  pan: -0.1,
  room: 0.16,
  modes: [
    [1, 0.8, 0.34],
    [2.2, 0.3, 0.12],
    [5.3, 0.25, 0.07],
    [8.1, 0.12, 0.04],
  ],
  stick: [0.5, 2100, 0.016],
});

/** A length of scaffold pipe: a free tube, whose modes spread like a bar's. */
export const pipe = struck({
  level: 0.5,
  pitch: 412,
  pan: 0.26,
  room: 0.2,
  rings: 3,
  modes: [
    [1, 0.4, 1.1],
    [2.756, 0.4, 0.8],
    [5.404, 0.3, 0.45],
    [8.933, 0.18, 0.25],
    [13.34, 0.08, 0.14],
  ],
  stick: [0.8, 5200, 0.012],
});

export const lowPipe = struck({
  level: 0.5,
  pitch: 176,
  pan: -0.3,
  room: 0.2,
  rings: 3,
  modes: [
    [1, 0.55, 1.2],
    [2.756, 0.4, 0.8],
    [5.404, 0.3, 0.5],
    [8.933, 0.16, 0.3],
    [13.34, 0.08, 0.16],
  ],
  stick: [0.7, 3600, 0.016],
});

export const midPipe = struck({
  level: 0.5,
  pitch: 251,
  pan: -0.05,
  room: 0.2,
  rings: 3,
  modes: [
    [1, 0.5, 1.1],
    [2.756, 0.4, 0.75],
    [5.404, 0.3, 0.45],
    [8.933, 0.16, 0.26],
    [13.34, 0.08, 0.14],
  ],
  stick: [0.7, 4200, 0.014],
});

/** A thin steel rod, bent and hung. */
export const triangle = struck({
  level: 0.42,
  pitch: 1240,
  pan: 0.3,
  room: 0.2,
  rings: 2,
  modes: [
    [1, 0.05, 1.4],
    [2.37, 0.16, 1.7],
    [3.62, 0.22, 1.9],
    [4.91, 0.2, 1.4],
    [6.58, 0.16, 1.1],
    [8.87, 0.1, 0.8],
  ],
  stick: [0.5, 9000, 0.01],
});

/** A small bell of sheet iron. */
export const smallBell = struck({
  level: 0.55,
  pitch: 880,
  pan: 0.26,
  room: 0.16,
  modes: [
    [1, 0.5, 0.5],
    [2.02, 0.3, 0.36],
    [3.11, 0.2, 0.22],
    [5.2, 0.12, 0.12],
  ],
  stick: [0.5, 5200, 0.01],
});

/** A coin on a counter. */
export const coin = struck({
  level: 0.5,
  pitch: 3120,
  pan: -0.1,
  room: 0.12,
  modes: [
    [1, 0.4, 0.28],
    [1.53, 0.35, 0.24],
    [2.21, 0.25, 0.16],
    [2.9, 0.15, 0.1],
  ],
  stick: [0.6, 8000, 0.006],
});

/** A fingernail on a tumbler. */
export const glass = struck({
  level: 0.5,
  pitch: 1380,
  pan: 0.2,
  room: 0.18,
  modes: [
    [1, 0.55, 0.5],
    [2.32, 0.3, 0.32],
    [4.25, 0.18, 0.18],
    [6.63, 0.1, 0.1],
  ],
  stick: [0.4, 6400, 0.006],
});
