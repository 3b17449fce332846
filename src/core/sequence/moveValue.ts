/**
 * Value of a Move at a tick: along the straight line between two points, or the last point's when it is stepped. Before the
 * first point it is the first one's, after the last point the last one's.
 * @param points as `flatPoints` gives them, at least one
 */
export function moveValue(points: ArrayLike<number>, tick: number, stepped = false): number {
  const count = points.length / 2;
  let low = 0;
  let high = count;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (points[middle * 2]! <= tick) low = middle + 1;
    else high = middle;
  }
  if (low === 0) return points[1]!;
  const before = (low - 1) * 2;
  if (low === count || stepped) return points[before + 1]!;
  const [fromTick, from, toTick, to] = [points[before]!, points[before + 1]!, points[before + 2]!, points[before + 3]!];
  return from + ((to - from) * (tick - fromTick)) / (toTick - fromTick);
}
