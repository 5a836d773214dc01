import {
  compareFacts,
  type Attempt,
  type Correction,
  type MeasuredLoss,
  type OwnerAnswer,
  type SpliceFact,
} from '../../facts';
import { measuredValue } from './measured';
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
  readonly light: Attempt['body']['light'];
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
  /** What was measured of that attempt last, one per fiber; empty where nothing was. */
  readonly measured: readonly (MeasuredLoss | null)[];
  /** A loss of it was measured after that answer, which was given without knowing. */
  readonly measuredSince: boolean;
}

/**
 * The facts of one splice in the order in which they count: by time and id, but a correction or an answer never before the attempt that it is about,
 * whatever the clocks said. Each id once.
 */
export function spliceOrder(facts: readonly SpliceFact[]): readonly SpliceFact[] {
  if (facts.length < 2) return facts;
  const attempts = new Map<string, Attempt>();
  for (const fact of facts) if (fact.kind === 'attempt') attempts.set(fact.id, fact);
  const once = [...new Map(facts.map((fact) => [fact.id, fact])).values()];
  // Where it counts from: its own time, or right after the attempt that it is about.
  const from = (fact: SpliceFact) => {
    if (fact.kind === 'attempt') return fact;
    const about = attempts.get(fact.body.attemptId);
    return about && compareFacts(fact, about) < 0 ? about : fact;
  };
  return once.sort(
    (a, b) =>
      compareFacts(from(a), from(b)) ||
      Number(a.kind !== 'attempt') - Number(b.kind !== 'attempt') ||
      compareFacts(a, b),
  );
}

/** Reads the facts of one splice, given in the order of `spliceOrder`. */
export function spliceHistory(facts: readonly SpliceFact[]): SpliceHistory {
  const attempts: StandingAttempt[] = [];
  const withdrawn: StandingAttempt[] = [];
  const correctionsOf = new Map<string, Correction[]>();
  for (const fact of facts) {
    if (fact.kind !== 'correction') continue;
    const others = correctionsOf.get(fact.body.attemptId);
    if (others) others.push(fact);
    else correctionsOf.set(fact.body.attemptId, [fact]);
  }
  for (const fact of facts) {
    if (fact.kind !== 'attempt') continue;
    const corrections = correctionsOf.get(fact.id) ?? [];
    const result = corrections.length > 0 ? corrections.at(-1)!.body.result : fact.body;
    const {
      readings,
      proofTestFailed,
      sleeveForgotten = false,
      sleeveConfirmed = false,
      light,
      note,
    } = result ?? fact.body;
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
  let measured: (MeasuredLoss | null)[] | null = null;
  let measuredSince = false;
  for (const fact of facts) {
    if (!last || fact.kind === 'attempt' || fact.body.attemptId !== last.fact.id) continue;
    if (fact.kind === 'measured-loss') {
      const { position, fromLeft, fromRight } = fact.body;
      if (position > last.readings.length) continue;
      measured ??= last.readings.map(() => null);
      measured[position - 1] = fromLeft === null && fromRight === null ? null : fact;
      // From one end alone nothing follows.
      measuredSince ||= measuredValue(fact.body) !== null;
      continue;
    }
    answer = fact.kind === 'owner-answer' ? fact : null;
    measuredSince = false;
  }
  return {
    attempts,
    withdrawn,
    last,
    answer,
    measured: measured?.some(Boolean) ? measured : nothingMeasured,
    measuredSince,
  };
}

const nothingMeasured: readonly null[] = [];
