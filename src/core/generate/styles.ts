import type { SoundKind } from '../document/soundKinds';

/**
 * Families of beats, told by their feel and the tempos at which they are at home. What marks each (where the kick, the
 * backbeat and the hats lie) and the ranges are common practice of the trade.
 */
export interface Style {
  name: string;
  feel: string;
  /** BPM, from and to. */
  tempo: readonly [number, number];
  /** Where the second of two sixteenths lies, as a share of both; 0.5 is straight. */
  swing: number;
  /**
   * A bar of sixteenths for each sound: `X` always, `9`..`1` as likely as so many tenths, `-` never.
   */
  lanes: Partial<Record<SoundKind, string>>;
}

export const STYLES = {
  laidBack: {
    name: 'Laid back',
    feel: 'Hip-hop: the kick leaves room, the hats lean',
    tempo: [80, 100],
    swing: 0.58,
    lanes: {
      kick: 'X--2--4--2X-3--2',
      snare: '----X--2-1--X--1',
      closedHat: 'X-X1X-X2X-X1X-X3',
      openHat: '--------------3-',
      rim: '-------2---2----',
      shaker: '--3---3---3---3-',
    },
  },
  fourFloor: {
    name: 'Four on the floor',
    feel: 'House: a kick on every beat, open hats between',
    tempo: [120, 140],
    swing: 0.53,
    lanes: {
      kick: 'X---X---X---X---',
      clap: '----X-------X---',
      openHat: '--X---X---X---X-',
      closedHat: '7-5-7-5-7-5-7-5-',
      shaker: '5353535353535353',
      cowbell: '---2--3---2--2--',
      snare: '-------2------2-',
    },
  },
  driving: {
    name: 'Driving',
    feel: 'Trance: straight on, sixteenths that roll',
    tempo: [132, 140],
    swing: 0.5,
    lanes: {
      kick: 'X---X---X---X---',
      clap: '----X-------X---',
      openHat: '--X---X---X---X-',
      closedHat: 'X8X8X8X8X8X8X8X8',
      ride: '--4---4---4---4-',
      tambourine: '----5-------5---',
    },
  },
  halfTime: {
    name: 'Half time',
    feel: 'One backbeat a bar, on three; hats that run',
    tempo: [130, 150],
    swing: 0.5,
    lanes: {
      kick: 'X--3--2---3--2--',
      snare: '--------X-------',
      clap: '--------7-------',
      closedHat: 'X-X3X-X3X-X5X3X5',
      openHat: '------2-------2-',
      rim: '---2-----2------',
    },
  },
  broken: {
    name: 'Broken',
    feel: 'Breaks: the kick stumbles, ghost notes answer',
    tempo: [160, 176],
    swing: 0.54,
    lanes: {
      kick: 'X-6-------X5----',
      snare: '----X--5-5--X--4',
      closedHat: 'X-X-X-X-X-X-X-X-',
      openHat: '----------3-----',
      ride: '--2---2---2---2-',
    },
  },
  backbeat: {
    name: 'Backbeat',
    feel: 'Rock: one and three, two and four',
    tempo: [96, 132],
    swing: 0.5,
    lanes: {
      kick: 'X--1--3-X-4--1--',
      snare: '----X-------X--1',
      closedHat: 'X-X-X-X-X-X-X-X-',
      openHat: '--------------2-',
      crash: '2---------------',
    },
  },
} as const satisfies Record<string, Style>;

export type StyleName = keyof typeof STYLES;
export const STYLE_NAMES = Object.keys(STYLES) as StyleName[];

/** The families at home at a tempo, the nearest first. */
export function stylesAt(tempo: number): StyleName[] {
  const off = (name: StyleName) => {
    const [from, to] = STYLES[name].tempo;
    return Math.max(0, from - tempo, tempo - to);
  };
  return [...STYLE_NAMES].sort((a, b) => off(a) - off(b));
}
