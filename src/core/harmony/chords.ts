import { scaleSteps, type ChordKind, type Tones } from '../document/tones';
import { mod } from '../time/ticks';

/** Steps of the scale above its root at which a chord has its other notes: a triad and a seventh chord, in thirds. */
export const CHORDS: Record<ChordKind, readonly number[]> = { triad: [2, 4], seventh: [2, 4, 6] };

/**
 * How many steps of its scale a note, or the nearest one of the scale below it, lies above the root of MIDI's lowest octave.
 * @param note MIDI note
 * @example scaleDegree({ root: 9, scale: 'minor' }, 60) // 30: four octaves of seven steps, and two
 */
export function scaleDegree({ root, scale }: Pick<Tones, 'root' | 'scale'>, note: number): number {
  const semitones = scaleSteps(scale);
  const above = mod(note - root, 12);
  let degree = 0;
  while (degree + 1 < semitones.length && semitones[degree + 1]! <= above) degree++;
  return degree + semitones.length * Math.floor((note - root) / 12);
}

/**
 * The note so many steps of a scale higher, or lower. One between two notes of the scale stays as far above the lower of them.
 * @param note MIDI note
 * @example scaleStep({ root: 9, scale: 'minor' }, 57, 2) // 60: from A to C in A minor
 */
export function scaleStep({ root, scale }: Pick<Tones, 'root' | 'scale'>, note: number, steps: number): number {
  const semitones = scaleSteps(scale);
  const from = scaleDegree({ root, scale }, note);
  const above = (degree: number) =>
    semitones[mod(degree, semitones.length)]! + 12 * Math.floor(degree / semitones.length);
  return note - above(from) + above(from + steps);
}

/**
 * A chord in thirds of the scale, its root lowest.
 * @param note MIDI note of its root
 * @example chordOn({ root: 9, scale: 'minor' }, 57, 'triad') // [57, 60, 64]: A minor
 */
export function chordOn(tones: Pick<Tones, 'root' | 'scale'>, note: number, kind: ChordKind): number[] {
  return [note, ...CHORDS[kind].map((degree) => scaleStep(tones, note, degree))];
}
