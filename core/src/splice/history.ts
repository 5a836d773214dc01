import type { Attempt, Correction, SpliceFact, OwnerAnswer } from './fact';
import type { Reading } from './reading';

/** An attempt as it stands after its corrections. */
export interface StandingAttempt {
  readonly fact: Attempt;
  /** In the order they were made; the last one counts. */
  readonly corrections: readonly Correction[];
  readonly readings: readonly Reading[];
  readonly proofTestFailed: boolean;
  readonly sleeveForgotten: boolean;
  readonly sleeveConfirmed: boolean;
  readonly light: Attempt['light'];
  readonly note: string;
}

export interface SpliceHistory {
  /** Attempts that happened, oldest first. */
  readonly attempts: readonly StandingAttempt[];
  /** Attempts that were taken back. */
  readonly withdrawn: readonly StandingAttempt[];
  /** The attempt that is in the tray: the *last* one, not the best. */
  readonly last: StandingAttempt | null;
  /** The latest answer about that attempt as it stands now, or null. A new try or a correction voids earlier answers. */
  readonly answer: OwnerAnswer | null;
}

/** Reads the facts of one splice, given in the order of `compareFacts`. */
export function spliceHistory(facts: readonly SpliceFact[]): SpliceHistory {
  const attempts: StandingAttempt[] = [];
  const withdrawn: StandingAttempt[] = [];
  for (const fact of facts) {
    if (fact.kind !== 'attempt') continue;
    const corrections = facts.filter(
      (other): other is Correction => other.kind === 'correction' && other.attemptId === fact.id,
    );
    const result = corrections.length > 0 ? corrections.at(-1)!.result : fact;
    const {
      readings,
      proofTestFailed,
      sleeveForgotten = false,
      sleeveConfirmed = false,
      light,
      note,
    } = result ?? fact;
    const standing = {
      fact,
      corrections,
      readings,
      proofTestFailed,
      sleeveForgotten,
      sleeveConfirmed,
      light,
      note,
    };
    (result ? attempts : withdrawn).push(standing);
  }

  const last = attempts.at(-1) ?? null;
  let answer: OwnerAnswer | null = null;
  for (const fact of facts) {
    if (!last || fact.kind === 'attempt' || fact.attemptId !== last.fact.id) continue;
    answer = fact.kind === 'owner-answer' ? fact : null;
  }
  return { attempts, withdrawn, last, answer };
}
