import { moments } from '../../statistics/moments';
import { quantileSorted } from '../../statistics/quantile';
import type { LossRow } from './rows';

export interface Bin {
  /** From `from` up to, not including, `to`, dB; the last one has no end. */
  readonly from: number;
  readonly to: number;
  readonly count: number;
  /** Fibers that were expected there; null where nothing is expected of these. */
  readonly expected: number | null;
}

export interface Distribution {
  readonly bins: readonly Bin[];
  readonly count: number;
  readonly broken: number;
  readonly mean: number | null;
  readonly median: number | null;
  readonly p95: number | null;
  readonly over: number;
}

/** Losses are read in steps of 0.01 dB: a bin a step, in whole steps so that decimal fractions do not decide. */
const perDb = 100;

/**
 * How losses are spread.
 * @param atMost the chance that a loss is at most so much (dB) where all is well; null: nothing is expected
 * @param steps bins; what is beyond stands in the last one
 */
export function distributionOf(
  rows: readonly LossRow[],
  atMost: ((loss: number) => number) | null,
  steps = 20,
): Distribution {
  const counts = new Array<number>(steps).fill(0);
  const losses: number[] = [];
  let over = 0;
  for (const row of rows) {
    if (row.over) over += 1;
    if (row.loss === null) continue;
    losses.push(row.loss);
    const bin = Math.min(steps - 1, Math.floor(row.loss * perDb + 1e-6));
    counts[bin] = counts[bin]! + 1;
  }
  const sorted = Float64Array.from(losses).sort();
  const count = losses.length;
  // A reading of 0.03 dB stands for what lies from 0.025 to 0.035.
  const upTo = (bin: number) => (bin < 0 ? 0 : bin === steps - 1 ? 1 : atMost!((bin + 0.5) / perDb));
  const chances = atMost ? counts.map((_, bin) => upTo(bin)) : null;
  return {
    bins: counts.map((own, bin) => ({
      from: bin / perDb,
      to: bin === steps - 1 ? Infinity : (bin + 1) / perDb,
      count: own,
      expected: chances ? count * (chances[bin]! - (chances[bin - 1] ?? 0)) : null,
    })),
    count,
    broken: rows.length - count,
    mean: moments(losses).mean,
    median: quantileSorted(sorted, 0.5),
    p95: quantileSorted(sorted, 0.95),
    over,
  };
}
