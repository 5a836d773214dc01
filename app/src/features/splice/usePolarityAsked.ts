import {
  prepareState,
  ribbonHolder,
  tickNames,
  type SpliceState,
  type Tick,
  type TrayState,
} from '@cordel/core';
import { useMemo } from 'react';
import { factStart } from '../../data/factStart';
import { useRecordFact } from '../../data/facts';
import type { ClosureAtHand } from '../../data/ledger';

/**
 * Before the first ribbon of a holder is fused, somebody looks how it lies: what to do with the answer, or null when nothing is to be asked (a single
 * splice, a holder that was checked or in which a ribbon was spliced already).
 */
export function usePolarityAsked(
  projectId: string,
  { closure, facts }: ClosureAtHand,
  tray: TrayState,
  here: SpliceState,
): ((answer: NonNullable<Tick['answer']>, note: string) => void) | null {
  const record = useRecordFact(projectId);
  const ribbon = here.splice.kind === 'ribbon';
  const ticks = useMemo(() => (ribbon ? prepareState(facts).ticks : null), [ribbon, facts]);
  if (!ticks) return null;
  const holder = ribbonHolder(here.splice.slot);
  const about = tickNames.polarity(tray.tray, holder);
  const before = ticks.get(about);
  const begun = tray.splices.some(
    ({ splice, verdict }) => ribbonHolder(splice.slot) === holder && verdict.tries > 0,
  );
  if (begun || before?.state === 'done') return null;
  return (answer, note) =>
    void record({
      ...factStart(closure.id, before ? [before] : []),
      kind: 'tick',
      about,
      state: 'done',
      answer,
      note,
    });
}
