import type { Project, ProjectDefinition, ProjectSettings } from '@cordel/core';
import { settingsOf, withEdits } from '@cordel/core/edits';
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import type { StoredEdit } from '../sync/editList';
import { engine, snapshots } from '../sync/here';
import { useAllEdits, useEdits, useEditsKnown } from '../sync/react';
import { answerOf, api, needsServer, ProblemError } from './api';
import { keys } from './keys';
import { takeFileHere, type TakenHere } from './handedFile';
import { saveDocument } from './saveDocument';

export const shelfQuery = () =>
  queryOptions({
    queryKey: keys.shelf,
    queryFn: snapshots().answer(() => answerOf(api.projects.$get())),
  });

/** All projects, those too that were made on this device and are nowhere else yet. */
export function useShelf() {
  const { data: stored, error, refetch } = useQuery(shelfQuery());
  const edits = useAllEdits();
  const known = useEditsKnown();
  const data = useMemo(() => {
    const made = edits.flatMap((edit) => (edit.kind === 'project' && edit.mine ? [edit.scope] : []));
    if (!known || (!stored && made.length === 0)) return undefined;
    const { shelf, deleted } = stored ?? { shelf: [], deleted: [] };
    const there = new Set(shelf.map((one) => one.project.id));
    return {
      shelf: [...shelf, ...made.filter((id) => !there.has(id)).map(summaryOf)],
      deleted,
    };
  }, [stored, edits, known]);
  return { data, error: data ? null : error, refetch };
}

/** Of a project that was made on this device: its counts are made from its own records. */
function summaryOf(projectId: string) {
  const { project, sites } = withEdits(undefined, engine().edits.of(projectId))!;
  return {
    project,
    siteCount: sites.length,
    lengthMeters: sites.reduce((most, site) => Math.max(most, site.chainage), 0),
    progress: [],
  };
}

export const projectQuery = (projectId: string) =>
  queryOptions({
    queryKey: keys.project(projectId),
    queryFn: snapshots().answer(() =>
      answerOf<ProjectDefinition>(api.projects[':projectId'].$get({ param: { projectId } })),
    ),
  });

const edited = new WeakMap<object, { edits: readonly StoredEdit[]; definition: ProjectDefinition }>();
const noProject = {};

/** A project as the server has it, with the edits that wait on this device. The same for the same two. */
export function shownProject(
  stored: ProjectDefinition | undefined,
  edits: readonly StoredEdit[],
): ProjectDefinition | undefined {
  if (edits.length === 0) return stored;
  const key =
    stored ?? (edits.find((edit) => edit.kind === 'project')?.mine as object | undefined) ?? noProject;
  const known = edited.get(key);
  if (known?.edits === edits) return known.definition;
  const definition = withEdits(stored, edits);
  if (definition) edited.set(key, { edits, definition });
  return definition;
}

/** A project's sites, cables, closures and settings, with what was edited on this device and is not on the server yet. */
export function useProject(projectId: string) {
  const edits = useEdits(projectId);
  // What is made here, and nowhere else yet, is not asked for.
  const {
    data: stored,
    error,
    refetch,
  } = useQuery({
    ...projectQuery(projectId),
    enabled: !engine().edits.unborn(projectId),
  });
  const known = useEditsKnown();
  const data = known ? shownProject(stored, edits) : undefined;
  const again = useCallback(async () => {
    const { data: newest } = await refetch();
    return { data: shownProject(newest, engine().edits.of(projectId)) };
  }, [refetch, projectId]);
  return { data, error: data ? null : error, refetch: again };
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
  return useQuery({ ...progressQuery(projectId), enabled: !engine().edits.unborn(projectId) });
}

export function useCreateProject() {
  return useMutation({
    mutationFn: (definition: ProjectDefinition) => {
      const { id } = definition.project;
      return saveDocument(id, { kind: 'project', documentId: id, base: null, mine: definition });
    },
  });
}

/** What a person edits of a project as a whole. */
export function editedOf({ id: _, version: __, lineVersion: ___, ...settings }: Project): ProjectSettings {
  return settings;
}

/** Fails with status 409 and the newer copy when somebody else saved first. */
export function useSaveSettings(projectId: string) {
  return useMutation({
    mutationFn: async ({
      base,
      settings,
    }: {
      base: Project;
      settings: ProjectSettings;
    }): Promise<Project> => {
      const before = settingsOf({ project: base });
      const mine = { ...settings, version: base.version };
      const edit = { kind: 'settings', documentId: projectId, base: before, mine } as const;
      return { ...base, ...(await saveDocument(projectId, edit))! };
    },
  });
}

export function useDeleteProject() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (projectId: string) =>
      needsServer(answerOf<unknown>(api.projects[':projectId'].$delete({ param: { projectId } }))),
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
      needsServer(answerOf<unknown>(api.projects[':projectId'].restore.$post({ param: { projectId } }))),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.shelf }),
  });
}

/** How far an import is; `of` is 0 while the file is being read. */
export interface ImportProgress {
  readonly done: number;
  readonly of: number;
}

/**
 * Takes a project file: onto the server, which checks it and says line and field of what is wrong, and meanwhile how far it is; on this device, and so to the server,
 * where the project is there already, or the server does not answer.
 */
export function useImportProject(onProgress: (progress: ImportProgress) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (file: File): Promise<{ id: string; name: string } & Partial<TakenHere>> => {
      try {
        return await sendProjectFile(file, onProgress);
      } catch (error) {
        const refused = error instanceof ProblemError && error.status < 500;
        if (refused && error.problem.title !== 'Already here') throw error;
        return takeFileHere(client, file);
      }
    },
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
        problem?: {
          title: string;
          detail: string;
          status: number;
          errors?: { path: string; message: string }[];
        };
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
