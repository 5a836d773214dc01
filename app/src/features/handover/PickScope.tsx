import type { ProjectDefinition } from '@cordel/core';
import { router } from 'expo-router';
import { Picker } from '../../ui/Picker';
import type { ClosureBook } from './useBooks';

/** Whether it is about the whole project, or one closure; it stands in the address. */
export function PickScope({
  definition,
  books,
  closureId,
}: {
  definition: ProjectDefinition;
  books: readonly ClosureBook[];
  closureId: string | undefined;
}) {
  if (books.length < 2) return null;
  return (
    <Picker
      label="Of"
      most={3}
      value={closureId ?? definition.project.id}
      onChange={(next) => router.setParams({ closure: next === definition.project.id ? '' : next })}
      options={[
        { value: definition.project.id, label: 'The whole project' },
        ...books.map(({ closure, site }) => ({ value: closure.id, label: site.name })),
      ]}
    />
  );
}
