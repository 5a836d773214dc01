import { jointOf, needsSplicing, type SpliceState } from '@cordel/core';
import { adviseBeforeArc, arcLimits, nothingSeen, type ArcAdvice } from '@cordel/core/gear';
import { useCallback, useMemo, useState } from 'react';
import { cablesOf, type ClosureAtHand } from '../../../data/ledger';
import { useOrderOfWork } from '../../../data/orderOfWork';
import { useOthers } from '../../../data/presence';
import { useGearAtBench } from '../gear/useGearAtBench';
import { questionAt } from './questions/questionAt';
import { useTicksAsked } from './questions/useTicksAsked';
import { useBench } from './useBench';

/**
 * What is known at the splice one stands on, and what can be done there: with the hands at the pad, or while a machine is listened to.
 * @param onGo moves to another splice
 * @param onRecorded a whole try is on record
 */
export function useAtSplice(
  projectId: string,
  atHand: ClosureAtHand,
  here: SpliceState,
  { onGo, onRecorded }: { onGo: (state: SpliceState) => void; onRecorded?: () => void },
) {
  const { closure, definition, ledger } = atHand;
  const { splice } = here;
  const cables = cablesOf(definition);
  const [newTryFor, setNewTryFor] = useState<string | null>(null);

  const go = useCallback(
    (state: SpliceState) => {
      setNewTryFor(null);
      onGo(state);
    },
    [onGo],
  );
  const standing = useOthers(projectId, closure.id, splice.id);
  const others = useMemo(
    () => new Map(standing.map(({ spliceId, by }) => [spliceId, by ?? 'Somebody'])),
    [standing],
  );
  const taken = useMemo(() => new Set(others.keys()), [others]);
  const order = useOrderOfWork(closure.id);
  const bench = useBench(projectId, atHand, here, {
    go,
    order,
    taken,
    onRecorded: () => {
      setNewTryFor(null);
      onRecorded?.();
    },
    onTakenBack: () => setNewTryFor(newTryFor),
  });
  const entering = needsSplicing(here) || newTryFor === splice.id;
  const gear = useGearAtBench(atHand, here);
  const asked = useTicksAsked(projectId, atHand, here);
  const question = entering ? questionAt(gear, asked) : null;
  const joint = useMemo(() => jointOf(closure, splice, cables), [closure, splice, cables]);
  const { before } = bench.details;
  const machine = gear.atBench?.machine?.item ?? null;
  const advice = useMemo((): ArcAdvice => {
    const seen = splice.left.map((_, index) => before[index] ?? nothingSeen);
    return adviseBeforeArc(seen, arcLimits(ledger.limits, machine?.limits ?? null));
  }, [before, splice, ledger.limits, machine]);

  return {
    go,
    bench,
    cables,
    joint,
    gear,
    machine,
    asked,
    question,
    advice,
    entering,
    others,
    taken,
    /** A splice that is settled takes a reading once more. */
    askNewTry: setNewTryFor,
  };
}

export type AtSplice = ReturnType<typeof useAtSplice>;
