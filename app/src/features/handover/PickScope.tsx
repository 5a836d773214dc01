import type { ProjectDefinition } from '@cordel/core';
import { Picker } from '../../ui/Picker';
import type { ClosureBook } from './useBooks';

/** Whether it is about the whole project, or one closure. */
export function PickScope({
  definition,
  books,
  closureId,
  onPick,
}: {
  definition: ProjectDefinition;
  books: readonly ClosureBook[];
  closureId: string | undefined;
  onPick: (closureId: string | null) => void;
}) {
  if (books.length < 2) return null;
  return (
    <Picker
      label="Of"
      most={3}
      value={closureId ?? definition.project.id}
      onChange={(next) => onPick(next === definition.project.id ? null : next)}
      options={[
        { value: definition.project.id, label: 'The whole project' },
        ...books.map(({ closure, site }) => ({ value: closure.id, label: site.name })),
      ]}
    />
  );
}
