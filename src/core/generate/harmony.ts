import { chordOn, scaleStep } from '../harmony/chords';
import { noteIn, noteName, scaleSteps, type Tones } from '../document/tones';
import type { Pattern } from '../document/pattern';
import { soundingHits } from '../sequence/soundingHits';
import { mod } from '../time/ticks';

type Key = Pick<Tones, 'root' | 'scale'>;

/** A triad of a scale, and how long it holds. */
export interface Harmony {
  /** Ticks from the start of the pattern. */
  tick: number;
  length: number;
  /** Steps of the scale from its root to that of the triad, 0 and up. */
  degree: number;
}

/** How much louder than a third or a fifth a root speaks for its triad; and the lowest note, whose root may lie above it; and how loud a seventh does. */
const ROOT = 0.5;
const LOWEST = 0.1;
const SEVENTH = 0.7;

/**
 * Which triads of a scale the notes of a pattern make, from one unit of time to the next. Where nothing sounds the last one holds on.
 * @param of the pattern, which goes round for as long as `length`, and what its pads play
 * @param unit ticks, as half a bar
 */
export function harmonyOf(of: { pattern: Pattern; tones: Tones }, key: Key, length: number, unit: number): Harmony[] {
  const noteOf = noteIn(of.tones);
  const notes = soundingHits(of.pattern).map((hit) => ({ tick: hit.tick, length: hit.length, note: Math.round(noteOf(hit)) })); // prettier-ignore
  const found: Harmony[] = [];
  for (let tick = 0; tick < length; tick += unit) {
    const last = found.at(-1);
    const degree = triadOf(sharesWithin(notes, of.pattern.length, tick, unit), key) ?? last?.degree ?? 0;
    const ticks = Math.min(unit, length - tick);
    if (last?.degree === degree) last.length += ticks;
    else found.push({ tick, length: ticks, degree });
  }
  return found;
}

interface Shares {
  /** For how many ticks each pitch class sounds, from C up. */
  ticks: number[];
  lowest: number;
}

function sharesWithin(
  notes: readonly { tick: number; length: number; note: number }[],
  round: number,
  from: number,
  unit: number,
): Shares {
  const ticks = new Array<number>(12).fill(0);
  let lowest = Infinity;
  for (const { tick, length, note } of notes) {
    // Once in each round that the unit reaches into, and in the one before: a note may be held over the end.
    for (let turn = Math.floor(from / round) - 1; turn * round < from + unit; turn++) {
      const start = Math.max(from, turn * round + tick);
      const end = Math.min(from + unit, turn * round + tick + length);
      if (end <= start) continue;
      ticks[mod(note, 12)]! += end - start;
      lowest = Math.min(lowest, note);
    }
  }
  return { ticks, lowest };
}

/** The triad that fits best, by its degree; null where nothing sounds. */
function triadOf({ ticks, lowest }: Shares, key: Key): number | null {
  const whole = ticks.reduce((sum, each) => sum + each, 0);
  if (whole === 0) return null;
  let best = 0;
  let most = -Infinity;
  for (let degree = 0; degree < scaleSteps(key.scale).length; degree++) {
    const [root, third, fifth, seventh] = chordOn(key, rootOf(key, degree), 'seventh') as [
      number,
      number,
      number,
      number,
    ];
    const of = (note: number) => ticks[mod(note, 12)]!;
    const isLowest = mod(lowest - root, 12) === 0;
    const rating =
      (1 + ROOT) * of(root) + of(third) + of(fifth) + SEVENTH * of(seventh) + (isLowest ? LOWEST * whole : 0);
    if (rating <= most) continue;
    most = rating;
    best = degree;
  }
  return best;
}

/** The root of a triad, in the octave of middle C or above it. */
function rootOf(key: Key, degree: number): number {
  return scaleStep(key, 60 + key.root, degree);
}

/**
 * A triad as chord symbols have it: Am, F, Bdim.
 * @example triadName({ root: 9, scale: 'minor' }, 5) // 'F'
 */
export function triadName(key: Key, degree: number): string {
  const [root, third, fifth] = chordOn(key, rootOf(key, degree), 'triad') as [number, number, number];
  const name = noteName(root).replace(/-?\d+$/, '');
  const shape = `${third - root} ${fifth - root}`;
  return name + ({ '3 7': 'm', '3 6': 'dim', '4 8': 'aug', '4 7': '' }[shape] ?? '*');
}
