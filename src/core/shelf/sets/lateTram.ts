import { newSet } from '../../document/create';
import { idsFrom } from '../../document/hit';
import type { Kit } from '../../document/kit';
import type { OpenSet } from '../../document/set';
import { SOUND_NUMBERS, type SoundSettings } from '../../document/sound';
import { PAD_KINDS, type PadKind } from '../../document/soundKinds';
import { FIRST_STAGE, WAITING_STAGE } from '../../document/stage';
import { newTrack } from '../../document/track';
import { chordsAt, inOrder, writtenNotes, writtenPattern, writtenSections, type Playing, type WrittenLanes, type WrittenNotes, type WrittenSection } from '../../document/written'; // prettier-ignore
import { SHIPPED_KITS } from '../shippedKits';

/**
 * *Late Tram*: the way home from the rink, 84 BPM, slow and dusty. Sixteenths are swung, the backbeat is late, the kick leaves room, and
 * what is played in between is felt rather than heard.
 */
export function lateTram(): OpenSet {
  const ids = idsFrom(1);
  const drums = ([name, lanes]: readonly [string, WrittenLanes]) => writtenPattern(name, lanes, HANDS, ids);
  const notes = ([name, written]: readonly [string, WrittenNotes]) => writtenNotes(name, written, HANDS, ids);
  const minor = { root: 2, scale: 'minor', chromatic: false, octave: 0 } as const;
  const set = newSet('Late Tram', 84, [
    { ...newTrack('Coats', 4, COATS.map(drums)), kit: kitOf('kiosk-radio', 2.5, ROOM), level: 0.9 },
    { ...newTrack('Sleepers', 5, SLEEPERS.map(drums)), id: 1, kit: kitOf('chestnut-cart', 4, ASIDE), level: 0.9 },
    { ...newTrack('Bollard', 0, BOLLARD.map(notes)), id: 2, level: 0.9, tones: { voice: 'bass', preset: 'kerb', ...minor, settings: { level: 3.5 } } },
    { ...newTrack('Windows', 7, WINDOWS.map(notes)), id: 3, level: 0.9, tones: { voice: 'keys', preset: 'lantern', ...minor, settings: { level: 1.8, attack: 0.03, bright: 1, width: 1, room: 0.2 } } },
  ]); // prettier-ignore
  const tracks = { 0: FIRST_STAGE, 1: WAITING_STAGE, 2: FIRST_STAGE, 3: FIRST_STAGE };
  return { set: { ...set, sections: writtenSections(RIDE) }, stage: { shown: 0, tracks } };
}

/** Coats: a soft kick, and the others around it. */
const ROOM: Partial<Record<PadKind, SoundSettings>> = {
  kick: { level: -2.9, drive: 14 },
  snare: { level: -2, drive: 16, room: 0.3 },
  snap: { level: 0.2, drive: 12, pan: -0.2, room: 0.3 },
  closedHat: { level: -2, pan: 0.6 },
  openHat: { level: -1, pan: 0.6 },
  shaker: { level: 4, pan: -0.8, room: 0.2 },
  clap: { pan: -0.4, room: 0.4 },
  rim: { pan: 0.3, room: 0.3 },
  crash: { room: 0.5 },
};
/** Sleepers lie left and right. */
const ASIDE: Partial<Record<PadKind, SoundSettings>> = {
  lowTom: { level: 4, pan: -0.6, room: 0.25 },
  highTom: { level: 4, pan: 0.6, room: 0.25 },
  shaker: { level: 6, pan: 0.8, room: 0.2 },
};

const HANDS: Playing = { tempo: 84, strength: 0.35, swing: 0.6 };

/** A kit of the shelf, so many dB louder, with some of its sounds as they are to be here. */
function kitOf(id: string, louder: number, changes: Partial<Record<PadKind, SoundSettings>> = {}): Kit {
  const { kit } = SHIPPED_KITS.find((entry) => entry.id === id)!;
  const pads = kit!.pads.map((pad, i) => {
    const { settings: plain } = pad.sound;
    const { level = 0, ...changed } = changes[PAD_KINDS[i]!] ?? {};
    const settings = {
      ...plain,
      ...changed,
      level: Math.min((plain.level ?? 0) + louder + level, SOUND_NUMBERS.level.max),
    };
    return { ...pad, sound: { ...pad.sound, settings, own: settings } };
  });
  return { ...kit!, pads };
}

/** What Coats, Sleepers, Bollard and Windows play. */
const RIDE: readonly WrittenSection[] = [
  ['Platform', 0, [1, null, null, 0], 2],
  ['Aboard', 2, [0, null, 0, 0], 2],
  ['Over the Bridge', 5, [2, 0, 1, 1], 2],
  ['Last Stop', 6, [3, null, 0, 0], 2],
];

const COATS: readonly (readonly [string, WrittenLanes])[] = [
  [
    'Carriage',
    [
      ['kick', inOrder('ABAC', { A: '9-----7-----5---', B: '9-----7---6-----', C: '9--5--7---6--5--' }), 3],
      ['snare', inOrder('ABAC', { A: '----8--3----8---', B: '----8--3-2--8--3', C: '----8--3----8-34' }), 12],
      ['snap', inOrder('AAAB', { A: '----7-------7---', B: '----7-------7-4-' }), 16],
      ['closedHat', inOrder('AAAB', { A: '7-5-6-547-5-6-5-', B: '7-5-6-547-5-6---' }), 4],
      ['openHat', inOrder('AAAB', { A: '----------------', B: '--------------6-' }), 4],
      ['shaker', inOrder('AAAA', { A: '3-2-3-2-3-2-3-2-' }), 9],
    ],
  ],
  [
    'Waiting',
    [
      ['kick', inOrder('AAAB', { A: '8---------5-----', B: '8---------5--6--' }), 3],
      ['rim', inOrder('AAAB', { A: '----6-------6---', B: '----6-------6-34' }), 10],
      ['closedHat', inOrder('AAAA', { A: '5-3-5-3-5-3-5-3-' }), 5],
    ],
  ],
  [
    'Girders',
    [
      ['kick', inOrder('ABAC', { A: '9-----7-----5--5', B: '9-----7---6-----', C: '9--5--7-9-------' }), 3],
      ['snare', inOrder('ABAC', { A: '----8--3----8--3', B: '----8-23-2--8--3', C: '----8--3--356789' }), 12],
      ['clap', inOrder('AAAA', { A: '------------4---' }), 14],
      ['snap', inOrder('AAAB', { A: '----7-------7---', B: '----7-----------' }), 16],
      ['closedHat', inOrder('AABA', { A: '7-566-547-566-5-', B: '7-566-547-5r6-5-' }), 4],
      ['openHat', inOrder('BAAA', { A: '----------------', B: '6---------------' }), 4],
      ['lowTom', inOrder('AAAB', { A: '----------------', B: '--------------7-' }), 6],
      ['crash', inOrder('BAAA', { A: '----------------', B: '6---------------' }), 4],
    ],
  ],
  [
    'Doors Close',
    [
      ['kick', inOrder('ABAC', { A: '8-----6-----5---', B: '8-----6---------', C: '8---------------' }), 3],
      ['snare', inOrder('AAAB', { A: '----7--2----7---', B: '----7-----------' }), 14],
      ['snap', inOrder('AAAA', { A: '----6-------6---' }), 18],
      ['closedHat', inOrder('AAAB', { A: '6-4-5-436-4-5-4-', B: '6-4-5-4---------' }), 5],
    ],
  ],
]; // prettier-ignore

const SLEEPERS: readonly (readonly [string, WrittenLanes])[] = [
  [
    'Joints',
    [
      ['lowTom', '---5------4----- ---5------4--3--', 5],
      ['highTom', '--4--3------3-4- --4--3------3---', 5],
      ['shaker', '5-3-4-3-5-3-4-3- 5-3-4-3-5-3-4-33', 8],
    ],
  ],
];

/** D, B flat, G and A, a bar each. Pad 0 is D1, 7 is D2. */
const BOLLARD: readonly (readonly [string, WrittenNotes])[] = [
  [
    'Low Water',
    {
      bars: 4,
      notes: [
        [7, 0, 5, 9], [7, 6, 9, 7], [4, 12, 15, 6],
        [5, 16, 21, 9], [5, 22, 25, 7], [7, 28, 31, 6],
        [3, 32, 37, 9], [3, 38, 41, 7], [5, 44, 47, 6],
        [4, 48, 53, 9], [4, 54, 57, 7], [6, 59, 61, 6], [6, 61, 64, 7],
      ],
    },
  ],
  ['Piers', { bars: 4, notes: [[7, 0, 12, 8], [9, 12, 16, 6], [5, 16, 30, 8], [3, 32, 44, 8], [5, 44, 48, 6], [4, 48, 60, 8], [6, 60, 64, 7]] }],
]; // prettier-ignore

/** D minor seven, B flat, G minor seven and A minor seven, close to each other. Pad 0 is D3. */
const CHORDS = [[0, 2, 4, 6], [0, 2, 5, 7], [0, 3, 5, 7], [1, 3, 4, 6]]; // prettier-ignore
const WINDOWS: readonly (readonly [string, WrittenNotes])[] = [
  ['Lit', chordsAt(CHORDS, 0.4, [0, 7, 6.5], [10, 14, 5])],
  ['Passing', chordsAt(CHORDS, 0.4, [0, 3, 6.5], [6, 9, 5.5], [11, 15, 5])],
];
