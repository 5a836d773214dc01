/**
 * Quantile `p` (0 … 1) of values sorted upward, linear between the two nearest: type 7 of Hyndman and Fan, "Sample Quantiles in
 * Statistical Packages", The American Statistician 50(4), 1996. It is what a spreadsheet's PERCENTILE gives, so a loss sheet can be
 * checked in one. null for no values.
 */
export function quantileSorted(sorted: ArrayLike<number>, p: number): number | null {
  if (sorted.length === 0) return null;
  const rank = p * (sorted.length - 1);
  const below = Math.floor(rank);
  const low = sorted[below]!;
  const high = sorted[Math.min(below + 1, sorted.length - 1)]!;
  return low + (rank - below) * (high - low);
}
