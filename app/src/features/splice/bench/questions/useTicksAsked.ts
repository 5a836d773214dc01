import {
  isDone,
  looseSides,
  prepareState,
  tickOf,
  tickTargets,
  type SpliceSide,
  type SpliceState,
  type TickAnswer,
  type TickTarget,
} from '@cordel/core';
import { useMemo } from 'react';
import { useRecordFact } from '../../../../sync/react';
import { cablesOf, type ClosureAtHand } from '../../../../data/ledger';
import { newTick } from '../../../../data/tickFacts';

/** What to do with the answer. */
export type OnAnswer = (answer: TickAnswer, note: string) => void;

export interface Asked {
  /** Loose fibers have to become a ribbon on this side first. */
  readonly ribbonize: { readonly side: SpliceSide; readonly onDone: OnAnswer } | null;
  /** How the ribbon lies is to be looked at. */
  readonly polarity: OnAnswer | null;
}

const nothing: Asked = { ribbonize: null, polarity: null };

/**
 * What is looked at before the first try of a ribbon: whether loose fibers lie in order before the adhesive, and how it lies before it is fused. Of a single
 * splice nothing is asked.
 */
export function useTicksAsked(
  projectId: string,
  { definition, closure, facts }: ClosureAtHand,
  here: SpliceState,
): Asked {
  const record = useRecordFact(projectId);
  const ribbon = here.splice.kind === 'ribbon';
  const state = useMemo(() => (ribbon ? prepareState(facts) : null), [ribbon, facts]);
  if (!state) return nothing;
  const answered =
    (target: TickTarget): OnAnswer =>
    (answer, note) =>
      void record(newTick(closure.id, target, 'done', tickOf(state, target), { answer, note }));

  if (here.verdict.tries === 0)
    for (const side of looseSides(here.splice, cablesOf(definition))) {
      const about = tickTargets.ribbonized(here.splice[side][0]!);
      if (!isDone(state, about)) return { ...nothing, ribbonize: { side, onDone: answered(about) } };
    }

  // Each ribbon is loaded by itself, so any of them may lie flipped. What is known of it is known by its ends, wherever it is laid out.
  const lookedAt = here.verdict.tries > 0 || isDone(state, tickTargets.polarity(here.splice));
  return lookedAt ? nothing : { ...nothing, polarity: answered(tickTargets.polarity(here.splice)) };
}
