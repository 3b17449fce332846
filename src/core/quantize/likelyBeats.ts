/** How far the phase of a sum may turn from one frequency to the next, over the whole stretch: an eighth of a turn. */
const TURNS_A_STEP = 1 / 8;
/** What the agreement on a beat's own period and on its divisions by two, three and four says for it. */
const WEIGHTS = [
  { one: 0.6, two: 0.8, three: 0, four: 1 },
  { one: 0.6, two: 0, three: 1.2, four: 0 },
  { one: 0.8, two: 1, three: 0, four: 0 },
] as const;
/** Beats taken for each of these. */
const BEST = 10;
/** Beats that differ by less are one. */
const SAME = 0.012;

/**
 * The beats that strokes agree with best.
 *
 * How well strokes keep to a period is the length of their sum as vectors that turn once in it (a Fourier sum). It is taken at
 * evenly spaced frequencies, so that each stroke's vector is turned on by one multiplication; a beat is as good as the sums at
 * its own frequency and at two, three and four times that.
 *
 * @param times of the strokes, ms, from 0 on in order
 * @param shortest length of a beat, ms
 * @param longest length of a beat, ms
 * @returns lengths in ms
 */
export function likelyBeats(times: Float64Array, shortest: number, longest: number): number[] {
  const span = Math.max(1000, times[times.length - 1]!);
  const step = TURNS_A_STEP / span;
  const sums = agreements(times, step, Math.ceil(4 / shortest / step) + 2);
  const at = (index: number) => {
    const low = Math.floor(index);
    return sums[low]! + (sums[low + 1]! - sums[low]!) * (index - low);
  };
  const first = Math.floor((4 * (1 / longest)) / step);
  const last = Math.ceil((4 * (1 / shortest)) / step);
  const found: number[] = [];
  for (const { one, two, three, four } of WEIGHTS) {
    const tried: { beatMs: number; score: number }[] = [];
    // In quarters of a step: at four times the beat's frequency that is one step.
    for (let i = first; i <= last; i++) {
      const score = one * at(i / 4) + two * at(i / 2) + three * at((3 * i) / 4) + four * sums[i]!;
      tried.push({ beatMs: 4 / (i * step), score });
    }
    const peaks = tried
      .filter(({ score }, i) => score >= (tried[i - 1]?.score ?? 0) && score >= (tried[i + 1]?.score ?? 0))
      .sort((a, b) => b.score - a.score)
      .slice(0, BEST);
    for (const { beatMs } of peaks) {
      if (!found.some((other) => Math.abs(other / beatMs - 1) < SAME)) found.push(beatMs);
    }
  }
  return found;
}

/** How well strokes keep to each frequency `i * step` (1/ms): 1 all in step, near 0 none. */
function agreements(times: Float64Array, step: number, count: number): Float64Array {
  const across = new Float64Array(count);
  const along = new Float64Array(count);
  for (const t of times) {
    const turnX = Math.cos(2 * Math.PI * step * t);
    const turnY = Math.sin(2 * Math.PI * step * t);
    let x = 1;
    let y = 0;
    for (let i = 0; i < count; i++) {
      across[i]! += x;
      along[i]! += y;
      const nextX = x * turnX - y * turnY;
      y = x * turnY + y * turnX;
      x = nextX;
    }
  }
  return across.map((x, i) => Math.hypot(x, along[i]!) / times.length);
}
