import { exp2, sinTurns, tanHalfTurns } from '../math';

export type MatchedKind = 'low' | 'band' | 'high';

/** A second-order filter, y = b0 x + b1 x' + b2 x'' - a1 y' - a2 y''. */
export interface Biquad {
  b0: number;
  b1: number;
  b2: number;
  a1: number;
  a2: number;
}

/** 2π / ln 2: e to the power of -2π x is 2 to the power of -this x. */
const TURN = 9.064720283654388;
/** Above this share of the sample rate a cutoff is not told from it any more. */
const HIGHEST = 0.45;
/** Below this share the bilinear transform is as near to its model as anyone hears, and needs less exact numbers. */
const LOW = 0.01;

/**
 * Sets a biquad to a filter whose gain is that of its analogue model up to nearly half the sample rate: the bilinear transform, which
 * squeezes what lies up there, sounds different at every sample rate. Poles are those of the model by impulse invariance, zeros make
 * the gain that of the model at two or three frequencies (M. Vicanek, Matched Second Order Digital Filters, 2016; from memory).
 *
 * @param cutoff as a share of the sample rate
 * @param q at least 0.5; 0.707 is flat. A band-pass has a gain of 1 in its middle
 */
export function setMatched(filter: Biquad, kind: MatchedKind, cutoff: number, q: number): void {
  const turns = Math.min(HIGHEST, cutoff);
  if (turns < LOW) return setBilinear(filter, kind, turns, q);
  const damping = 1 / (2 * q);
  const radius = exp2(-TURN * damping * turns);
  const a1 = -2 * radius * sinTurns(0.25 + turns * Math.sqrt(1 - damping * damping));
  const a2 = radius * radius;
  const sine = sinTurns(turns / 2);
  // The model is met at 0 Hz, at half the sample rate and at the cutoff, by what these weigh.
  const p1 = sine * sine;
  const p0 = 1 - p1;
  const p2 = 4 * p0 * p1;
  const ofZero = (1 + a1 + a2) * (1 + a1 + a2);
  const ofHalf = (1 - a1 + a2) * (1 - a1 + a2);
  const ofBoth = -4 * a2;
  const atCutoff = ofZero * p0 + ofHalf * p1 + ofBoth * p2;
  filter.a1 = a1;
  filter.a2 = a2;
  if (kind === 'high') {
    filter.b0 = (Math.sqrt(atCutoff) * q) / (4 * p1);
    filter.b1 = -2 * filter.b0;
    filter.b2 = filter.b0;
  } else if (kind === 'low') {
    const zero = Math.sqrt(ofZero);
    const half = Math.sqrt(Math.max(0, (atCutoff * q * q - ofZero * p0) / p1));
    filter.b0 = (zero + half) / 2;
    filter.b1 = zero - filter.b0;
    filter.b2 = 0;
  } else {
    const slope = ofHalf - ofZero + 4 * (p0 - p1) * ofBoth;
    const both = (atCutoff - slope * p1) / (4 * p1 * p1);
    const half = slope + 4 * (p1 - p0) * both;
    filter.b1 = -Math.sqrt(Math.max(0, half)) / 2;
    filter.b0 = (Math.sqrt(Math.max(0, both + filter.b1 * filter.b1)) - filter.b1) / 2;
    filter.b2 = -filter.b0 - filter.b1;
  }
}

function setBilinear(filter: Biquad, kind: MatchedKind, turns: number, q: number): void {
  const g = tanHalfTurns(turns);
  const damping = g / q;
  const scale = 1 / (1 + damping + g * g);
  filter.a1 = 2 * (g * g - 1) * scale;
  filter.a2 = (1 - damping + g * g) * scale;
  if (kind === 'band') {
    filter.b0 = damping * scale;
    filter.b1 = 0;
    filter.b2 = -filter.b0;
  } else {
    filter.b0 = (kind === 'low' ? g * g : 1) * scale;
    filter.b1 = kind === 'low' ? 2 * filter.b0 : -2 * filter.b0;
    filter.b2 = filter.b0;
  }
}
