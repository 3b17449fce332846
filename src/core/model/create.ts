import { gridTicks } from '../timing/grid';
import { ticksPerBar, type Meter } from '../time/ticks';
import { KITS, type SoundName } from './kits';
import { PATTERN_SLOTS, SCHEMA_VERSION, type BeatSet, type Hit, type Pattern, type Track } from './set';

const FOUR_FOUR: Meter = { beats: 4, unit: 4 };

/** A set with one drum track and one empty bar. */
export function emptySet(): BeatSet {
  return newSet('New set', 120, [newTrack('Drums', emptyPattern('Pattern 1', FOUR_FOUR))]);
}

/** An empty pattern of one bar. */
export function emptyPattern(name: string, meter: Meter): Pattern {
  return { name, length: ticksPerBar(meter), hits: [] };
}

/**
 * The demo: *Rink Night*, a Saturday evening at a roller-skating rink beside a canal. Two bars that roll: four on the
 * floor, the backbeat answered by a ghost note, open hats between the beats, a shaker that leans late.
 */
export function demoSet(): BeatSet {
  return newSet('Rink Night', 112, [
    newTrack('Wheels', { name: 'Fast Laps', length: 2 * ticksPerBar(FOUR_FOUR), hits: demoHits() }),
  ]);
}

function newSet(name: string, tempo: number, tracks: Track[]): BeatSet {
  return {
    schema: SCHEMA_VERSION,
    name,
    tempo,
    meter: FOUR_FOUR,
    metronome: { on: false, level: 0.7, sound: 'wood', when: 'always', between: null },
    countIn: 1,
    inputQuantize: { on: true, grid: '1/16' },
    tracks,
  };
}

function newTrack(name: string, first: Pattern): Track {
  const patterns: (Pattern | null)[] = new Array<Pattern | null>(PATTERN_SLOTS).fill(null);
  patterns[0] = first;
  return { name, colour: 0, kit: 'polished-floor', level: 0.8, mute: false, patterns, current: 0 };
}

/** One character a sixteenth: `-` none, `1`..`9` velocity in tenths, `X` full. */
const DEMO_LANES: readonly (readonly [SoundName, bars: string, lateMs: number])[] = [
  ['kick', 'X---9---X---9-5- X---9---X--69---', -2],
  ['snare', '----9--3----9--- ----9--3-2--9--4', 3],
  ['clap', '---------------- ------------7---', 5],
  ['closedHat', '85--75--85--75-- 85--75--85--75--', -4],
  ['openHat', '--7---7---7---7- --7---7---7---8-', 2],
  ['shaker', '4364436443644364 4364436443644364', 6],
  ['cowbell', '------------5--- ---5--4-----5-4-', 0],
  ['tambourine', '----6-------6--- ----6-------6---', 4],
  ['snap', '-----------4---- ------------5---', -3],
];

/** Where each stroke really fell, in ms from its lane's habit: hands are not machines. Repeats over the strokes. */
const HAND_MS = [0, 5, -3, 2, -6, 4, 1, -2, 7, -4, 3, -1, -5, 6, 0, 2, -3];
const TICKS_PER_MS = (112 * 960) / 60000;

function demoHits(): Hit[] {
  const step = gridTicks('1/16');
  const hits: Hit[] = [];
  for (const [sound, bars, lateMs] of DEMO_LANES) {
    const pad = KITS['polished-floor'].pads.findIndex((p) => p.sound === sound);
    [...bars.replace(/ /g, '')].forEach((mark, i) => {
      if (mark === '-') return;
      const offBy = (lateMs + HAND_MS[hits.length % HAND_MS.length]!) * TICKS_PER_MS;
      hits.push({
        id: hits.length + 1,
        pad,
        tick: i * step + offBy,
        length: step / 2,
        velocity: mark === 'X' ? 1 : Number(mark) / 10,
        snap: { grid: step, strength: 1 },
      });
    });
  }
  return hits;
}
