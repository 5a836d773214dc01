/** What the splices still to be made may read if a mean limit is to hold. */
export interface Allowance {
  /** The mean limit, dB. */
  readonly limit: number;
  /** Fibers still to be spliced: open, and to be redone. */
  readonly remaining: number;
  /** dB each of them may read on average; null when none remain. Negative when what is settled has already spent it all. */
  readonly mayAverage: number | null;
}

/**
 * Running allowance of a tray or closure: `(limit · (settled + remaining) − settled loss) / remaining`. Splices to be redone will read anew, so
 * their present loss does not count as settled; a joint of which no loss is read, a mechanical connector, is in no mean and counts nowhere.
 * @param settled fibers that are settled and have a loss
 * @param settledLoss sum over them, dB
 */
export function runningAllowance(
  limit: number,
  settled: number,
  settledLoss: number,
  remaining: number,
): Allowance {
  return {
    limit,
    remaining,
    mayAverage: remaining > 0 ? (limit * (settled + remaining) - settledLoss) / remaining : null,
  };
}
