import { PPQ, ticksPerPulse, type Meter } from '../time/ticks';
import { barModel, usualPlaces, type Role } from './barModel';
import { beatFeels } from './beatFeels';
import { fitBeats, type BeatFit } from './fitBeats';
import { judgeBeat, type JudgedStrokes } from './judgeBeat';
import { likelyBeats } from './likelyBeats';

/** Where free playing lies in musical time. */
export interface Beat {
  /** Quarter notes per minute. */
  tempo: number;
  /** ms at which bar 1 beat 1 lies, on the strokes' clock. */
  firstBeatMs: number;
}

export interface Onset {
  ms: number;
  role: Role;
  /** 0..1 */
  velocity: number;
}

/** Slowest and fastest tempo that is believed, quarter notes per minute. */
const SLOWEST = 44;
const FASTEST = 208;
const FEWEST = 4;
/** The last ones tell enough, and a hand's tempo is not for ever. */
const ONSETS_USED = 128;
/** Strokes of one role nearer than this are one (a flam), ms. */
const FLAM_MS = 28;
/** How early a stroke on the bar line may be, as a share of the beat. */
const EARLY = 1 / 8;
/** Accents louder or quieter than this many standard deviations tell no more. */
const STRONGEST_ACCENT = 2;
/** Velocities that stray by less have no accents. */
const EVEN_VELOCITY = 0.02;

/**
 * Estimates tempo and first beat of free playing.
 *
 * Beats with which the strokes agree (`likelyBeats`) are laid onto them in each way to divide a beat (`fitBeats`), and each of
 * these, with each of its beats as the bar's first, is judged by how likely it makes the strokes (`judgeBeat`).
 *
 * @param strokes in order of time
 * @returns null for fewer than four onsets, or less than one beat of them
 * @example estimateBeat(backbeatAt112, { beats: 4, unit: 4 }) // { tempo: 112, firstBeatMs: that of the first bass drum }
 */
export function estimateBeat(strokes: readonly Onset[], meter: Meter): Beat | null {
  const all = withoutFlams(strokes);
  const onsets = all.slice(-ONSETS_USED);
  const origin = onsets[0]?.ms ?? 0;
  const quarters = ticksPerPulse(meter) / PPQ;
  const shortest = (60000 * quarters) / FASTEST;
  if (onsets.length < FEWEST || onsets[onsets.length - 1]!.ms - origin < shortest) return null;
  const judged: JudgedStrokes = {
    times: Float64Array.from(onsets, ({ ms }) => ms - origin),
    roles: onsets.map(({ role }) => role),
    accents: accentsOf(onsets),
    fromTheBeginning: all.length === onsets.length,
  };
  const likely = likelyBeats(judged.times, shortest, (60000 * quarters) / SLOWEST);
  const bar = barModel(meter);
  let best: { score: number; fit: BeatFit; first: number } | null = null;
  for (const feel of beatFeels(meter)) {
    const usual = usualPlaces(bar, feel);
    for (const fit of fitBeats(judged.times, likely, feel)) {
      for (let first = 0; first < bar.beats; first++) {
        const score = judgeBeat(judged, fit, first, bar, usual);
        if (score > (best?.score ?? -Infinity)) best = { score, fit, first };
      }
    }
  }
  if (!best) return null;
  const { beatMs, phase } = best.fit;
  const barMs = beatMs * bar.beats;
  const line = origin + phase + best.first * beatMs;
  // The bar line at the first stroke, or before it.
  const firstBeatMs = line + Math.floor((strokes[0]!.ms - line) / barMs + EARLY / bar.beats) * barMs;
  return { tempo: (60000 * quarters) / beatMs, firstBeatMs };
}

/** Without the quieter of two strokes of one role that are meant as one. */
function withoutFlams(strokes: readonly Onset[]): Onset[] {
  const kept: Onset[] = [];
  const last: Partial<Record<Role, number>> = {};
  for (const stroke of strokes) {
    const at = last[stroke.role];
    if (at !== undefined && stroke.ms - kept[at]!.ms < FLAM_MS) {
      if (stroke.velocity > kept[at]!.velocity) kept[at] = stroke;
      continue;
    }
    last[stroke.role] = kept.length;
    kept.push(stroke);
  }
  return kept.sort((a, b) => a.ms - b.ms);
}

/** How much louder each stroke is than its role's mean, in standard deviations. */
function accentsOf(onsets: readonly Onset[]): Float64Array {
  const accents = new Float64Array(onsets.length);
  for (const role of ['low', 'back', 'other'] as const) {
    const own = onsets.filter((onset) => onset.role === role).map(({ velocity }) => velocity);
    const mean = own.reduce((sum, v) => sum + v, 0) / own.length;
    const spread = Math.sqrt(own.reduce((sum, v) => sum + (v - mean) ** 2, 0) / own.length);
    if (!(spread > EVEN_VELOCITY)) continue;
    onsets.forEach((onset, i) => {
      const accent = (onset.velocity - mean) / spread;
      if (onset.role === role) accents[i] = Math.max(-STRONGEST_ACCENT, Math.min(STRONGEST_ACCENT, accent));
    });
  }
  return accents;
}
