import type { SpliceState } from '@cordel/core';
import { redosLeft } from '@cordel/core/prepare';
import { usePreferences } from '../../../data/preferences';
import { cablesOf, type ClosureAtHand } from '../../../data/ledger';

/** Redos that the slack still allows at a splice, by the cut sheets of its two cables; null while unknown. */
export function useRedosLeft(
  { definition, closure, ledger }: ClosureAtHand,
  here: SpliceState,
): number | null {
  const { secondRing } = usePreferences();
  // Only a splice that has to be done again asks how often it still can.
  if (here.verdict.tries === 0) return null;
  return redosLeft(closure, ledger.plan, cablesOf(definition), here.splice, here.verdict.tries, secondRing);
}
