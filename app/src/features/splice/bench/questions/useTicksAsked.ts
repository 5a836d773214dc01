import {
  isDone,
  looseSides,
  prepareState,
  ribbonHolder,
  tickOf,
  tickTargets,
  type SpliceSide,
  type SpliceState,
  type TickAnswer,
  type TickTarget,
  type TrayState,
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
  /** How the ribbons of this holder lie is to be looked at. */
  readonly polarity: OnAnswer | null;
}

const nothing: Asked = { ribbonize: null, polarity: null };

/**
 * What is looked at before the first try of a ribbon, once: whether loose fibers lie in order before the adhesive, and how the ribbons of a holder
 * lie before the first of them is fused. Of a single splice nothing is asked.
 */
export function useTicksAsked(
  projectId: string,
  { definition, closure, facts }: ClosureAtHand,
  tray: TrayState,
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

  const holder = ribbonHolder(here.splice.slot);
  // What is known of a ribbon is known by its ends: laid out anew, it is looked at in its new holder or was looked at already.
  const lookedAt = tray.splices.some(
    ({ splice, verdict }) =>
      ribbonHolder(splice.slot) === holder &&
      (verdict.tries > 0 || isDone(state, tickTargets.polarity(splice))),
  );
  return lookedAt ? nothing : { ...nothing, polarity: answered(tickTargets.polarity(here.splice)) };
}
