import type { Closure, ClosureModel, Project, ProjectDefinition } from '@cordel/core';
import { lineOf, settingsOf, type DocumentEdit } from '@cordel/core/edits';
import type { Gear } from '@cordel/core/gear';
import { answerOf, api, ProblemError } from '../data/api';
import type { EditAnswer } from './surroundings';

/** Somebody stands before the screen: a server that takes longer is as good as none, and what was entered is kept. ms */
const patience = 8000;

type Stored = DocumentEdit['mine'];

/**
 * Stores an edit on the server. Rejects with `ProblemError` where it refused (status 409: somebody was quicker), with another error where it is not known what
 * became of it.
 * @param scope the project, or "" for what all projects share
 * @param edit `base` says in which version it was made from
 * @returns what the server has now; null where it was deleted
 */
export async function storeDocument(scope: string, edit: DocumentEdit): Promise<Stored> {
  const init = { init: { signal: AbortSignal.timeout(patience) } };
  const { documentId: id } = edit;
  const version = edit.base && 'version' in edit.base ? edit.base.version : 1;
  const seen = { query: { version: String(version) } };
  const project = api.projects[':projectId'];
  const ofProject = { param: { projectId: scope } };
  switch (edit.kind) {
    case 'project':
      await answerOf(api.projects.$post({ json: edit.mine! }, init));
      return edit.mine;
    case 'settings': {
      const asked = project.settings.$put({ ...ofProject, json: { ...edit.mine!, version } }, init);
      return settingsOf(await answerOf<{ project: Project }>(asked as never));
    }
    case 'line': {
      const asked = project.line.$put({ ...ofProject, json: { ...edit.mine!, version } }, init);
      return lineOf(await answerOf<ProjectDefinition>(asked as never));
    }
    case 'closure': {
      const one = project.closures[':closureId'];
      const param = { projectId: scope, closureId: id };
      if (!edit.mine) return gone(one.$delete({ param, ...seen }, init) as never);
      const json = { ...edit.mine, version };
      const asked = edit.base
        ? one.$put({ param, json }, init)
        : project.closures.$post({ ...ofProject, json }, init);
      return (await answerOf<{ closure: Closure }>(asked as never)).closure;
    }
    case 'model': {
      const one = api.models[':modelId'];
      const param = { modelId: id };
      if (!edit.mine) return gone(one.$delete({ param, ...seen }, init) as never);
      const asked = one.$put({ param, json: { ...edit.mine, version } }, init);
      return among(id, (await answerOf<{ models: ClosureModel[] }>(asked as never)).models);
    }
    case 'gear': {
      const one = api.gear[':gearId'];
      const param = { gearId: id };
      if (!edit.mine) return gone(one.$delete({ param, ...seen }, init) as never);
      const asked = one.$put({ param, json: { ...edit.mine, version } }, init);
      return among(id, (await answerOf<{ gear: Gear[] }>(asked as never)).gear);
    }
  }
}

/** It is not there any more, whoever deleted it. */
async function gone(asked: Parameters<typeof answerOf>[0]): Promise<null> {
  await answerOf(asked).catch((error: unknown) => {
    if (!(error instanceof ProblemError) || error.status !== 404) throw error;
  });
  return null;
}

/** As it stands in the list that the server answers with; another may have deleted it in the same moment. */
const among = <T extends { readonly id: string }>(id: string, list: readonly T[]): T | null =>
  list.find((one) => one.id === id) ?? null;

/**
 * Sends an edit that was kept, and says what became of it. Rejects where that is not known.
 * @param final the words with which the server refused for good; null where it could not be reached, or is in trouble itself
 */
export async function sendEdit(
  scope: string,
  edit: DocumentEdit,
  final: (error: unknown) => string | null,
): Promise<EditAnswer> {
  try {
    return { stored: await storeDocument(scope, edit) };
  } catch (error) {
    const refused = final(error);
    if (refused === null || !(error instanceof ProblemError)) throw error;
    if (error.status !== 409) return { refused };
    const theirs = await newerOf(scope, edit, error.problem.current);
    return theirs ? { theirs } : { refused };
  }
}

/** What somebody else stored of it first; null where there is none, so that something else stands in the way. */
async function newerOf(
  scope: string,
  edit: DocumentEdit,
  current: unknown,
): Promise<NonNullable<Stored> | null> {
  if (edit.kind === 'settings' && current) return settingsOf({ project: current as Project });
  if (edit.kind === 'line' && current) return lineOf(current as ProjectDefinition);
  if (current) return current as NonNullable<Stored>;
  // What is made anew is there already.
  if (edit.base !== null || (edit.kind !== 'project' && edit.kind !== 'closure')) return null;
  const definition = await answerOf<ProjectDefinition>(
    api.projects[':projectId'].$get({ param: { projectId: scope } }) as never,
  ).catch((error: unknown) => {
    if (error instanceof ProblemError && error.status === 404) return null;
    throw error;
  });
  if (edit.kind === 'project') return definition;
  return definition?.closures.find((one) => one.id === edit.documentId) ?? null;
}
