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
 * Running allowance of a tray or closure: `(limit · planned − settled loss) / remaining`. Splices to be redone will read anew, so
 * their present loss does not count as settled.
 * @param settledLoss sum over the settled fibers, dB
 */
export function runningAllowance(
  limit: number,
  planned: number,
  settledLoss: number,
  remaining: number,
): Allowance {
  return {
    limit,
    remaining,
    mayAverage: remaining > 0 ? (limit * planned - settledLoss) / remaining : null,
  };
}
