import type { Fact } from '../../facts';
import type { ProjectDefinition } from '../../handover/projectFile';
import { measured, prepareState, tickTargets } from '../steps/tickTargets';

/**
 * The numbers that are known of every cable's sheath: by cable, by site, m. What was read at a closure goes before the cable's own data.
 * @param factsOf those of a closure
 */
export function sheathMarks(
  { cables, closures }: Pick<ProjectDefinition, 'cables' | 'closures'>,
  factsOf: (closureId: string) => readonly Fact[],
): ReadonlyMap<string, ReadonlyMap<string, number>> {
  const states = closures.map(({ id }) => prepareState(factsOf(id)));
  return new Map(
    cables.map((cable) => {
      const marks = new Map<string, number>();
      if (cable.sheathMarks) {
        marks.set(cable.siteIds[0]!, cable.sheathMarks.first);
        marks.set(cable.siteIds.at(-1)!, cable.sheathMarks.last);
      }
      closures.forEach(({ siteId }, index) => {
        const value = measured(states[index]!, tickTargets.sheathNumber(cable.id));
        if (value !== null) marks.set(siteId, value);
      });
      return [cable.id, marks];
    }),
  );
}
