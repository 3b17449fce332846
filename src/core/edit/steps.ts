import type { Hit, Pattern } from '../model/set';
import { isInLoop, passOf, type SoundingHit } from '../sequence/soundingHits';
import { mod, ticksPerBar, ticksPerBeat, type Meter } from '../time/ticks';
import { placedTick } from '../timing/place';

/** One step of one lane. */
export interface Step {
  pad: number;
  /** Where it begins, ticks from the loop's start. */
  tick: number;
  /** Its length, ticks. */
  length: number;
}

/** What sounds within a step, and what is covered there. */
export function hitsInStep(pattern: Pattern, { pad, tick, length }: Step): SoundingHit[] {
  const { sounding, covered } = passOf(pattern);
  const isIn = (hit: SoundingHit) => hit.pad === pad && hit.tick >= tick && hit.tick < tick + length;
  return [...sounding.filter(isIn), ...covered.filter(isIn)];
}

/** The pattern with hits added. */
export function painted(pattern: Pattern, hits: readonly Hit[]): Pattern {
  return { ...pattern, hits: [...pattern.hits, ...hits] };
}

/** The pattern without some hits. */
export function withoutHits(pattern: Pattern, ids: readonly number[]): Pattern {
  const gone = new Set(ids);
  return { ...pattern, hits: pattern.hits.filter((hit) => !gone.has(hit.id)) };
}

/** The pattern with some hits struck harder or softer: velocities by id, 0..1. */
export function withVelocities(pattern: Pattern, velocities: ReadonlyMap<number, number>): Pattern {
  const hits = pattern.hits.map((hit) => {
    const velocity = velocities.get(hit.id);
    return velocity === undefined ? hit : { ...hit, velocity };
  });
  return { ...pattern, hits };
}

/** A lane's hits moved round the loop by some ticks; each keeps how far off its grid it was struck. */
export function rotated(pattern: Pattern, pad: number, ticks: number): Pattern {
  const { length } = pattern;
  const hits = pattern.hits.map((hit) => {
    if (hit.pad !== pad || !isInLoop(hit, length)) return hit;
    const home = placedTick(hit.tick, hit.snap);
    return { ...hit, tick: hit.tick + mod(home + ticks, length) - home };
  });
  return { ...pattern, hits };
}

/** The pattern without the hits of a pad that lie in the loop; what waits on the tape beyond it stays. */
export function laneCleared(pattern: Pattern, pad: number): Pattern {
  return { ...pattern, hits: pattern.hits.filter((hit) => hit.pad !== pad || !isInLoop(hit, pattern.length)) };
}

/** How many steps a loop has; the last one may be cut short by its end. */
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
