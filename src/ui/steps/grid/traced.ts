import { laneKeys, type StepLane } from '@/core/document/stepLanes';
import type { Pattern } from '@/core/document/pattern';
import { noteName } from '@/core/document/tones';
import type { Track } from '@/core/document/track';
import { passOf, type SoundingHit } from '@/core/sequence/soundingHits';
import { mod } from '@/core/time/ticks';

/** A hit of the pattern beneath, with the name of its note; of a kit it has none. */
export interface TracedHit extends SoundingHit {
  name: string | null;
}

/** The pattern beneath, in the lanes of the one that is shown. */
export interface Traced {
  lanes: readonly (readonly TracedHit[])[];
  /** Ticks of its loop. */
  length: number;
}

/** Where each hit of another pattern lies among the lanes of the shown track: notes on their note, all else on its pad. */
export function tracedIn(lanes: readonly StepLane[], shown: Track, traced: Track, pattern: Pattern): Traced {
  const keyOf = laneKeys(traced);
  const areNotes = traced.tones !== undefined;
  const laneOf = areNotes && shown.tones ? nearestLanes(lanes) : padLanes(lanes, shown);
  const rows: TracedHit[][] = lanes.map(() => []);
  for (const hit of passOf(pattern).sounding) {
    const name = areNotes ? noteName(keyOf(hit)) : null;
    rows[laneOf(areNotes && shown.tones ? keyOf(hit) : hit.pad)]?.push({ ...hit, name });
  }
  return { lanes: rows, length: pattern.length };
}

/** The lane of a note. One that has none, as a bass beneath a melody, is seen in its nearest octave that has. */
function nearestLanes(lanes: readonly StepLane[]): (note: number) => number {
  return (note) => {
    let best = 0;
    const off = ({ key }: StepLane) => Math.abs(key - note) + (mod(key - note, 12) === 0 ? 0 : 1000);
    lanes.forEach((lane, i) => {
      if (off(lane) < off(lanes[best]!)) best = i;
    });
    return best;
  };
}

function padLanes(lanes: readonly StepLane[], shown: Track): (pad: number) => number {
  const keyOf = laneKeys(shown);
  const rows = new Map(lanes.map(({ key }, i) => [key, i]));
  return (pad) => rows.get(keyOf({ pad })) ?? -1;
}

/** What the pattern beneath has in each lane by the shown pattern's steps, in words; null: nothing that has names. */
export function wordsBeneath(
  { lanes, length }: Traced,
  step: number,
  shown: number,
): ReadonlyMap<number, string>[] | null {
  if (!lanes.some((hits) => hits.some(({ name }) => name !== null))) return null;
  return lanes.map((hits) => {
    const words = new Map<number, string>();
    for (let turn = 0; turn < shown; turn += length) {
      for (const { tick, name } of hits) {
        if (turn + tick < shown) words.set(Math.floor((turn + tick) / step), `${name} beneath`);
      }
    }
    return words;
  });
}
