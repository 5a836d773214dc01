import type { ClosureModel, ProjectDefinition } from '@cordel/core';
import { listWithEdits, withEdits, type DocumentEdit } from '@cordel/core/edits';
import type { Gear } from '@cordel/core/gear';
import type { QueryClient } from '@tanstack/react-query';
import { keys } from './keys';

/**
 * Shows what the server has of a document now, without asking for it again, and has what is reckoned from it asked for anew.
 * @param scope the project, or "" for what all projects share
 * @param stored null: it was deleted
 */
export function showStored(
  client: QueryClient,
  scope: string,
  edit: DocumentEdit,
  stored: DocumentEdit['mine'],
): void {
  const { kind: of, documentId, base } = edit;
  const now = [{ kind: of, documentId, base, mine: stored } as DocumentEdit];
  if (edit.kind === 'model' || edit.kind === 'gear') {
    const { kind } = edit;
    client.setQueryData<(ClosureModel | Gear)[]>(
      kind === 'model' ? keys.models : keys.gear,
      (before) => before && (listWithEdits(before as never, now, kind) as (ClosureModel | Gear)[]),
    );
    void client.invalidateQueries({ queryKey: kind === 'model' ? keys.models : keys.gear, exact: true });
    return;
  }
  // A project that was made on this device comes to the server: then there is nothing before.
  client.setQueryData<ProjectDefinition>(keys.project(scope), (before) => withEdits(before, now));
  void client.invalidateQueries({ queryKey: keys.progress(scope) });
  void client.invalidateQueries({ queryKey: keys.shelf });
}
