import { lowerBound, type Bound } from './bound';
import { exactPlan, isQuick, isSmall } from './exact';
import { firstPlan, largePlan } from './large';
import type { Plan, Problem } from './problem';

/** A plan, and how good it is known to be. */
export interface Solved {
  readonly plan: Plan;
  /** null: not reckoned yet. */
  readonly bound: Bound | null;
  /** No plan is better, in any goal. */
  readonly proven: boolean;
  /** Of the way to the end, 0 … 1. */
  readonly share: number;
}

/** How far the nights of a plan are above what is proven to be needed: 0.05 for 5 %. null where it leaves more than it must, or no bound is known yet. */
export function gapOf({ plan, bound, proven }: Solved): number | null {
  if (proven) return 0;
  if (!bound || plan.score[0] > bound.left) return null;
  return bound.nights === 0 ? 0 : (plan.score[1] - bound.nights) / bound.nights;
}

/** Plans the nights: the best plan there is for a few closures, a good one with its bound for many. Yields the first plan at once, and each better one. The same problem gives the same plan. */
export function* solveNights(problem: Problem): Generator<Solved, Solved> {
  const first = firstPlan(problem);
  if (problem.jobs.length === 0 || problem.crews.length === 0 || problem.nights.length === 0)
    return {
      plan: first,
      bound: { left: problem.jobs.length, nights: 0, worth: null },
      proven: true,
      share: 1,
    };
  yield { plan: first, bound: null, proven: false, share: 0 };
  const bound = lowerBound(problem, first.left.length);
  if (isSmall(problem)) {
    const work = exactPlan(problem);
    let step = work.next();
    while (!step.done) {
      yield { plan: first, bound, proven: false, share: step.value };
      step = work.next();
    }
    return { plan: step.value, bound, proven: true, share: 1 };
  }
  const work = largePlan(problem, first, bound);
  let step = work.next();
  while (!step.done) {
    yield { ...step.value, bound, proven: false };
    step = work.next();
  }
  return { plan: step.value, bound, proven: false, share: 1 };
}

/** The same without a stop in between. */
export function solvedNights(problem: Problem): Solved {
  const work = solveNights(problem);
  let step = work.next();
  while (!step.done) step = work.next();
  return step.value;
}

/** A plan within a fifth of a second: the best one for a few closures, the first one for many. */
export function quickPlan(problem: Problem): Plan {
  if (problem.crews.length === 0 || problem.nights.length === 0 || !isQuick(problem))
    return firstPlan(problem);
  const work = exactPlan(problem);
  let step = work.next();
  while (!step.done) step = work.next();
  return step.value;
}
