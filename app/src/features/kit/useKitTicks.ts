import { isDone, prepareState, tickOf, tickTargets, type KitLine } from '@cordel/core';
import { useMemo } from 'react';
import { useRecordFact, type useFactsOf } from '../../sync/react';
import { newTick } from '../../data/tickFacts';

/**
 * What of some closures' kits is packed. A line of the night is the lines of all closures that ask for it, so it is ticked when they all are, and a
 * tick ticks them all.
 */
export function useKitTicks(
  projectId: string,
  kits: readonly { readonly closureId: string; readonly lines: readonly KitLine[] }[],
  /** The facts of their closures, in their order. */
  { facts, error, retry }: ReturnType<typeof useFactsOf>,
) {
  const record = useRecordFact(projectId);
  return useMemo(() => {
    const states = kits.map((_, index) => prepareState(facts?.[index] ?? []));
    const asking = (item: string) =>
      kits.flatMap((kit, index) =>
        kit.lines.some((line) => line.item === item) ? [{ ...kit, state: states[index]! }] : [],
      );
    return {
      /** Whether it is known what is ticked; before that nothing can be. */
      ready: facts !== null,
      error,
      retry,
      isTicked: (item: string) =>
        facts !== null && asking(item).every(({ state }) => isDone(state, tickTargets.item(item))),
      set: (items: readonly string[], ticked: boolean) => {
        if (facts === null) return;
        for (const item of items)
          for (const { closureId, state } of asking(item)) {
            const target = tickTargets.item(item);
            if (isDone(state, target) === ticked) continue;
            void record(newTick(closureId, target, ticked ? 'done' : 'open', tickOf(state, target)));
          }
      },
    };
  }, [kits, facts, error, retry, record]);
}
