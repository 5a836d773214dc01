import type { SpliceState } from '@cordel/core';
import { cablesOf, type ClosureAtHand } from '../../../data/ledger';
import { useFetched } from '../../../shell/useFetched';

/** Redos that the slack still allows at a splice, by the cut sheets of its two cables; null while unknown. */
export function useRedosLeft(
  { definition, closure, ledger }: ClosureAtHand,
  here: SpliceState,
): number | null {
  const fetched = useFetched(here.splice.id);
  // Only a splice that has to be done again asks how often it still can.
  if (!fetched || here.verdict.tries === 0) return null;
  return fetched.redosLeft(closure, ledger.plan, cablesOf(definition), here.splice, here.verdict.tries);
}
