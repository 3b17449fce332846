const TINY = 1e-15;

/** The audio thread does not flush denormals, and arithmetic on them is many times slower. */
export function flushed(x: number): number {
  return x < TINY && x > -TINY ? 0 : x;
}
