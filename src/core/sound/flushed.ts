const TINY = 1e-15;

/**
 * The audio thread does not flush denormals, and arithmetic on them is many times slower. By its size, since a processor cannot foresee the sign of a
 * sound, and a branch that it guesses wrong costs more than the rest of a delay line.
 */
export function flushed(x: number): number {
  return Math.abs(x) < TINY ? 0 : x;
}
