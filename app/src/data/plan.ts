import type { Cable, Closure, ClosureModel, ProjectDefinition, Site } from '@cordel/core';
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answerOf, api } from './api';
import { snapshots } from '../sync/here';
import { keys } from './keys';

/** Edits of the route, of closures and of the catalogue. Each fails with status 409 and the newer copy when somebody else saved first. */

/** Saves all sites and cables of a project at once; what is not in the lists is taken away. */
export function useSaveLine(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (line: { version: number; sites: Site[]; cables: Cable[] }) =>
      answerOf<ProjectDefinition>(
        api.projects[':projectId'].line.$put({ param: { projectId }, json: line }) as never,
      ),
    onSuccess: (definition) => {
      client.setQueryData(keys.project(projectId), definition);
      void client.invalidateQueries({ queryKey: keys.progress(projectId) });
      void client.invalidateQueries({ queryKey: keys.shelf });
    },
  });
}

function useClosureSaved(projectId: string) {
  const client = useQueryClient();
  return (closure: Closure | null, removedId?: string) => {
    client.setQueryData<ProjectDefinition>(keys.project(projectId), (before) => {
      if (!before) return before;
      const others = before.closures.filter((one) => one.id !== (closure?.id ?? removedId));
      return { ...before, closures: closure ? [...others, closure] : others };
    });
    void client.invalidateQueries({ queryKey: keys.progress(projectId) });
    void client.invalidateQueries({ queryKey: keys.shelf });
  };
}

export function useSaveClosure(projectId: string) {
  const saved = useClosureSaved(projectId);
  return useMutation({
    mutationFn: async (closure: Closure) =>
      (
        await answerOf<{ closure: Closure }>(
          api.projects[':projectId'].closures[':closureId'].$put({
            param: { projectId, closureId: closure.id },
            json: closure,
          }) as never,
        )
      ).closure,
    onSuccess: (closure) => saved(closure),
  });
}

export function useCreateClosure(projectId: string) {
  const saved = useClosureSaved(projectId);
  return useMutation({
    mutationFn: async (closure: Closure) =>
      (
        await answerOf<{ closure: Closure }>(
          api.projects[':projectId'].closures.$post({ param: { projectId }, json: closure }) as never,
        )
      ).closure,
    onSuccess: (closure) => saved(closure),
  });
}

/** Refused where splices are recorded in it. */
export function useDeleteClosure(projectId: string) {
  const saved = useClosureSaved(projectId);
  return useMutation({
    mutationFn: ({ id, version }: Closure) =>
      answerOf<unknown>(
        api.projects[':projectId'].closures[':closureId'].$delete({
          param: { projectId, closureId: id },
          query: { version: String(version) },
        }) as never,
      ),
    onSuccess: (_, { id }) => saved(null, id),
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
  return useQuery(modelsQuery());
}

export function useSaveModel() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (model: ClosureModel) =>
      answerOf<{ models: ClosureModel[] }>(
        api.models[':modelId'].$put({ param: { modelId: model.id }, json: model }) as never,
      ),
    onSuccess: ({ models }) => client.setQueryData(keys.models, models),
  });
}

export function useDeleteModel() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, version }: ClosureModel) =>
      answerOf<{ models: ClosureModel[] }>(
        api.models[':modelId'].$delete({
          param: { modelId: id },
          query: { version: String(version) },
        }) as never,
      ),
    onSuccess: ({ models }) => client.setQueryData(keys.models, models),
  });
}

/** Sends a catalogue file as it was read; the server says line and field of what is wrong. */
export function useImportModels() {
  const client = useQueryClient();
  return useMutation({
    // The file itself: read as text here, letters of another encoding would be destroyed before the server can tell.
    mutationFn: (file: File) =>
      answerOf<{ taken: number; models: ClosureModel[] }>(
        fetch('/api/models/import', {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: file,
        }),
      ),
    onSuccess: ({ models }) => client.setQueryData(keys.models, models),
  });
}
