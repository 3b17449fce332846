/**
 * Pulses spread over steps as evenly as they can be: Bjorklund's algorithm, as G. T. Toussaint tells it in "The Euclidean
 * Algorithm Generates Traditional Musical Rhythms" (2005). Groups of a pulse and groups of a rest are laid together, over and
 * over, until at most one of the shorter kind is left.
 * @param pulses 0..steps
 * @param rotation steps by which the rhythm begins later; any whole number
 */
export function euclid(pulses: number, steps: number, rotation = 0): boolean[] {
  let long = Array.from({ length: Math.min(pulses, steps) }, () => [true]);
  let short = Array.from({ length: Math.max(0, steps - pulses) }, () => [false]);
  while (long.length > 0 && short.length > 1) {
    const pairs = Math.min(long.length, short.length);
    const joined = long.slice(0, pairs).map((group, i) => [...group, ...short[i]!]);
    const left = long.length > pairs ? long.slice(pairs) : short.slice(pairs);
    [long, short] = [joined, left];
  }
  const rhythm = [...long, ...short].flat();
  return rhythm.map((_, i) => rhythm[(((i - rotation) % steps) + steps) % steps]!);
}
