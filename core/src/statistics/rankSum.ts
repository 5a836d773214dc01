import { midranks } from './ranks';

/**
 * Whether `one` reads higher than `others`: the rank-sum test of F. Wilcoxon, "Individual comparisons by ranking methods", Biometrics Bulletin 1, 1945, which is that of
 * Mann and Whitney (1947).
 */
export interface RankSum {
  /** Sum of the ranks of `one`, with middle ranks where values are equal. */
  readonly sum: number;
  /** Normal deviate with its variance corrected for ties (Lehmann 1975), above 0 where `one` is higher; 0 where all are equal. No correction for continuity. */
  readonly z: number;
  /** The chance that a value of `one` is above one of the others, equal ones half: ½ where nothing is different. */
  readonly above: number;
}

/** null where one of them is empty. */
export function rankSum(one: ArrayLike<number>, others: ArrayLike<number>): RankSum | null {
  const [m, n] = [one.length, others.length];
  if (m === 0 || n === 0) return null;
  const all = new Float64Array(m + n);
  all.set(one);
  all.set(others, m);
  const { ranks, ties } = midranks(all);
  let sum = 0;
  for (let at = 0; at < m; at += 1) sum += ranks[at]!;
  const total = m + n;
  const variance = ((m * n) / 12) * (total + 1 - ties / (total * (total - 1)));
  const above = (sum - (m * (m + 1)) / 2) / (m * n);
  return { sum, above, z: variance > 0 ? (sum - (m * (total + 1)) / 2) / Math.sqrt(variance) : 0 };
}

/**
 * The chance that the rank sum of `m` values among `m + n` without ties is at most `sum`, if nothing is different: by counting (the recursion of Mann and Whitney 1947).
 */
export function rankSumChance(m: number, n: number, sum: number): number {
  const largest = m * n;
  // counts[i][u]: ways in which i of the ranks looked at so far have a U of u.
  const counts = Array.from({ length: m + 1 }, () => new Float64Array(largest + 1));
  counts[0]![0] = 1;
  for (let rank = 1; rank <= m + n; rank += 1)
    for (let i = Math.min(m, rank); i >= 1; i -= 1) {
      const shift = rank - i;
      const [to, from] = [counts[i]!, counts[i - 1]!];
      for (let u = largest; u >= shift; u -= 1) to[u] = to[u]! + from[u - shift]!;
    }
  const own = counts[m]!;
  let [below, all] = [0, 0];
  own.forEach((ways, u) => {
    all += ways;
    if (u + (m * (m + 1)) / 2 <= sum) below += ways;
  });
  return below / all;
}
