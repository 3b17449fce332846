import { madeKit, padOfKind, type KitDesign } from './kits';
import { newSet } from './create';
import { idsFrom } from './hit';
import type { DuckKey, Group, Mix, MixControl } from './mix';
import type { Control, Move, MovedChannel } from './moves';
import type { Pattern } from './pattern';
import type { OpenSet } from './set';
import type { PadKind } from './soundKinds';
import { FIRST_STAGE, WAITING_STAGE } from './stage';
import {
  barTicks,
  chordsAt,
  inOrder,
  writtenNotes,
  writtenPattern,
  writtenSections,
  type Playing,
  type WrittenLanes,
  type WrittenNotes,
  type WrittenSection,
} from './written';
import { newTrack } from './track';

/**
 * The demo: *Rink Night*, a Saturday evening at a roller-skating rink beside a canal. Two bars that roll: four on the floor, the
 * backbeat answered by ghost notes, open hats between the beats, a shaker that leans late. Five sections of eight bars and more lead
 * through the evening: the doors open, slowly, and the hats with them; every section begins with a crash and ends in a fill; the lights go
 * down for couples, and come back for the last lap.
 */
export function demoSet(): OpenSet {
  const ids = idsFrom(1);
  const drums = ([name, lanes, moves]: Drums): Pattern => ({
    ...writtenPattern(name, lanes, HANDS, ids),
    ...(moves && { moves }),
  });
  const notes = ([name, written, moves]: Notes): Pattern => ({
    ...writtenNotes(name, written, HANDS, ids),
    ...(moves && { moves }),
  });
  const minor = { root: 9, scale: 'minor', chromatic: false, octave: 0 } as const;
  const set = newSet('Rink Night', 112, [
    {
      ...newTrack('Wheels', 1, WHEELS.map(drums)),
      kit: madeKit('Polished Floor', MIXED),
      level: 0.77,
      goesTo: SKATES.id,
    },
    {
      ...newTrack('Rails', 5, RAILS.map(drums)),
      id: 1,
      kit: madeKit('Polished Floor', ASIDE),
      level: 0.9,
      goesTo: SKATES.id,
    },
    {
      ...newTrack('Kerb', 4, KERB.map(notes)),
      id: 2,
      level: 0.9,
      goesTo: CANAL.id,
      channel: { duckedBy: UNDER_THE_KICK, duck: 3, duckTime: 140 },
      tones: { voice: 'bass', ...minor, settings: { bright: 0.4, level: 2 } },
    },
    {
      ...newTrack('Lamps', 7, LAMPS.map(notes)),
      id: 3,
      level: 0.93,
      goesTo: CANAL.id,
      channel: { duckedBy: UNDER_THE_KICK, duck: 5, duckTime: 220 },
      tones: { voice: 'keys', ...minor, settings: { width: 0.9, motion: 0.5, bright: 0.8, level: 4 } },
    },
  ]);
  const tracks = { 0: FIRST_STAGE, 1: WAITING_STAGE, 2: WAITING_STAGE, 3: WAITING_STAGE };
  return { set: { ...set, sections: writtenSections(EVENING), mix: MIX }, stage: { shown: 0, tracks } };
}

/** Drums go together through one channel, and notes through another; those make room for the kick. */
const SKATES: Group = { id: 0, name: 'Skates', colour: 1, level: 1 };
const CANAL: Group = { id: 1, name: 'Canal', colour: 4, level: 1 };
const MIX: Mix = { groups: [SKATES, CANAL], echo: { time: '1/8 dotted', feedback: 0.4, tone: 0.4, width: 1 } };
const UNDER_THE_KICK: DuckKey = { track: 0, pad: padOfKind('kick') };

/** Sounds of Wheels whose level is not that of the kit, dB. */
const MIXED: KitDesign = {
  kick: { level: -3.5, drive: 12 },
  snare: { level: -1, drive: 8 },
  clap: { level: 1 },
  closedHat: { level: 1.5 },
  openHat: { level: 1 },
  shaker: { level: 2 },
  tambourine: { level: 0 },
  crash: { level: -4 },
};

/** Those of Rails stand to the left and right of them. */
const ASIDE: KitDesign = {
  rim: { level: 4, pan: 0.5 },
  lowTom: { level: 3, pan: -0.5 },
  midTom: { level: 3, pan: 0.3 },
  highTom: { level: 3, pan: 0.6 },
  cowbell: { level: 4, pan: -0.4 },
  shaker: { level: 3, pan: -0.6 },
  tambourine: { level: 1, pan: 0.5 },
};

/** Hands that are tidied a little, and lean on the second sixteenth of each eighth. */
const HANDS: Playing = { tempo: 112, strength: 0.4, swing: 0.54 };

/** What Wheels, Rails, Kerb and Lamps play. */
const EVENING: readonly WrittenSection[] = [
  ['Doors', 0, [3, null, null, 0], 1],
  ['First Laps', 2, [1, 1, 0, null], 1],
  ['Fast Laps', 1, [4, 0, 0, 0], 2],
  ['Couples Only', 6, [2, null, 1, 1], 2],
  ['Last Lap', 4, [5, 2, 0, 2], 2],
];

type Drums = readonly [name: string, lanes: WrittenLanes, moves?: Move[]];
type Notes = readonly [name: string, notes: WrittenNotes, moves?: Move[]];

/** A control of a channel of the mix that is ridden: its values at bars of the pattern, and in a line between. */
function ridden(
  on: MovedChannel,
  control: MixControl,
  ...points: readonly (readonly [bar: number, value: number])[]
): Move {
  return { on, control, points: points.map(([bar, value]) => ({ tick: bar * barTicks(), value })) };
}

/** A control of a pad that goes in a line from one value to another over some bars. */
function sweep(kind: PadKind, control: Control, from: number, to: number, bars: number): Move {
  return {
    pad: padOfKind(kind),
    control,
    points: [
      { tick: 0, value: from },
      { tick: bars * barTicks(), value: to },
    ],
  };
}

const CRASH = 'X--------------- ---------------- ---------------- ---------------- ---------------- ---------------- ---------------- ----------------'; // prettier-ignore

const WHEELS: readonly Drums[] = [
  [
    'Fast Laps',
    [
      ['kick', 'X---9---X---9-5- X---9---X--69---', -2],
      ['snare', '----9--3----9--- ----9--3-2--9--4', 3],
      ['clap', '----5-------6--- ----5-------6---', 5],
      ['closedHat', '85--75--85--75-- 85--75--85--75--', -4],
      ['openHat', '--7---7---7---7- --7---7---7---8-', 2],
      ['shaker', '4364436443644364 4364436443644364', 6],
      ['tambourine', '----6-------6--- ----6-------6---', 4],
    ],
  ],
  [
    'Four Wheels',
    [
      ['kick', inOrder('AABACABF', { A: 'X---9---X---9---', B: 'X---9---X---9-4-', C: 'X---9---X--59---', F: 'X---9---X-------' }), -2],
      ['snare', inOrder('AAABAAAF', { A: '----8-------8---', B: '----8-------8--3', F: '----8---2-3-8-68' }), 3],
      ['snap', inOrder('AAABAAAF', { A: '----6-------6---', B: '----6-------6-4-', F: '----6-----------' }), 2],
      ['closedHat', inOrder('AAABAAAF', { A: '--7---7---7---7-', B: '--7---7---7-5-7-', F: '--7---7---7-----' }), 1],
      ['shaker', inOrder('----SSSF', { '-': '----------------', S: '4-5-4-5-4-5-4-5-', F: '4-5-4-5---------' }), 6],
      ['lowTom', inOrder('-------F', { '-': '----------------', F: '--------------7-' }), 2],
      ['highTom', inOrder('-------F', { '-': '----------------', F: '------------7---' }), 2],
      ['crash', CRASH, 0],
    ],
  ],
  [
    'Brake',
    [
      ['kick', inOrder('ABAF', { A: 'X---------5-----', B: 'X-----6---5-----', F: 'X---------------' }), 0],
      ['snare', inOrder('AAAF', { A: '--------9-------', F: '--------9---3456' }), 5],
      ['rim', inOrder('ABAF', { A: '--3----------3--', B: '--3-----------4-', F: '--3-------------' }), 4],
      ['ride', inOrder('AAAF', { A: '7---6---7---6-6-', F: '7---6---7-------' }), 3],
      ['pedalHat', inOrder('AAAA', { A: '----4-------4---' }), 0],
    ],
  ],
  [
    'Warm Up',
    [
      ['kick', inOrder('AABAABAF', { A: 'X-------9-------', B: 'X-------9-----5-', F: 'X-------9---9-9-' }), -1],
      ['closedHat', inOrder('AAAAAABF', { A: '--5---5---5---5-', B: '--5---5---5-3-5-', F: '--5---5---5-5-5-' }), 2],
      ['shaker', inOrder('AAAAAAAF', { A: '3-4-3-4-3-4-3-4-', F: '3-4-3-4-34453556' }), 6],
      ['snap', inOrder('----AAAA', { '-': '----------------', A: '----4-------4---' }), 3],
      ['snare', inOrder('-------F', { '-': '----------------', F: '----------234689' }), 2],
    ],
    // The doors open: all of the drums come out of them until the first lap begins.
    [
      sweep('closedHat', 'filter', -3, 0, 8),
      sweep('shaker', 'filter', -2.5, 0, 8),
      ridden('group', 'filter', [0, -0.35], [6, -0.35], [8, 0]),
    ],
  ],
  [
    'Full Speed',
    [
      ['kick', inOrder('ABACABAF', { A: 'X---9---X---9-5-', B: 'X---9---X--69---', C: 'X---9---X---9--7', F: 'X---9---X-------' }), -2],
      ['snare', inOrder('ABACABAF', { A: '----9--3----9---', B: '----9--3-2--9--4', C: '----9--3----9-32', F: '----9--3--46899r' }), 3],
      ['clap', inOrder('AAABAAAF', { A: '----6-------7---', B: '----6-------7-4-', F: '----6-----------' }), 5],
      ['closedHat', inOrder('AAAAAAAF', { A: '85--75--85--75--', F: '85--75----------' }), -4],
      ['openHat', inOrder('AAABAAAF', { A: '--7---7---7---7-', B: '--7---7---7---8-', F: '--7---7---------' }), 2],
      ['shaker', inOrder('AAAAAAAF', { A: '4364436443644364', F: '43644364--------' }), 6],
      ['tambourine', inOrder('AAAAAAAF', { A: '----6-------6---', F: '----6-----------' }), 4],
      ['lowTom', inOrder('-------F', { '-': '----------------', F: '-----------8--79' }), 2],
      ['highTom', inOrder('-------F', { '-': '----------------', F: '--------87------' }), 2],
      ['crash', CRASH, 0],
    ],
    // The lows go out of the last bar's fill, and its room grows: then the next round falls in.
    [ridden('group', 'filter', [0, 0], [7, 0], [7.9, 0.3], [8, 0]), ridden('track', 'room', [0, 0], [7, 0], [8, 0.35])],
  ],
  [
    'Last Lap',
    [
      ['kick', inOrder('ABACABAF', { A: 'X---9---X---9---', B: 'X---9---X---9-55', C: 'X---9-5-X---9-7-', F: 'X---9---X---X---' }), -2],
      ['snare', inOrder('ABACABAF', { A: '----9-------9--3', B: '----9--2-3--9---', C: '----9-------9-46', F: '----9-2-3-9-9-9r' }), 3],
      ['clap', inOrder('AAABAAAF', { A: '----8-------8---', B: '----8-------8-5-', F: '----8-------8---' }), 5],
      ['openHat', inOrder('AAAAAAAF', { A: '--8---8---8---8-', F: '--8---8---------' }), 2],
      ['closedHat', inOrder('AAABAAAB', { A: '6---6---6---6---', B: '6---6-4-6---6-4r' }), -3],
      ['ride', inOrder('AAAAAAAF', { A: '5-5-5-5-5-5-5-5-', F: '5-5-5-5---------' }), 3],
      ['snap', inOrder('ABABABA-', { A: '-----------4----', B: '------4-----5---', '-': '----------------' }), -3],
      ['midTom', inOrder('---F---F', { '-': '----------------', F: '-----------7----' }), 2],
      ['lowTom', inOrder('---F---F', { '-': '----------------', F: '-------------8--' }), 2],
      ['crash', inOrder('X---X--E', { X: 'X---------------', '-': '----------------', E: '--------------8-' }), 0],
    ],
  ],
]; // prettier-ignore

const RAILS: readonly Drums[] = [
  [
    'Hand-offs',
    [
      ['lowTom', '---5--6-----5--- ---5--6---4-5---', 3],
      ['highTom', '-----------5--5- -----------4-5-6', 2],
      ['cowbell', '5-----5---4----- 5-----5---4--4--', -1],
      ['rim', '--3---------3--- --3-----3-------', 2],
    ],
  ],
  [
    'Ticks',
    [
      ['rim', '--4--4----4--4-- --4--4----4-3---', 2],
      ['tambourine', '----5-------6--- ----5-------6-3-', 4],
    ],
  ],
  [
    'Rattle',
    [
      ['shaker', '6454645464546454 6454645464546464', 5],
      ['midTom', '5--4--5--4----4- 5--4--5--4------', 1],
      ['cowbell', '--5---5---5-5--- --5---5---5--45-', 0],
      ['tambourine', '----5-------5--- ----5-------5---', 3],
    ],
  ],
];

/** A, F, D and E, a bar each. Pad 0 is A1, 7 is A2. */
const KERB: readonly Notes[] = [
  [
    'Low Kerb',
    {
      bars: 4,
      notes: [
        [7, 0, 3, 9], [7, 6, 7, 6], [0, 8, 10, 8], [7, 10, 12, 8], [6, 14, 16, 6],
        [5, 16, 19, 9], [5, 22, 23, 6], [5, 26, 28, 8], [2, 28, 29, 5], [4, 30, 32, 6],
        [3, 32, 35, 9], [3, 38, 39, 6], [3, 42, 44, 8], [5, 45, 46, 5], [3, 46, 48, 6],
        [4, 48, 51, 9], [4, 54, 55, 6], [4, 58, 60, 8], [6, 60, 62, 7], [6, 62, 64, 6],
      ],
    },
  ],
  ['Long Kerb', { bars: 4, notes: [[7, 0, 15, 8], [5, 15, 31, 8], [3, 31, 47, 8], [4, 47, 60, 8], [6, 59, 64, 6]] }],
]; // prettier-ignore

/** The same chords: A minor, F, D minor and E minor with their sevenths, close to each other. Pad 0 is A3. */
const CHORDS = [[0, 2, 4, 6], [0, 2, 5, 7], [0, 3, 5, 7], [1, 3, 4, 6]]; // prettier-ignore
const LAMPS: readonly Notes[] = [
  ['Glow', chordsAt(CHORDS, 0.5, [0, 10, 6.5], [11, 15, 5])],
  [
    'Blink',
    {
      bars: 4,
      notes: [
        [0, 0, 14, 5], [7, 2, 4, 6], [9, 6, 8, 5], [11, 10, 12, 6], [9, 14, 16, 4],
        [0, 16, 30, 5], [9, 18, 20, 6], [12, 22, 24, 5], [14, 26, 28, 6], [12, 30, 32, 4],
        [3, 32, 46, 5], [10, 34, 36, 6], [12, 38, 40, 5], [14, 42, 44, 6], [12, 46, 48, 4],
        [1, 48, 62, 5], [8, 50, 52, 6], [11, 54, 56, 5], [13, 58, 60, 6], [15, 62, 64, 5],
      ],
    },
    [ridden('track', 'echo', [0, 0.15], [3, 0.2], [4, 0.6])],
  ],
  ['Stabs', chordsAt(CHORDS, 0.5, [0, 2, 4.5], [3, 4, 4.5], [6, 8, 5.5], [11, 12, 5], [14, 15, 4])],
]; // prettier-ignore
