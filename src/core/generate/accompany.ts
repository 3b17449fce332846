import type { Pattern } from '../document/pattern';
import { padNote, padsOfNotes, type Tones } from '../document/tones';
import { chordOn, scaleDegree, scaleStep } from '../harmony/chords';
import { nearestVoicing, ontoPads } from '../harmony/voicing';
import { random as randomOf } from '../random';
import { PPQ, ticksPerBar, type Meter } from '../time/ticks';
import { harmonyOf, triadName, type Harmony } from './harmony';
import { newHit, type NewHit, type Proposal } from './propose';
import { hitsInLoop } from '../edit/select';

export const PARTS = ['bass', 'chords'] as const;
export type PartKind = (typeof PARTS)[number];

/** What a part is made for, and what it goes by. */
export interface Accompanied {
  pattern: Pattern;
  tones: Tones;
  meter: Meter;
  /** Pads whose notes are kept as they are. */
  locked: readonly number[];
  /** A pattern of another track, and what its pads play. */
  to: { pattern: Pattern; tones: Tones };
}

/** A part that is offered, and how it comes about, in words. */
export interface Accompaniment extends Proposal {
  words: string;
}

const EIGHTH = PPQ / 2;

/**
 * Figures of eighths, over and over (common practice): root, fifth, octave above the root, chord; `-` holds, `.` is silence.
 */
const FIGURES: Record<PartKind, readonly { eighths: string; words: string }[]> = {
  bass: [
    { eighths: 'R-------', words: 'the root, held' },
    { eighths: 'R-R-R-R-', words: 'the root on each beat' },
    { eighths: 'RRRRRRRR', words: 'the root in eighths' },
    { eighths: 'R---5---', words: 'root and fifth' },
    { eighths: 'R--R--R-', words: 'the root in three, three and two eighths' },
    { eighths: 'R.O.R.O.', words: 'root and octave, short' },
    { eighths: 'R--R..5-', words: 'the root pushed, then the fifth' },
  ],
  chords: [
    { eighths: 'C-------', words: 'held' },
    { eighths: 'C---C---', words: 'in halves' },
    { eighths: 'C--C--C-', words: 'in three, three and two eighths' },
    { eighths: '..C-..C-', words: 'after the beat' },
    { eighths: 'C.C.C.C.', words: 'short on each beat' },
    { eighths: '..C...C.', words: 'short, on two and four' },
  ],
};
/** How often a bass walks to the next root by a step of the scale. */
const LEADS = 0.5;

/**
 * A bass for chords, or chords for a bass: by the triads of its own scale that the other pattern makes in each half bar. The same seed offers
 * the same.
 */
export function accompany(part: PartKind, ground: Accompanied, seed: number): Accompaniment {
  const { pattern, tones, meter, locked, to } = ground;
  const random = randomOf(seed);
  const { length } = pattern;
  const harmony = harmonyOf(to, tones, length, Math.max(EIGHTH, ticksPerBar(meter) / 2));
  const figures = FIGURES[part];
  const figure = figures[Math.floor(random() * figures.length)]!;
  const leads = part === 'bass' && random() < LEADS;
  const notes = part === 'bass' ? bass(harmony, figure.eighths, tones, leads) : chords(harmony, figure.eighths, tones);
  const find = padsOfNotes(tones);
  // Notes of the scale are on the pads as they are.
  const hits = notes.map(({ tick, length: held, note }) =>
    newHit(find(note).pad, tick, (tick % PPQ === 0 ? 0.8 : 0.65) + (random() - 0.5) * 0.1, { length: held }),
  );
  const names = harmony.map(({ degree }) => triadName(tones, degree));
  const how = part === 'bass' ? `${figure.words}${leads ? ', with a step to the next root' : ''}` : `triads, ${figure.words}`; // prettier-ignore
  const isFree = ({ pad }: Pick<NewHit, 'pad'>) => !locked.includes(pad);
  return { hits: hits.filter(isFree), instead: hitsInLoop(pattern, isFree), words: `${names.join(' ')}: ${how}.` };
}

interface Sounding {
  tick: number;
  /** Ticks. */
  length: number;
  note: number;
}

/** Where a figure strikes within a triad, what, and for how long. */
function strokesOf(eighths: string, { tick, length }: Harmony): { tick: number; length: number; mark: string }[] {
  const strokes: { tick: number; length: number; mark: string }[] = [];
  for (let at = 0; at < length; at += EIGHTH) {
    const mark = eighths[(at / EIGHTH) % eighths.length]!;
    const ticks = Math.min(EIGHTH, length - at);
    const last = strokes.at(-1);
    if (mark !== '-' && mark !== '.') strokes.push({ tick: tick + at, length: ticks, mark });
    else if (mark === '-' && last && last.tick + last.length === tick + at) last.length += ticks;
  }
  return strokes;
}

function bass(harmony: readonly Harmony[], eighths: string, tones: Tones, leads: boolean): Sounding[] {
  const lowest = padNote(tones, 0);
  const rootOf = ({ degree }: Harmony) => ontoPads(tones, [scaleStep(tones, lowest, degree)])[0]!;
  return harmony.flatMap((triad, i) => {
    const root = rootOf(triad);
    const fifth = chordOn(tones, root, 'triad')[2]!;
    const of: Record<string, number> = { R: root, 5: fifth, O: root + 12 };
    const notes = strokesOf(eighths, triad).map(({ tick, length, mark }) => ({ tick, length, note: ontoPads(tones, [of[mark]!])[0]! })); // prettier-ignore
    const next = harmony[(i + 1) % harmony.length]!;
    const way = scaleDegree(tones, rootOf(next)) - scaleDegree(tones, root);
    if (!leads || way === 0 || triad.length < 4 * EIGHTH) return notes;
    // On the last eighth, from the side on which the old root lies.
    const tick = triad.tick + triad.length - EIGHTH;
    const step = scaleStep(tones, rootOf(next), way > 0 ? -1 : 1);
    const before = notes.filter((note) => note.tick < tick).map((note) => ({ ...note, length: Math.min(note.length, tick - note.tick) })); // prettier-ignore
    return [...before, { tick, length: EIGHTH, note: ontoPads(tones, [step])[0]! }];
  });
}

function chords(harmony: readonly Harmony[], eighths: string, tones: Tones): Sounding[] {
  let last: readonly number[] | null = null;
  return harmony.flatMap((triad) => {
    const root = scaleStep(tones, padNote(tones, 0), triad.degree);
    const notes = ontoPads(tones, nearestVoicing(chordOn(tones, root, 'triad'), last));
    last = notes;
    return strokesOf(eighths, triad).flatMap(({ tick, length }) => notes.map((note) => ({ tick, length, note })));
  });
}
