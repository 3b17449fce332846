/** What is held that is as good as nothing. */
const QUIET = 1e-12;

/** Whether all that a filter holds, from a place in its numbers on, is as good as nothing. */
export function isEmpty(numbers: Float64Array, from: number): boolean {
  for (let i = from; i < numbers.length; i++) if (Math.abs(numbers[i]!) > QUIET) return false;
  return true;
}
