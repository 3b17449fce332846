import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import { homeOf } from '../sequence/soundingHits';
import { PPQ } from '../time/ticks';
import type { Ids } from './select';

/** Notes this near to each other, ticks, are one chord: a 64th note. */
const TOGETHER = PPQ / 16;

/** The chords among chosen hits, each from its lowest note up. A note alone is none. */
function chordsOf(pattern: Pattern, ids: Ids, noteOf: (hit: Hit) => number): Hit[][] {
  const chosen = pattern.hits.filter((hit) => ids.has(hit.id)).sort((a, b) => homeOf(a) - homeOf(b));
  const chords: Hit[][] = [];
  for (const hit of chosen) {
    const chord = chords.at(-1);
    if (chord && homeOf(hit) - homeOf(chord[0]!) <= TOGETHER) chord.push(hit);
    else chords.push([hit]);
  }
  return chords.filter(({ length }) => length > 1).map((chord) => chord.sort((a, b) => noteOf(a) - noteOf(b)));
}

/**
 * Strums the chords among chosen hits: their first note stays in time, each other one sounds later than the one before it.
 * @param ticks from one note to the next: from the lowest up, below 0 from the highest down, 0 all at once
 */
export function strummed(pattern: Pattern, ids: Ids, noteOf: (hit: Hit) => number, ticks: number): Pattern {
  const nudges = new Map<number, number>();
  for (const chord of chordsOf(pattern, ids, noteOf)) {
    if (ticks < 0) chord.reverse();
    chord.forEach(({ id }, i) => nudges.set(id, i * Math.abs(ticks)));
  }
  if (nudges.size === 0) return pattern;
  const hits = pattern.hits.map((hit) => {
    const late = nudges.get(hit.id);
    if (late === undefined) return hit;
    const { nudge: _, ...rest } = hit;
    return late === 0 ? rest : { ...rest, nudge: late };
  });
  return { ...pattern, hits };
}

/** How the first chord among chosen hits is strummed, in ticks as above; null if there is no chord. */
export function strumOf(pattern: Pattern, ids: Ids, noteOf: (hit: Hit) => number): number | null {
  const [chord] = chordsOf(pattern, ids, noteOf);
  return chord ? (chord[1]!.nudge ?? 0) - (chord[0]!.nudge ?? 0) : null;
}
