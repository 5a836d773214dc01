import { siteOf, type Closure, type ProjectDefinition } from '@cordel/core';
import { router } from 'expo-router';
import { Picker } from '../ui/Picker';
import type { KeptNight } from './keptNights';

/** Which work a page is about: all of it, a crew’s night of the plan that was kept, or one closure. What is chosen stands in the address. */
export function PickWork({
  definition,
  closures,
  nights,
  night,
  closureId,
}: {
  definition: ProjectDefinition;
  /** Along the route. */
  closures: readonly Closure[];
  nights: readonly KeptNight[];
  night: KeptNight | null;
  closureId: string | undefined;
}) {
  return (
    <>
      {nights.length > 0 ? (
        <Picker
          label="Night and crew"
          options={[{ value: '', label: 'All' }, ...nights.map(({ key, label }) => ({ value: key, label }))]}
          value={closureId === undefined ? (night?.key ?? '') : ''}
          onChange={(key) => router.setParams({ closure: '', night: key })}
        />
      ) : null}
      {closures.length > 0 ? (
        <Picker
          label="For"
          options={[
            { value: '', label: nights.length > 0 ? 'All closures' : 'The night' },
            ...closures.map(({ id, siteId }) => ({
              value: id,
              label: siteOf(definition.sites, siteId).name,
            })),
          ]}
          value={closureId ?? ''}
          onChange={(id) => router.setParams({ closure: id })}
        />
      ) : null}
    </>
  );
}
