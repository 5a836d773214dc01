import {
  looseSides,
  prepareState,
  ribbonHolder,
  tickNames,
  type SpliceSide,
  type SpliceState,
  type Tick,
  type TrayState,
} from '@cordel/core';
import { useMemo } from 'react';
import { factStart } from '../../data/factStart';
import { useRecordFact } from '../../data/facts';
import { cablesOf, type ClosureAtHand } from '../../data/ledger';

/** What to do with the answer. */
export type OnAnswer = (answer: NonNullable<Tick['answer']>, note: string) => void;

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
  const ticks = useMemo(() => (ribbon ? prepareState(facts).ticks : null), [ribbon, facts]);
  if (!ticks) return nothing;
  const answered =
    (about: string): OnAnswer =>
    (answer, note) => {
      const before = ticks.get(about);
      const start = factStart(closure.id, before ? [before] : []);
      record({ ...start, kind: 'tick', about, state: 'done', answer, note });
    };
  const isOpen = (about: string) => ticks.get(about)?.state !== 'done';

  if (here.verdict.tries === 0)
    for (const side of looseSides(here.splice, cablesOf(definition))) {
      const about = tickNames.ribbonized(here.splice[side][0]!);
      if (isOpen(about)) return { ...nothing, ribbonize: { side, onDone: answered(about) } };
    }

  const holder = ribbonHolder(here.splice.slot);
  const about = tickNames.polarity(tray.tray, holder);
  const begun = tray.splices.some(
    ({ splice, verdict }) => ribbonHolder(splice.slot) === holder && verdict.tries > 0,
  );
  return begun || !isOpen(about) ? nothing : { ...nothing, polarity: answered(about) };
}
