import { FARTHEST_PITCH } from './limits';
import type { Feel } from '../quantize/feel';
import type { Snap } from '../quantize/place';
import type { Loudness } from './loudness';
import type { Roll } from './roll';

/** One stroke, as it was played and how it is placed. Placing is computed on the way to the ear (see `placedTick`). */
export interface Hit {
  /** Unique within the set. */
  id: number;
  /** 0..15; pad 0 is bottom left. */
  pad: number;
  /**
   * Struck time in ticks from the loop's start, with its fraction. Slightly below 0 when the stroke came just before
   * the loop's first step, to which it belongs.
   */
  tick: number;
  /** How long the pad was held, in ticks. */
  length: number;
  /** 0..1 */
  velocity: number;
  /** The pull towards a grid that input quantize gave it, or null to sound as struck. Tells which bar it belongs to. */
  snap: Snap | null;
  /** Number of the take within the pattern, from 1; absent for what was not played in a recording. */
  take?: number;
  /** Treatments of this hit alone. */
  feel?: Feel;
  loudness?: Loudness;
  /** Ticks from where it is placed to where it sounds: dragged late, or pushed early below 0. */
  nudge?: number;
  /** Semitones from the sound's own pitch, cents as the fraction. */
  pitch?: number;
  /** How likely it is to sound in a pass, 0..1; absent: always. */
  odds?: number;
  roll?: Roll;
}

/** Ids to give out: `first`, and every second number from there, since the engine gives out those between. */
export function idsFrom(first: number): () => number {
  let id = first - 2;
  return () => (id += 2);
}

/** Where a note lies: a pad, and the semitones that are left over. */
export interface NotePlace {
  pad: number;
  pitch: number;
}

/** A hit as another note, within what a stored set may hold. */
export function hitOn({ pitch: _, ...hit }: Hit, { pad, pitch }: NotePlace): Hit {
  const kept = Math.min(FARTHEST_PITCH, Math.max(-FARTHEST_PITCH, pitch));
  return { ...hit, pad, ...(kept !== 0 && { pitch: kept }) };
}
