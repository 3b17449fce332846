import { hash } from '../math';

/**
 * What the parts of a voice (body, layers, tone) are told of the stroke that starts them. A voice fills in its own one anew for
 * each stroke, so that strokes cost no garbage.
 */
export interface Touch {
  /** 0..1 */
  velocity: number;
  /** Linear, velocity included. */
  gain: number;
  /** Ratio of the pitch to the sound's own. */
  pitch: number;
  /** Ratio of the filter's cutoff to the sound's own, besides what its pitch moves it by. */
  filter: number;
  /** Ratio of the decays to the sound's own. */
  longer: number;
  /** Seconds before the decays begin. */
  hold: number;
  /** Share of the greatest difference between strokes, 0..1, and what chance draws it from. */
  variation: number;
  seed: number;
}

/** Semitones by which the pitch differs from stroke to stroke at full variation. Metal keeps its own: it is read faster so. */
export const PITCH_VARIATION = 0.16;

/** A touch at full velocity of the sound as it is. */
export function newTouch(): Touch {
  return { velocity: 1, gain: 1, pitch: 1, filter: 1, longer: 1, hold: 0, variation: 0, seed: 1 };
}

/**
 * One of the things in which strokes differ, -1..1; 0 without variation.
 * @param which any number that names the thing
 */
export function differs({ variation, seed }: Pick<Touch, 'variation' | 'seed'>, which: number): number {
  return variation === 0 ? 0 : (variation * hash(seed, which, 17)) / 2147483648;
}
