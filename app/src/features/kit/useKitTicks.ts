import { type KitLine, isDone, prepareState, tickNames } from '@cordel/core';

import { useMemo } from 'react';
import { factStart } from '../../data/factStart';
import { useFactsOf, useRecordFact } from '../../data/facts';

/**
 * What of some closures' kits is packed. A line of the night is the lines of all closures that ask for it, so it is ticked when they all are, and a
 * tick ticks them all.
 */
export function useKitTicks(
  projectId: string,
  kits: readonly { readonly closureId: string; readonly lines: readonly KitLine[] }[],
) {
  const { facts } = useFactsOf(
    projectId,
    kits.map((kit) => kit.closureId),
  );
  const record = useRecordFact(projectId);
  return useMemo(() => {
    const states = kits.map((_, index) => prepareState(facts?.[index] ?? []));
    const asking = (item: string) =>
      kits.flatMap((kit, index) =>
        kit.lines.some((line) => line.item === item) ? [{ ...kit, state: states[index]! }] : [],
      );
    return {
      isTicked: (item: string) => asking(item).every(({ state }) => isDone(state, tickNames.item(item))),
      set: (items: readonly string[], ticked: boolean) => {
        for (const item of items)
          for (const { closureId, state } of asking(item)) {
            const about = tickNames.item(item);
            if (isDone(state, about) === ticked) continue;
            const before = state.ticks.get(about);
            record({
              ...factStart(closureId, before ? [before] : []),
              kind: 'tick',
              about,
              state: ticked ? 'done' : 'open',
              answer: null,
              note: '',
            });
          }
      },
    };
  }, [kits, facts, record]);
}
