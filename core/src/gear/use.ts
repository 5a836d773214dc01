import { compareFacts, isGearFact, type Attempt, type Fact, type GearFact } from '../facts';
import type { Limits } from '../limits/limits';
import { attemptReasons } from '../splice/record/verdict';

/** What one attempt means for the gear that made it. */
export interface GearUse {
  readonly id: string;
  readonly madeAt: string;
  readonly machine: string | null;
  readonly cleaver: string | null;
  readonly fibers: number;
  /** μm */
  readonly cladding: 125 | 400;
  /** Broke, or over a limit of its project, as it was first written down. */
  readonly bad: boolean;
}

/** An attempt was written down wrongly: how it was in truth. */
export interface GearCorrection {
  readonly id: string;
  readonly madeAt: string;
  readonly attemptId: string;
  readonly bad: boolean;
}

/** What happened to the gear and was done with it, in the order in which it happened. */
export interface GearBook {
  readonly uses: readonly GearUse[];
  readonly facts: readonly GearFact[];
  /** Attempts that were taken back: they never happened. */
  readonly withdrawn: readonly string[];
  readonly corrected: readonly GearCorrection[];
}

export const emptyBook: GearBook = { uses: [], facts: [], withdrawn: [], corrected: [] };

/** What one attempt means for its gear; null when none stands on it. */
export function useOf(attempt: Attempt, limits: Limits): GearUse | null {
  const { gear, readings } = attempt.body;
  if (!gear?.machine && !gear?.cleaver) return null;
  return {
    id: attempt.id,
    madeAt: attempt.madeAt,
    machine: gear.machine?.id ?? null,
    cleaver: gear.cleaver?.id ?? null,
    fibers: readings.length,
    cladding: gear.cladding ?? 125,
    bad: isBad(attempt.body, limits),
  };
}

/** A forgotten sleeve says nothing about the arc. */
function isBad(result: Omit<Attempt['body'], 'source' | 'simulated' | 'gear'>, limits: Limits): boolean {
  return attemptReasons(result, result.readings.length > 1 ? 'ribbon' : 'single', limits).some(
    ({ code }) => code !== 'sleeve',
  );
}

/** The book of these facts, of any closures under the same limits. */
export function gearBook(facts: Iterable<Fact>, limits: Limits): GearBook {
  const uses: GearUse[] = [];
  const own: GearFact[] = [];
  const withdrawn: string[] = [];
  const corrected: GearCorrection[] = [];
  for (const fact of facts) {
    if (fact.kind === 'attempt') {
      const use = useOf(fact, limits);
      if (use) uses.push(use);
    } else if (fact.kind === 'correction') {
      const { id, madeAt } = fact;
      const { attemptId, result } = fact.body;
      if (result === null) withdrawn.push(attemptId);
      else corrected.push({ id, madeAt, attemptId, bad: isBad(result, limits) });
    } else if (isGearFact(fact)) own.push(fact);
  }
  return joinBooks({ uses, facts: own, withdrawn, corrected });
}

/** Several books as one: everything once, in order. */
export function joinBooks(...books: readonly GearBook[]): GearBook {
  const once = <T extends { readonly id: string; readonly madeAt: string }>(
    lists: readonly (readonly T[])[],
  ) => [...new Map(lists.flat().map((one) => [one.id, one])).values()].sort(compareFacts);
  return {
    uses: once(books.map((book) => book.uses)),
    facts: once(books.map((book) => book.facts)),
    withdrawn: [...new Set(books.flatMap((book) => book.withdrawn))],
    corrected: once(books.map((book) => book.corrected)),
  };
}
