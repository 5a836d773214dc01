/**
 * Whether values rise or fall in time: the test of H. B. Mann, "Nonparametric tests against trend", Econometrica 13, 1945, with the variance for ties of M. G. Kendall, "Rank
 * Correlation Methods", 1975.
 */
export interface Trend {
  /** Pairs that rise less those that fall. */
  readonly s: number;
  readonly variance: number;
  /** Normal deviate, corrected for continuity; above 0 where they rise. */
  readonly z: number;
}

/** @param values in order of time */
export function mannKendall(values: ArrayLike<number>): Trend {
  const n = values.length;
  let s = 0;
  for (let later = 1; later < n; later += 1) {
    const value = values[later]!;
    for (let earlier = 0; earlier < later; earlier += 1) {
      const difference = value - values[earlier]!;
      if (difference > 0) s += 1;
      else if (difference < 0) s -= 1;
    }
  }
  const counts = new Map<number, number>();
  for (let at = 0; at < n; at += 1) counts.set(values[at]!, (counts.get(values[at]!) ?? 0) + 1);
  let ties = 0;
  for (const t of counts.values()) ties += t * (t - 1) * (2 * t + 5);
  const variance = (n * (n - 1) * (2 * n + 5) - ties) / 18;
  return {
    s,
    variance,
    z: s === 0 || variance <= 0 ? 0 : (s - Math.sign(s)) / Math.sqrt(variance),
  };
}
