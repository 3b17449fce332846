import { passOf, type SoundingHit } from '../sequence/soundingHits';
import { mod, ticksPerBar, ticksPerBeat, type Meter } from '../time/ticks';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

/** One step of one lane. */
export interface Step {
  /** Which hits lie in the lane. */
  lane: (hit: Pick<Hit, 'pad' | 'pitch'>) => boolean;
  /** Where it begins, ticks from the loop's start. */
  tick: number;
  /** Its length, ticks. */
  length: number;
}

/** What sounds within a step, and what is covered there. */
export function hitsInStep(pattern: Pattern, { lane, tick, length }: Step): SoundingHit[] {
  const { sounding, covered } = passOf(pattern);
  const isIn = (hit: SoundingHit) => lane(hit) && hit.tick >= tick && hit.tick < tick + length;
  return [...sounding.filter(isIn), ...covered.filter(isIn)];
}

/** How many steps a loop has; its end may cut the last one short. */
export function stepCount(length: number, step: number): number {
  return Math.max(1, Math.ceil(length / step));
}

/** A step's place in words: "bar 1 beat 2 step 3", steps counted within their beat. */
export function stepWords(tick: number, step: number, meter: Meter): string {
  const bar = ticksPerBar(meter);
  const beat = ticksPerBeat(meter);
  const within = mod(tick, bar);
  const inBeat = mod(within, beat);
  return `bar ${Math.floor(tick / bar) + 1} beat ${Math.floor(within / beat) + 1} step ${Math.floor(inBeat / step) + 1}`;
}
