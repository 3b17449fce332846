/**
 * A quantile by linear interpolation between order statistics (type 7 of Hyndman & Fan, "Sample Quantiles in
 * Statistical Packages", 1996: what spreadsheets and R give).
 * @param share 0..1
 * @returns NaN for no values
 */
export function quantile(values: readonly number[], share: number): number {
  if (values.length === 0) return NaN;
  const sorted = [...values].sort((a, b) => a - b);
  const at = (sorted.length - 1) * share;
  const low = Math.floor(at);
  const high = Math.min(low + 1, sorted.length - 1);
  return sorted[low]! + (sorted[high]! - sorted[low]!) * (at - low);
}

/** The middle value; NaN for none. */
export function median(values: readonly number[]): number {
  return quantile(values, 0.5);
}
