import type { Project, ProjectDefinition, ProjectSettings } from '@cordel/core';
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answerOf, api, ProblemError } from './api';
import { snapshots } from '../sync/here';
import { keys } from './keys';

export const shelfQuery = () =>
  queryOptions({
    queryKey: keys.shelf,
    queryFn: snapshots().answer(() => answerOf(api.projects.$get())),
  });

export function useShelf() {
  return useQuery(shelfQuery());
}

export const projectQuery = (projectId: string) =>
  queryOptions({
    queryKey: keys.project(projectId),
    queryFn: snapshots().answer(() =>
      answerOf<ProjectDefinition>(api.projects[':projectId'].$get({ param: { projectId } })),
    ),
  });

/** A project's sites, cables, closures and settings. */
export function useProject(projectId: string) {
  return useQuery(projectQuery(projectId));
}

export const progressQuery = (projectId: string) =>
  queryOptions({
    queryKey: keys.progress(projectId),
    queryFn: snapshots().answer(
      async () =>
        (await answerOf(api.projects[':projectId'].progress.$get({ param: { projectId } }))).progress,
    ),
  });

/** How far each closure is, as the server counts. */
export function useProgress(projectId: string) {
  return useQuery(progressQuery(projectId));
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

/** How far an import is; `of` is 0 while the file is being read. */
export interface ImportProgress {
  readonly done: number;
  readonly of: number;
}

/** Sends a project file as it is; the server checks it and says line and field of what is wrong, and meanwhile how far it is. */
export function useImportProject(onProgress: (progress: ImportProgress) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => sendProjectFile(file, onProgress),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.shelf }),
  });
}

async function sendProjectFile(
  file: File,
  onProgress: (progress: ImportProgress) => void,
): Promise<{ id: string; name: string }> {
  let response: Response;
  try {
    response = await fetch('/api/import', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Accept: 'application/x-ndjson' },
      body: file,
    });
  } catch {
    return answerOf(Promise.reject(new Error()));
  }
  if (!response.headers.get('Content-Type')?.includes('x-ndjson') || !response.body)
    return answerOf<{ id: string; name: string }>(Promise.resolve(response));
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  for (;;) {
    const { done, value = '' } = await reader.read();
    const lines = (text + value).split('\n');
    text = lines.pop()!;
    for (const line of lines) {
      const said = JSON.parse(line) as {
        progress?: ImportProgress;
        taken?: { id: string; name: string };
        problem?: { detail: string; status: number; errors?: { path: string; message: string }[] };
      };
      if (said.taken) return said.taken;
      if (said.problem) throw new ProblemError(said.problem.detail, said.problem.status, said.problem);
      if (said.progress) onProgress(said.progress);
    }
    if (done)
      throw new Error('The server went away in the middle of the import. Nothing was changed; try again.');
  }
}

/** Addresses of the documents that a project hands over. */
export const documents = {
  lossSheet: (projectId: string, closureId?: string) =>
    `/api/projects/${projectId}/loss-sheet.csv${closureId ? `?closure=${closureId}` : ''}`,
  project: (projectId: string) => `/api/projects/${projectId}/project.json`,
  catalogue: '/api/models.json',
};
