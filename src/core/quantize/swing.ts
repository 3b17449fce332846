/**
 * Swing: of each pair of steps the second is late. The ratio is the share of the pair that the first step takes
 * (common practice: 50 % is straight, 66.7 % is 2:1, as two of three triplets).
 */
export interface Swing {
  /** Length of the swung step in ticks: an eighth or a sixteenth. */
  unit: number;
  /** 0.5..0.75 */
  ratio: number;
}

export const STRAIGHT = 0.5;
export const MOST_SWING = 0.75;

/**
 * Whether a grid has lines that swing moves: its step must fit a whole number of times into the swung one.
 * @example swings(480, { unit: 240, ratio: 0.6 }) // false: an eighth has no line that swung sixteenths move
 */
export function swings(grid: number, swing: Swing): boolean {
  return swing.ratio !== STRAIGHT && swing.unit % grid === 0;
}

/**
 * Where a straight tick lies once swung: each half of the pair is stretched or squeezed evenly. Keeps its fraction.
 * @example swungTick(240, { unit: 240, ratio: 0.6 }) // 288: of a pair of 480 the first step takes 60 %
 */
export function swungTick(tick: number, { unit, ratio }: Swing): number {
  const pair = 2 * unit;
  const start = Math.floor(tick / pair) * pair;
  const within = tick - start;
  return within < unit ? start + within * 2 * ratio : start + pair * ratio + (within - unit) * 2 * (1 - ratio);
}

/**
 * The straight tick of which a swung one was made: the inverse of `swungTick`.
 * @example unswungTick(288, { unit: 240, ratio: 0.6 }) // 240
 */
export function unswungTick(tick: number, { unit, ratio }: Swing): number {
  const pair = 2 * unit;
  const start = Math.floor(tick / pair) * pair;
  const within = tick - start;
  return within < pair * ratio
    ? start + within / (2 * ratio)
    : start + unit + (within - pair * ratio) / (2 * (1 - ratio));
}

/**
 * A ratio in a musician's words: "straight", "triplet (2:1)", "58 : 42".
 * @example swingWords(2 / 3) // 'triplet, 2 : 1'
 */
export function swingWords(ratio: number): string {
  if (ratio === STRAIGHT) return 'straight';
  if (Math.abs(ratio - 2 / 3) < 0.0015) return 'triplet, 2 : 1';
  if (ratio === MOST_SWING) return 'dotted, 3 : 1';
  const percent = Math.round(ratio * 1000) / 10;
  return `${percent} : ${Math.round((100 - percent) * 10) / 10}`;
}
