import { midranks } from './ranks';

/** Whether differences lie above zero: the signed-rank test of F. Wilcoxon (1945). Differences of zero say nothing and are left out. */
export interface SignedRank {
  /** Sum of the ranks of the positive ones. */
  readonly positive: number;
  /** Differences that are not zero. */
  readonly count: number;
  /** Normal deviate with its variance corrected for ties; 0 where nothing is left. */
  readonly z: number;
}

export function signedRank(differences: ArrayLike<number>): SignedRank {
  const kept = Array.from(differences).filter((one) => one !== 0);
  const { ranks, ties } = midranks(kept.map((one) => Math.abs(one)));
  let positive = 0;
  kept.forEach((one, at) => {
    if (one > 0) positive += ranks[at]!;
  });
  const n = kept.length;
  const variance = (n * (n + 1) * (2 * n + 1)) / 24 - ties / 48;
  return {
    positive,
    count: n,
    z: variance > 0 ? (positive - (n * (n + 1)) / 4) / Math.sqrt(variance) : 0,
  };
}

/** The chance that the sum of the positive ranks of `n` differences without ties is at most `sum`, if they lie around zero: by counting. */
export function signedRankChance(n: number, sum: number): number {
  const largest = (n * (n + 1)) / 2;
  const ways = new Float64Array(largest + 1);
  ways[0] = 1;
  for (let rank = 1; rank <= n; rank += 1)
    for (let at = largest; at >= rank; at -= 1) ways[at] = ways[at]! + ways[at - rank]!;
  let below = 0;
  for (let at = 0; at <= Math.min(largest, Math.floor(sum)); at += 1) below += ways[at]!;
  return below / 2 ** n;
}
