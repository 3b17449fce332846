/** Where it is looked for around the place that is about right, seconds, and how finely. */
const BEFORE = 0.02;
const AFTER = 0.012;
const STEP = 0.0005;
/** What is compared at each place: so much before it with so much after it, seconds. */
const QUIET = 0.008;
const LOUD = 0.003;
/** Levels that count as silence, so that one silence is not infinitely louder than another: -90 dB. */
const SILENCE = 1e-9;

/**
 * The frame near a place at which the sound's level rises most, all of it and its highs alike: highs tell a hat that begins in the
 * ringing of a bass drum.
 * @param mono its loudest is near 1
 * @param rate frames per second
 */
export function riseNear(mono: Float32Array, frame: number, rate: number): number {
  const [quiet, loud] = [Math.round(QUIET * rate), Math.round(LOUD * rate)];
  const [first, last] = [frame - Math.round(BEFORE * rate), frame + Math.round(AFTER * rate)];
  const from = first - quiet;
  const length = last + loud - from;
  const all = energies(length, (i) => mono[from + i] ?? 0);
  // The difference from frame to frame is a filter that lets highs through.
  const highs = energies(length, (i) => (mono[from + i] ?? 0) - (mono[from + i - 1] ?? 0));
  const rise = (sums: Float64Array, at: number) =>
    Math.log((mean(sums, at, at + loud) + SILENCE) / (mean(sums, at - quiet, at) + SILENCE));
  let most = -Infinity;
  let best = frame;
  for (let at = first; at <= last; at += Math.round(STEP * rate)) {
    const risen = rise(all, at - from) + rise(highs, at - from);
    if (risen <= most) continue;
    most = risen;
    best = at;
  }
  return Math.min(mono.length - 1, Math.max(0, best));
}

/** Sums of squares up to each frame. */
function energies(length: number, value: (i: number) => number): Float64Array {
  const sums = new Float64Array(length + 1);
  for (let i = 0; i < length; i++) sums[i + 1] = sums[i]! + value(i) ** 2;
  return sums;
}

function mean(sums: Float64Array, from: number, to: number): number {
  return (sums[to]! - sums[from]!) / (to - from);
}
