import { mod } from '../time/ticks';

/** Loudness as a reversible treatment: of a pattern, of a lane or of single hits. The struck velocity is kept. */
export interface Loudness {
  /** Velocity that hits are evened out to, 0..1. */
  level: number;
  /** How far they are, 0..1. */
  even: number;
  /** Factor after that, 0..2. */
  scale: number;
  /** Beats that are accented. */
  accents?: Accents;
}

export interface Accents {
  /** Length of the bar in ticks. */
  bar: number;
  /** Ticks within the bar. */
  at: number[];
  /** How much of the way to full velocity an accented hit is raised, 0..1. */
  amount: number;
}

/** Common practice: a ghost note is felt more than heard, about a quarter of full velocity. */
export const GHOST: Loudness = { level: 0.24, even: 1, scale: 1 };
export const UNTREATED: Loudness = { level: 0.7, even: 0, scale: 1 };

/** The softest velocity that still sounds (1 of MIDI's 127). */
const SOFTEST = 1 / 127;
/** A hit this near an accented beat (a 64th) is on it. */
const ON_BEAT_TICKS = 60;

/**
 * The velocity that sounds, 0..1.
 * @param velocity as struck, 0..1
 * @param tick where the hit is placed, for accents
 */
export function treatedVelocity(velocity: number, tick: number, loudness: Loudness | null): number {
  if (!loudness) return velocity;
  const { level, even, scale, accents } = loudness;
  let treated = (velocity + (level - velocity) * even) * scale;
  if (accents && isAccented(tick, accents)) treated += (1 - treated) * accents.amount;
  return Math.min(1, Math.max(SOFTEST, treated));
}

function isAccented(tick: number, { bar, at }: Accents): boolean {
  const within = mod(tick, bar);
  return at.some((beat) => {
    const apart = Math.abs(within - beat);
    return Math.min(apart, bar - apart) <= ON_BEAT_TICKS;
  });
}
