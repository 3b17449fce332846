/** What a stroke tells of the bar: a bass drum marks its ones and threes, a snare its twos and fours (common practice). */
export type Role = 'low' | 'back' | 'other';

/** Where free playing lies in musical time. */
export interface Beat {
  /** BPM */
  tempo: number;
  /** ms at which bar 1 beat 1 lies, on the strokes' clock. */
  firstBeatMs: number;
}

export interface Onset {
  ms: number;
  role: Role;
}

const SLOWEST = 68;
const FASTEST = 184;
/** Where tempos are most often, BPM, and how far (in octaves) they stray from there. */
const USUAL_TEMPO = 112;
const USUAL_OCTAVES = 0.55;
/** The last ones tell enough, and a hand's tempo is not for ever. */
const ONSETS_USED = 96;
/** Tempos are tried in steps over which the first and the last stroke move apart by this much, ms. */
const STEP_MS = 6;
/** How far apart strokes may lie to be one onset, ms. */
const CHORD_MS = 28;
const CANDIDATES = 16;
/** What an onset on a place of the beat is worth: on it, between, on the other sixteenths. */
const PLACE_WORTH = [1, 0.62, 0.38] as const;
const LOW_ON_BEAT = 0.35;
const BACK_ON_BEAT = 0.5;

/**
 * Estimates tempo and first beat of free playing.
 *
 * Every tempo from 68 to 184 BPM is tried: how well the onsets agree with its sixteenths, eighths and quarters is the
 * length of their sum as vectors turning with each (a Fourier sum at the note values). The best ones are fitted to the
 * onsets by least squares and judged by where in the beat the strokes fall.
 *
 * @param strokes in order of time
 * @param beats to the bar
 * @returns null for fewer than four onsets
 */
export function estimateBeat(strokes: readonly Onset[], beats = 4): Beat | null {
  const onsets = chords(strokes).slice(-ONSETS_USED);
  if (onsets.length < 4) return null;
  const origin = onsets[0]!.ms;
  const times = onsets.map(({ ms }) => ms - origin);
  let best: { score: number; beatMs: number; phase: number } | null = null;
  for (const beatMs of likelyBeats(times)) {
    const fitted = fit(times, beatMs / 4);
    for (let shift = 0; shift < 4; shift++) {
      const phase = fitted.phase + shift * fitted.step;
      const score = judge(onsets, times, fitted.step, phase) * usual(60000 / (4 * fitted.step));
      if (score > (best?.score ?? -Infinity)) best = { score, beatMs: 4 * fitted.step, phase };
    }
  }
  if (!best) return null;
  const { beatMs, phase } = best;
  const shift = barShift(onsets, times, beatMs, phase, beats);
  const bar = beatMs * beats;
  const line = phase + shift * beatMs;
  // The bar line at the first stroke, or before it; a stroke a little early is still on it.
  const first = line + Math.floor((times[0]! - line) / bar + 0.125 / beats) * bar;
  const before = chords(strokes)[0]!.ms - origin;
  const barsBefore = Math.floor((before - first) / bar + 0.125 / beats);
  return { tempo: 60000 / beatMs, firstBeatMs: origin + first + barsBefore * bar };
}

/** Strokes that fall together are one onset, with the most telling role among them. */
function chords(strokes: readonly Onset[]): Onset[] {
  const out: Onset[] = [];
  for (const { ms, role } of strokes) {
    const last = out[out.length - 1];
    if (last && ms - last.ms < CHORD_MS) {
      if (last.role === 'other') last.role = role;
    } else out.push({ ms, role });
  }
  return out;
}

/** Beats (ms) with which the onsets agree best, each a peak among its neighbours. */
function likelyBeats(times: readonly number[]): number[] {
  const span = Math.max(1000, times[times.length - 1]!);
  const ratio = 1 + STEP_MS / span;
  const tried: { beatMs: number; score: number }[] = [];
  for (let beatMs = 60000 / FASTEST; beatMs <= 60000 / SLOWEST; beatMs *= ratio) {
    const score = agreement(times, beatMs / 4) + 0.8 * agreement(times, beatMs / 2) + 0.6 * agreement(times, beatMs);
    tried.push({ beatMs, score: score * (0.5 + 0.5 * usual(60000 / beatMs)) });
  }
  return tried
    .filter(({ score }, i) => score >= (tried[i - 1]?.score ?? 0) && score >= (tried[i + 1]?.score ?? 0))
    .sort((a, b) => b.score - a.score)
    .slice(0, CANDIDATES)
    .map(({ beatMs }) => beatMs);
}

/** How well the onsets keep to a period: 1 all in step, near 0 none. */
function agreement(times: readonly number[], period: number): number {
  let x = 0;
  let y = 0;
  for (const t of times) {
    const angle = (2 * Math.PI * t) / period;
    x += Math.cos(angle);
    y += Math.sin(angle);
  }
  return Math.sqrt(x * x + y * y) / times.length;
}

/** The step near `step` and its phase that fit the onsets best (least squares, each onset at its nearest step). */
function fit(times: readonly number[], step: number): { step: number; phase: number } {
  let x = 0;
  let y = 0;
  for (const t of times) {
    x += Math.cos((2 * Math.PI * t) / step);
    y += Math.sin((2 * Math.PI * t) / step);
  }
  let phase = (Math.atan2(y, x) / (2 * Math.PI)) * step;
  for (let i = 0; i < 3; i++) {
    const ks = times.map((t) => Math.round((t - phase) / step));
    const meanK = ks.reduce((a, b) => a + b, 0) / ks.length;
    const meanT = times.reduce((a, b) => a + b, 0) / times.length;
    let across = 0;
    let along = 0;
    ks.forEach((k, j) => {
      across += (k - meanK) * (times[j]! - meanT);
      along += (k - meanK) * (k - meanK);
    });
    if (along === 0) break;
    step = across / along;
    phase = meanT - step * meanK;
  }
  return { step, phase };
}

function judge(onsets: readonly Onset[], times: readonly number[], step: number, phase: number): number {
  let score = 0;
  let squares = 0;
  times.forEach((t, i) => {
    const k = Math.round((t - phase) / step);
    const off = t - phase - k * step;
    squares += off * off;
    const place = ((k % 4) + 4) % 4;
    score += PLACE_WORTH[place === 0 ? 0 : place === 2 ? 1 : 2];
    if (place !== 0) return;
    const { role } = onsets[i]!;
    if (role === 'low') score += LOW_ON_BEAT;
    if (role === 'back') score += BACK_ON_BEAT;
  });
  const spread = Math.sqrt(squares / times.length) / step;
  // Strokes thrown at random lie 0.29 steps from their lines on average: that much is no agreement at all.
  return (score / times.length) * Math.max(0.01, 1 - spread / 0.29);
}

function usual(tempo: number): number {
  const octaves = Math.log2(tempo / USUAL_TEMPO) / USUAL_OCTAVES;
  return Math.exp((-octaves * octaves) / 2);
}

/** Which of the bar's beats the phase is to be moved by, so that it is a bar line. */
function barShift(
  onsets: readonly Onset[],
  times: readonly number[],
  beatMs: number,
  phase: number,
  beats: number,
): number {
  let best = 0;
  let bestScore = -Infinity;
  for (let shift = 0; shift < beats; shift++) {
    let score = 0;
    times.forEach((t, i) => {
      const beat = (t - phase) / beatMs - shift;
      const whole = Math.round(beat);
      if (Math.abs(beat - whole) > 0.125) return;
      const inBar = ((whole % beats) + beats) % beats;
      const { role } = onsets[i]!;
      if (role === 'low') score += inBar === 0 ? 1 : inBar % 2 === 0 ? 0.5 : 0;
      if (role === 'back') score += inBar % 2 === 1 ? 1 : 0;
      // Players begin on the one (common practice).
      if (i === 0 && inBar === 0) score += 2 + times.length / 16;
    });
    if (score > bestScore) {
      bestScore = score;
      best = shift;
    }
  }
  return best;
}
