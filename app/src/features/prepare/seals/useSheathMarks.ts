import { type ProjectDefinition, measured, prepareState, tickTargets } from '@cordel/core';

import { useMemo } from 'react';
import { useFactsOf } from '../../../sync/react';

/** The numbers that are known of every cable's sheath: by cable, by site, m. What was read at a closure goes before the cable's own data. */
export function useSheathMarks(
  definition: ProjectDefinition,
): ReadonlyMap<string, ReadonlyMap<string, number>> {
  const { facts } = useFactsOf(
    definition.project.id,
    definition.closures.map((closure) => closure.id),
  );
  return useMemo(() => {
    const states = definition.closures.map((_, index) => prepareState(facts?.[index] ?? []));
    return new Map(
      definition.cables.map((cable) => {
        const marks = new Map<string, number>();
        if (cable.sheathMarks) {
          marks.set(cable.siteIds[0]!, cable.sheathMarks.first);
          marks.set(cable.siteIds.at(-1)!, cable.sheathMarks.last);
        }
        definition.closures.forEach((closure, index) => {
          const value = measured(states[index]!, tickTargets.sheathNumber(cable.id));
          if (value !== null) marks.set(closure.siteId, value);
        });
        return [cable.id, marks];
      }),
    );
  }, [definition, facts]);
}
