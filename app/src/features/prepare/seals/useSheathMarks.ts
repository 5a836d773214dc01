import type { ProjectDefinition } from '@cordel/core';
import { sheathMarks } from '@cordel/core/prepare';
import { useMemo } from 'react';
import { useFactsOf } from '../../../sync/react';

/** The numbers that are known of every cable's sheath; see `sheathMarks`. */
export function useSheathMarks(definition: ProjectDefinition): ReturnType<typeof sheathMarks> {
  const ids = definition.closures.map(({ id }) => id);
  const { facts } = useFactsOf(definition.project.id, ids);
  return useMemo(
    () =>
      sheathMarks(
        definition,
        (id) => facts?.[definition.closures.findIndex((closure) => closure.id === id)] ?? [],
      ),
    [definition, facts],
  );
}
