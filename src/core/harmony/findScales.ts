import { scaleSteps, SCALES, type ScaleName } from '../document/tones';
import { mod } from '../time/ticks';

/** A note that was played, in order of time. */
export interface HeardNote {
  /** MIDI note. */
  note: number;
  /** How much it counts: how long it lasted, in any unit. */
  weight: number;
}

export interface FoundScale {
  /** Semitones above C. */
  root: number;
  scale: ScaleName;
  /** How much of what was played lies in it, 0..1. */
  share: number;
}

/** What is played outside a scale speaks against it more than anything else. */
const IN_SCALE = 3;
/** The root is heard most, then the fifth and the third: as in the tone profiles of C. Krumhansl and E. Kessler (1982). */
const DEGREES = [1, 0.3, 0.4] as const;
/** A tune ends on its root more surely than it begins there; a bass lies on it. */
const FIRST = 0.15;
const LAST = 0.3;
const LOWEST = 0.15;
/** Of scales that hold all the notes, the one with the fewest others. */
const UNPLAYED = 0.03;

/**
 * The scales that notes belong to, the likeliest first. Several may hold them all: which of their notes is the root, the playing tells
 * by what lasts longest and where it ends.
 * @param count how many at most
 * @returns nothing for fewer than three different notes, which say too little
 */
export function findScales(notes: readonly HeardNote[], count = 3): FoundScale[] {
  const shares = new Array<number>(12).fill(0);
  for (const { note, weight } of notes) shares[mod(Math.round(note), 12)]! += weight;
  const whole = shares.reduce((sum, share) => sum + share, 0);
  if (shares.filter((share) => share > 0).length < 3 || whole <= 0) return [];
  for (let pitch = 0; pitch < 12; pitch++) shares[pitch]! /= whole;
  const first = mod(Math.round(notes[0]!.note), 12);
  const last = mod(Math.round(notes.at(-1)!.note), 12);
  const lowest = mod(Math.round(Math.min(...notes.map(({ note }) => note))), 12);
  const rated = SCALES.flatMap((scale) =>
    Array.from({ length: 12 }, (_, root) => {
      const steps = scaleSteps(scale);
      const of = (step: number | undefined) => (step === undefined ? 0 : shares[mod(root + step, 12)]!);
      const share = steps.reduce((sum, step) => sum + of(step), 0);
      const third = steps.find((step) => step === 3 || step === 4);
      const fifth = steps.find((step) => step === 7);
      const places = [FIRST, LAST, LOWEST].filter((_, i) => [first, last, lowest][i] === root);
      const rating =
        IN_SCALE * share +
        DEGREES[0] * of(0) +
        DEGREES[1] * of(third) +
        DEGREES[2] * of(fifth) +
        places.reduce((sum, place) => sum + place, 0) -
        UNPLAYED * steps.filter((step) => of(step) === 0).length;
      return { root, scale, share, rating };
    }),
  );
  rated.sort((a, b) => b.rating - a.rating);
  return rated.slice(0, count).map(({ root, scale, share }) => ({ root, scale, share: Math.min(1, share) }));
}
