/** Count, mean and sum of squared differences from it. */
export interface Sums {
  count: number;
  mean: number;
  squares: number;
}

/** B. P. Welford, Technometrics 4, 1962. */
export function addToSums(sums: Sums, value: number): void {
  sums.count += 1;
  const before = value - sums.mean;
  sums.mean += before / sums.count;
  sums.squares += before * (value - sums.mean);
}

/** Variance of the mean. */
export function meanVariance({ count, squares }: Sums): number {
  return squares / (count - 1) / count;
}
