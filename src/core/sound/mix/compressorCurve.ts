/**
 * The static curve: the level that comes out for one that goes in, dB, without make-up (D. Giannoulis, M. Massberg, J. Reiss, Digital Dynamic
 * Range Compressor Design, 2012).
 * @example compressedLevel(-10, -20, 4, 6) // -17.5
 */
export function compressedLevel(level: number, threshold: number, ratio: number, knee: number): number {
  const over = level - threshold;
  if (2 * over <= -knee) return level;
  if (2 * over >= knee) return threshold + over / ratio;
  const into = over + knee / 2;
  return level + ((1 / ratio - 1) * into * into) / (2 * knee);
}
