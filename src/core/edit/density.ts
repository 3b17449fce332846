import type { SoundingHit } from '../sequence/soundingHits';
import { PPQ } from '../time/ticks';

/** This many different sounds at once begin to hide each other (common practice: a kick, a snare and a hat do not). */
const MANY = 4;
/** Strokes this near are one moment, ticks. */
const MOMENT = PPQ / 16;

export interface DenseMoment {
  tick: number;
  /** Different pads that sound. */
  sounds: number;
}

/** The moments at which many sounds fall together. */
export function denseMoments(sounding: readonly SoundingHit[]): DenseMoment[] {
  const moments: { tick: number; pads: Set<number> }[] = [];
  for (const { tick, pad } of sounding) {
    const last = moments[moments.length - 1];
    if (last && tick - last.tick <= MOMENT) last.pads.add(pad);
    else moments.push({ tick, pads: new Set([pad]) });
  }
  return moments.filter(({ pads }) => pads.size >= MANY).map(({ tick, pads }) => ({ tick, sounds: pads.size }));
}
