import { gridTicks } from '../quantize/grid';
import { msToTicks, ticksPerBar } from '../time/ticks';
import { newSet } from './create';
import { FOUR_FOUR, handMs, writtenPattern, type Playing, type WrittenLanes } from './written';
import type { OpenSet } from './set';
import { FIRST_STAGE, WAITING_STAGE } from './stage';
import { idsFrom } from './hit';
import type { Pattern } from './pattern';
import { newTrack } from './track';
import type { Section } from './section';

/**
 * The demo: *Rink Night*, a Saturday evening at a roller-skating rink beside a canal. Two bars that roll: four on the
 * floor, the backbeat answered by a ghost note, open hats between the beats, a shaker that leans late. Percussion, a bass
 * along the kerb and lamps on the water wait to be dropped in; five sections lead through the evening.
 */
export function demoSet(): OpenSet {
  const ids = idsFrom(1);
  const drums = (name: string, lanes: WrittenLanes) => writtenPattern(name, lanes, HANDS, ids);
  const wheels = ['Fast Laps', 'Four Wheels', 'Brake', 'Warm Up'].map((name, i) => drums(name, WHEELS[i]!));
  const rails = ['Hand-offs', 'Ticks', 'Rattle'].map((name, i) => drums(name, RAILS[i]!));
  const kerb = ['Low Kerb', 'Long Kerb'].map((name, i) => tonePattern(name, KERB[i]!, ids));
  const lamps = ['Glow', 'Blink'].map((name, i) => tonePattern(name, LAMPS[i]!, ids));
  const minor = { root: 9, scale: 'minor', chromatic: false, octave: 0 } as const;
  const set = newSet('Rink Night', 112, [
    newTrack('Wheels', 1, wheels),
    { ...newTrack('Rails', 5, rails), id: 1 },
    { ...newTrack('Kerb', 4, kerb), id: 2, tones: { voice: 'bass', ...minor } },
    { ...newTrack('Lamps', 7, lamps), id: 3, tones: { voice: 'keys', ...minor } },
  ]);
  const tracks = { 0: FIRST_STAGE, 1: WAITING_STAGE, 2: WAITING_STAGE, 3: WAITING_STAGE };
  return { set: { ...set, sections: demoSections() }, stage: { shown: 0, tracks } };
}

/** Slots of Wheels, Rails, Kerb and Lamps, null where a track stops, and how often each goes round before the next. */
const EVENING: readonly (readonly [name: string, colour: number, plays: readonly (number | null)[], rounds: number])[] =
  [
    ['Doors', 0, [3, null, null, 0], 2],
    ['First Laps', 2, [1, 1, 0, null], 4],
    ['Fast Laps', 1, [0, 0, 0, 0], 4],
    ['Couples Only', 6, [2, null, 1, 1], 4],
    ['Last Lap', 4, [0, 2, 1, 1], 4],
  ];

function demoSections(): Section[] {
  return EVENING.map(([name, colour, plays, rounds], i) => ({
    id: i + 1,
    name,
    colour,
    parts: plays.map((slot, track) => ({ track, plays: slot })),
    rounds,
  }));
}

const WHEELS: readonly WrittenLanes[] = [
  [
    ['kick', 'X---9---X---9-5- X---9---X--69---', -2],
    ['snare', '----9--3----9--- ----9--3-2--9--4', 3],
    ['clap', '---------------- ------------7---', 5],
    ['closedHat', '85--75--85--75-- 85--75--85--75--', -4],
    ['openHat', '--7---7---7---7- --7---7---7---8-', 2],
    ['shaker', '4364436443644364 4364436443644364', 6],
    ['cowbell', '------------5--- ---5--4-----5-4-', 0],
    ['tambourine', '----6-------6--- ----6-------6---', 4],
    ['snap', '-----------4---- ------------5---', -3],
  ],
  [
    ['kick', 'X---9---X---9--- X---9---X---9-4-', -2],
    ['snap', '----7-------7--- ----7-------7---', 2],
    ['closedHat', '--7---7---7---7- --7---7---7-5-7-', 1],
  ],
  [
    ['kick', 'X---------5-----', 0],
    ['snare', '--------9-------', 4],
    ['ride', '7---6---7---6-6-', 3],
  ],
  [
    ['kick', 'X-------9------- X-------9-----5-', -1],
    ['closedHat', '--5---5---5---5- --5---5---5---5-', 2],
    ['shaker', '3-4-3-4-3-4-3-4- 3-4-3-4-3-4-3-4-', 6],
  ],
];

const RAILS: readonly WrittenLanes[] = [
  [
    ['lowTom', '---5--6-----5--- ---5--6---4-5---', 3],
    ['highTom', '------------6-5- ------------6-57', 2],
    ['cowbell', '5--5--5--5--5--- 5--5--5--5--5-4-', -1],
  ],
  [
    ['rim', '--4--4----4--4--', 2],
    ['tambourine', '----5-------6---', 4],
  ],
  [
    ['shaker', '6565656565656565', 5],
    ['midTom', '5--4--5--4--5-4-', 1],
    ['clap', '----7-------7---', 3],
  ],
];

/** Pulled hard to the grid. */
const HANDS: Playing = { tempo: 112, strength: 1 };

/** Notes: pad (a degree of the scale), and where each begins and ends in sixteenths, with its velocity. */
type Notes = { bars: number; notes: readonly (readonly [pad: number, from: number, to: number, velocity: number])[] };

const KERB: readonly Notes[] = [
  { bars: 2, notes: [[7, 0, 3, 0.9], [7, 6, 7, 0.6], [7, 10, 12, 0.8], [9, 14, 16, 0.7], [7, 16, 19, 0.9], [5, 22, 24, 0.7], [4, 26, 28, 0.8], [6, 30, 32, 0.7]] }, // prettier-ignore
  {
    bars: 4,
    notes: [
      [7, 0, 14, 0.8],
      [5, 16, 30, 0.8],
      [3, 32, 46, 0.8],
      [4, 48, 60, 0.8],
      [6, 60, 64, 0.6],
    ],
  },
];

const LAMPS: readonly Notes[] = [
  { bars: 4, notes: [[0, 5, 4], [2, 5, 7], [0, 3, 5], [1, 4, 6]].flatMap((chord, bar) => chord.map((pad, i) => [pad, 16 * bar, 16 * bar + 14, 0.6 - 0.05 * i] as const)) }, // prettier-ignore
  {
    bars: 1,
    notes: [
      [7, 2, 4, 0.6],
      [9, 6, 8, 0.5],
      [11, 10, 12, 0.6],
      [9, 14, 16, 0.4],
    ],
  },
];

function tonePattern(name: string, { bars, notes }: Notes, newId: () => number): Pattern {
  const step = gridTicks('1/16');
  return {
    name,
    length: bars * ticksPerBar(FOUR_FOUR),
    hits: notes.map(([pad, from, to, velocity], i) => ({
      id: newId(),
      pad,
      tick: from * step + msToTicks(handMs(i), HANDS.tempo),
      length: (to - from) * step,
      velocity,
      snap: { grid: step, strength: 1 },
    })),
  };
}
