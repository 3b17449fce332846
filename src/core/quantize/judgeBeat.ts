import { mod } from '../time/ticks';
import type { BarModel, Role } from './barModel';
import { FURTHEST_MS, type BeatFit } from './fitBeats';

/** Strokes as they are judged. */
export interface JudgedStrokes {
  /** ms, in order */
  times: Float64Array;
  roles: readonly Role[];
  /** How much louder than its role's mean each is, in standard deviations. */
  accents: Float64Array;
  /** Whether the first of them is where the playing began. */
  fromTheBeginning: boolean;
}

/** How far hands stray from the line they mean (standard deviation, ms): the least that is believed, and the most. */
const STEADIEST_MS = 6;
const LOOSEST_MS = 22;
/** Share of the strokes that are on no line at all. */
const STRAY = 0.02;
/** After so many strokes of a role, where they were counts as much as where such strokes usually are. */
const LEARNT = 8;
/** What a stroke one standard deviation louder than its role's mean says for a line stronger by one; a bar's first counts more. */
const ACCENT = 0.8;
const FIRST_IS_STRONGER = 0.3;
/** How often playing begins on the one, in the beat before it, and elsewhere (common practice). */
const BEGINS = { one: 0.8, pickup: 0.15, elsewhere: 0.05 };
/** How far (octaves, standard deviation) tempos stray from the most usual one. */
const USUAL_OCTAVES = 0.36;
const ROOT_TAU = Math.sqrt(2 * Math.PI);

/**
 * Log likelihood of strokes when beat `first` of a fit is a bar's first.
 *
 * Each stroke's density within a bar is how often its role is at that place, times a normal distribution around the line. How
 * often is what is usual and what the strokes before have shown (a Dirichlet distribution's mean), so that a bar's length with
 * which bars repeat each other wins. Besides: accents are on strong lines, playing begins on the one, and tempos are usual ones.
 *
 * @param usual of each role at each place (`usualPlaces`)
 */
export function judgeBeat(
  { times, roles, accents, fromTheBeginning }: JudgedStrokes,
  { beatMs, feel, beat, line, off }: BeatFit,
  first: number,
  { beats, usualBeats }: BarModel,
  usual: Record<Role, readonly number[]>,
): number {
  const { lines } = feel;
  const places = beats * lines.length;
  const barMs = beats * beatMs;
  const spread = spreadOf(off);
  const counts = { low: new Uint16Array(places), back: new Uint16Array(places), other: new Uint16Array(places) };
  const totals = { low: 0, back: 0, other: 0 };
  const placeOf = (i: number) => mod(beat[i]! - first, beats) * lines.length + line[i]!;
  const meanStrength = lines.reduce((sum, { strength }) => sum + strength, 0) / lines.length;
  let score = feel.usual;
  for (let i = 0; i < times.length; i++) {
    const role = roles[i]!;
    const place = placeOf(i);
    const share = (LEARNT * usual[role][place]! + counts[role][place]!) / (LEARNT + totals[role]);
    const miss = off[i]! / spread;
    const near = Math.exp(-0.5 * miss * miss) / (spread * ROOT_TAU);
    score += Math.log((1 - STRAY) * share * near + STRAY / barMs);
    const strength = lines[line[i]!]!.strength + (place === 0 ? FIRST_IS_STRONGER : 0);
    score += ACCENT * accents[i]! * (strength - meanStrength);
    counts[role][place]!++;
    totals[role]++;
  }
  // The density is that of one bar: all bars share the strokes. The last stroke's own gap belongs to the stretch.
  const span = ((times[times.length - 1]! - times[0]!) * times.length) / (times.length - 1);
  score -= times.length * Math.log(span / barMs);
  if (fromTheBeginning) score += Math.log(beginning(placeOf(0), places, lines.length));
  const octaves = Math.log2(60000 / beatMs / usualBeats) / USUAL_OCTAVES;
  return score - (octaves * octaves) / 2;
}

/** How usual it is that playing begins at a place of the bar. */
function beginning(place: number, places: number, ofBeat: number): number {
  if (place === 0) return BEGINS.one;
  if (place >= places - ofBeat) return BEGINS.pickup / ofBeat;
  return BEGINS.elsewhere / Math.max(1, places - ofBeat - 1);
}

/** How far the strokes stray from their lines, ms, within what hands do. */
function spreadOf(off: Float64Array): number {
  let squares = 0;
  for (const ms of off) squares += Math.min(ms * ms, FURTHEST_MS * FURTHEST_MS);
  return Math.min(LOOSEST_MS, Math.max(STEADIEST_MS, Math.sqrt(squares / off.length)));
}
