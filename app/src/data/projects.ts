import type { Project, ProjectDefinition, ProjectSettings } from '@cordel/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answerOf, api } from './api';
import { keys } from './keys';

export function useShelf() {
  return useQuery({
    queryKey: keys.shelf,
    queryFn: () => answerOf(api.projects.$get()),
  });
}

/** A project's sites, cables, closures and settings. */
export function useProject(projectId: string) {
  return useQuery({
    queryKey: keys.project(projectId),
    queryFn: () => answerOf<ProjectDefinition>(api.projects[':projectId'].$get({ param: { projectId } })),
  });
}

/** How far each closure is, as the server counts. */
export function useProgress(projectId: string) {
  return useQuery({
    queryKey: keys.progress(projectId),
    queryFn: async () =>
      (await answerOf(api.projects[':projectId'].progress.$get({ param: { projectId } }))).progress,
  });
}

export function useCreateProject() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (definition: ProjectDefinition) => answerOf(api.projects.$post({ json: definition })),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.shelf }),
  });
}

/** Fails with status 409 and the newer copy when somebody else saved first. */
export function useSaveSettings(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (settings: ProjectSettings & { version: number }) => {
      const request = api.projects[':projectId'].settings.$put({ param: { projectId }, json: settings });
      return (await answerOf<{ project: Project }>(request as never)).project;
    },
    onSuccess: (project) => {
      client.setQueryData<ProjectDefinition>(
        keys.project(projectId),
        (before) => before && { ...before, project },
      );
      void client.invalidateQueries({ queryKey: keys.progress(projectId) });
      void client.invalidateQueries({ queryKey: keys.shelf });
    },
  });
}

export function useDeleteProject() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (projectId: string) =>
      answerOf<unknown>(api.projects[':projectId'].$delete({ param: { projectId } })),
    onSuccess: (_, projectId) => {
      client.removeQueries({ queryKey: keys.project(projectId) });
      void client.invalidateQueries({ queryKey: keys.shelf });
    },
  });
}

/** Puts a deleted project back on the shelf. */
export function useRestoreProject() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (projectId: string) =>
      answerOf<unknown>(api.projects[':projectId'].restore.$post({ param: { projectId } })),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.shelf }),
  });
}

/** Sends a project file as it was read; the server checks it and says line and field of what is wrong. */
export function useImportProject() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (text: string) =>
      answerOf<{ id: string; name: string }>(
        fetch('/api/import', {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: text,
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.shelf }),
  });
}

/** Addresses of the documents that a project hands over. */
export const documents = {
  lossSheet: (projectId: string, closureId?: string) =>
    `/api/projects/${projectId}/loss-sheet.csv${closureId ? `?closure=${closureId}` : ''}`,
  project: (projectId: string) => `/api/projects/${projectId}/project.json`,
  catalogue: '/api/models.json',
};
