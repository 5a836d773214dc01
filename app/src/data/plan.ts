import type { Cable, Closure, ClosureModel, ProjectDefinition, Site } from '@cordel/core';
import { lineOf } from '@cordel/core/edits';
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { snapshots } from '../sync/here';
import { answerOf, api, needsServer } from './api';
import { keys } from './keys';
import { saveDocument } from './saveDocument';
import { useShownList } from './shownList';

/**
 * Edits of the route, of closures and of the catalogue. Each fails with status 409 and the newer copy when somebody else saved first, and waits on this device where
 * the server does not answer.
 */

/** Saves all sites and cables of a project at once; what is not in the lists is taken away. Resolves with the project as it stands then. */
export function useSaveLine(projectId: string) {
  return useMutation({
    mutationFn: async ({
      base,
      sites,
      cables,
    }: {
      /** What the editing began from. */
      base: ProjectDefinition;
      sites: Site[];
      cables: Cable[];
    }): Promise<ProjectDefinition> => {
      const before = lineOf(base);
      const mine = { version: before.version, sites, cables };
      const stored = await saveDocument(projectId, {
        kind: 'line',
        documentId: projectId,
        base: before,
        mine,
      } as const);
      const { version, ...line } = stored!;
      return { ...base, ...line, project: { ...base.project, lineVersion: version } };
    },
  });
}

/** @param base what the editing began from; null: a new closure */
const closureEdit = (id: string, base: Closure | null, mine: Closure | null) =>
  ({ kind: 'closure', documentId: id, base, mine }) as const;

export function useSaveClosure(projectId: string) {
  return useMutation({
    mutationFn: async ({ base, closure }: { base: Closure; closure: Closure }) =>
      (await saveDocument(projectId, closureEdit(closure.id, base, closure)))!,
  });
}

export function useCreateClosure(projectId: string) {
  return useMutation({
    mutationFn: async (closure: Closure) =>
      (await saveDocument(projectId, closureEdit(closure.id, null, closure)))!,
  });
}

/** Refused where splices are recorded in it. */
export function useDeleteClosure(projectId: string) {
  return useMutation({
    mutationFn: (closure: Closure) => saveDocument(projectId, closureEdit(closure.id, closure, null)),
  });
}

export const modelsQuery = () =>
  queryOptions({
    queryKey: keys.models,
    queryFn: snapshots().answer(
      async () => (await answerOf<{ models: ClosureModel[] }>(api.models.$get() as never)).models,
    ),
  });

export function useModels() {
  const { data: stored, error, refetch } = useQuery(modelsQuery());
  return { data: useShownList(stored, 'model', nameOf), error, refetch };
}

const nameOf = (one: ClosureModel) => one.name;

/** @param base what the editing began from; null: a new model */
const modelEdit = (id: string, base: ClosureModel | null, mine: ClosureModel | null) =>
  ({ kind: 'model', documentId: id, base, mine }) as const;

export function useSaveModel() {
  return useMutation({
    mutationFn: async ({ base, model }: { base: ClosureModel | null; model: ClosureModel }) =>
      (await saveDocument('', modelEdit(model.id, base, model)))!,
  });
}

export function useDeleteModel() {
  return useMutation({
    mutationFn: (model: ClosureModel) => saveDocument('', modelEdit(model.id, model, null)),
  });
}

/** Sends a catalogue file as it was read; the server says line and field of what is wrong. */
export function useImportModels() {
  const client = useQueryClient();
  return useMutation({
    // The file itself: read as text here, letters of another encoding would be destroyed before the server can tell.
    mutationFn: (file: File) =>
      needsServer(
        answerOf<{ taken: number; models: ClosureModel[] }>(
          fetch('/api/models/import', {
            method: 'POST',
            headers: { 'Content-Type': 'application/json' },
            body: file,
          }),
        ),
      ),
    onSuccess: ({ models }) => client.setQueryData(keys.models, models),
  });
}
