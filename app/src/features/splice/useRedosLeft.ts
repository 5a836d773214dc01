import type { SpliceState } from '@cordel/core';
import type { redosLeft as countRedos } from '@cordel/core/prepare';
import { useEffect, useState } from 'react';
import { cablesOf, type ClosureAtHand } from '../../data/ledger';

type RedosLeft = typeof countRedos;
let loaded: RedosLeft | null = null;

/** Redos that the slack still allows at a splice, by the cut sheets of its two cables; null while unknown. The arithmetic is fetched once the bench stands. */
export function useRedosLeft(
  { definition, closure, ledger }: ClosureAtHand,
  here: SpliceState,
): number | null {
  const [redosLeft, setRedosLeft] = useState<RedosLeft | null>(() => loaded);
  useEffect(() => {
    if (redosLeft) return;
    let gone = false;
    // Quiet when the network is away: the bench works without, and the next splice tries again.
    void import('../fetchedLater').then(
      (pages) => {
        loaded = pages.redosLeft;
        if (!gone) setRedosLeft(() => pages.redosLeft);
      },
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [redosLeft, here.splice.id]);
  // Only a splice that has to be done again asks how often it still can.
  if (!redosLeft || here.verdict.tries === 0) return null;
  return redosLeft(closure, ledger.plan, cablesOf(definition), here.splice, here.verdict.tries);
}
