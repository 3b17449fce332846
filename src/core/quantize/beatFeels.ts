import { ticksPerPulse, type Meter } from '../time/ticks';

/** A line within the beat on which strokes fall. */
export interface BeatLine {
  /** Share of the beat, 0..1. */
  at: number;
  /** How usual a stroke is here, 0..1: on the beat 1, halfway through it, in between (common practice). */
  strength: number;
}

/** A way to divide the beat. */
export interface BeatFeel {
  lines: readonly BeatLine[];
  /** Natural logarithm of how usual it is. */
  usual: number;
}

const ON_BEAT = 1;
const HALFWAY = 0.75;
const BETWEEN = 0.35;

const sixteenths = (second: number, half: number, fourth: number): BeatLine[] => [
  { at: 0, strength: ON_BEAT },
  { at: second, strength: BETWEEN },
  { at: half, strength: HALFWAY },
  { at: fourth, strength: BETWEEN },
];

/** Straight, swung and divided in three: the lightest swing that is one, and the triplet to which it grows. */
const OF_QUARTER: readonly BeatFeel[] = [
  { usual: 0, lines: sixteenths(1 / 4, 1 / 2, 3 / 4) },
  { usual: -3, lines: sixteenths(0.29, 1 / 2, 0.79) },
  { usual: -3, lines: sixteenths(1 / 3, 1 / 2, 5 / 6) },
  { usual: -3, lines: sixteenths(0.29, 0.58, 0.79) },
  {
    usual: -1,
    lines: [
      { at: 0, strength: ON_BEAT },
      { at: 1 / 3, strength: BETWEEN },
      { at: 2 / 3, strength: HALFWAY },
    ],
  },
];

/** The beat of a compound meter: three eighths, each in two. */
const OF_DOTTED_QUARTER: readonly BeatFeel[] = [
  {
    usual: 0,
    lines: Array.from({ length: 6 }, (_, i) => ({
      at: i / 6,
      strength: i === 0 ? ON_BEAT : i % 2 === 0 ? HALFWAY : BETWEEN / 2,
    })),
  },
];

/** The ways to divide a meter's beat (`ticksPerPulse`). */
export function beatFeels(meter: Meter): readonly BeatFeel[] {
  const pulse = ticksPerPulse(meter);
  if (pulse === 960) return OF_QUARTER;
  if (pulse === 1440) return OF_DOTTED_QUARTER;
  // Half notes and eighths (7/8) are divided into sixteenths.
  const lines = Math.max(2, Math.round(pulse / 240));
  const strength = (i: number) => (i === 0 ? ON_BEAT : i * 2 === lines ? HALFWAY : BETWEEN);
  return [{ usual: 0, lines: Array.from({ length: lines }, (_, i) => ({ at: i / lines, strength: strength(i) })) }];
}
