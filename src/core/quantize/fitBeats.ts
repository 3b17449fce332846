import type { BeatFeel } from './beatFeels';

/** A beat laid onto strokes: stroke `i` falls on line `line[i]` of beat `beat[i]`, `off[i]` ms late. */
export interface BeatFit {
  beatMs: number;
  /** ms at which beat 0 begins. */
  phase: number;
  feel: BeatFeel;
  beat: Int32Array;
  line: Int32Array;
  off: Float64Array;
}

/** Phases tried to a beat. */
const PHASES = 32;
/** How near a line a stroke is counted as being on it, as a share of the beat (standard deviation). */
const NEAR = 1 / 32;
/** What fits less than this share of the best is given up before it is laid. */
const WORTH_LAYING = 0.8;
const ROUNDS = 3;
/** A stroke further than this from its line does not move the fit, and counts as no further, ms. */
export const FURTHEST_MS = 60;

/**
 * Lays beats of about these lengths onto strokes, each from every phase that fits (lines that are evenly spaced fit as well from
 * each of them on): first by trying phases, then by least squares with every stroke at its nearest line.
 * @param times ms, in order
 * @param lengths ms
 */
export function fitBeats(times: Float64Array, lengths: readonly number[], feel: BeatFeel): BeatFit[] {
  const found: { beatMs: number; phase: number; score: number }[] = [];
  for (const beatMs of lengths) {
    const scores = Array.from({ length: PHASES }, (_, i) => nearness(times, beatMs, (i * beatMs) / PHASES, feel));
    scores.forEach((score, i) => {
      const isPeak = score >= scores[(i + PHASES - 1) % PHASES]! && score > scores[(i + 1) % PHASES]!;
      if (isPeak) found.push({ beatMs, phase: (i * beatMs) / PHASES, score });
    });
  }
  const best = Math.max(...found.map(({ score }) => score));
  return found
    .filter(({ score }) => score >= WORTH_LAYING * best)
    .map(({ beatMs, phase }) => refine(times, beatMs, phase, feel));
}

function nearness(times: Float64Array, beatMs: number, phase: number, { lines }: BeatFeel): number {
  let sum = 0;
  for (const t of times) {
    const x = (t - phase) / beatMs;
    const share = x - Math.floor(x);
    let nearest = 1 - share; // the next beat's first line
    for (const { at } of lines) nearest = Math.min(nearest, Math.abs(share - at));
    const off = nearest / NEAR;
    sum += 1 / (1 + off * off);
  }
  return sum;
}

function refine(times: Float64Array, firstBeatMs: number, firstPhase: number, feel: BeatFeel): BeatFit {
  const beat = new Int32Array(times.length);
  const line = new Int32Array(times.length);
  const off = new Float64Array(times.length);
  let beatMs = firstBeatMs;
  let phase = firstPhase;
  for (let round = 0; round <= ROUNDS; round++) {
    assign(times, beatMs, phase, feel, { beat, line, off });
    if (round === ROUNDS) break;
    let [n, sumX, sumT, sumXX, sumXT] = [0, 0, 0, 0, 0];
    for (let i = 0; i < times.length; i++) {
      if (Math.abs(off[i]!) > FURTHEST_MS) continue;
      const x = beat[i]! + feel.lines[line[i]!]!.at;
      const t = times[i]!;
      n++;
      sumX += x;
      sumT += t;
      sumXX += x * x;
      sumXT += x * t;
    }
    const spread = n * sumXX - sumX * sumX;
    if (spread < 1e-9) break;
    beatMs = (n * sumXT - sumX * sumT) / spread;
    phase = (sumT - beatMs * sumX) / n;
  }
  return { beatMs, phase, feel, beat, line, off };
}

/** Puts each stroke on its nearest line. */
function assign(
  times: Float64Array,
  beatMs: number,
  phase: number,
  { lines }: BeatFeel,
  { beat, line, off }: Pick<BeatFit, 'beat' | 'line' | 'off'>,
): void {
  for (let i = 0; i < times.length; i++) {
    const x = (times[i]! - phase) / beatMs;
    const whole = Math.floor(x);
    let nearest = x - whole - 1;
    beat[i] = whole + 1;
    line[i] = 0;
    for (let l = 0; l < lines.length; l++) {
      const distance = x - whole - lines[l]!.at;
      if (Math.abs(distance) >= Math.abs(nearest)) continue;
      nearest = distance;
      beat[i] = whole;
      line[i] = l;
    }
    off[i] = nearest * beatMs;
  }
}
