import type { ProjectDefinition, ProjectFile } from '@cordel/core';
import {
  lineOf,
  readEdit,
  sameDocument,
  settingsOf,
  withEdits,
  withoutEdits,
  type DocumentEdit,
} from '@cordel/core/edits';
import type { QueryClient } from '@tanstack/react-query';
import { engine } from '../sync/here';
import { ProblemError } from './api';
import { keys } from './keys';
import type { ProjectFileAnswer } from './projectFile.worker';
import { projectQuery } from './projects';

/** What a file that was handed from device to device brought here. */
export interface TakenHere {
  readonly id: string;
  readonly name: string;
  /** It was not on this device before. */
  readonly fresh: boolean;
  /** Records that were not here before. */
  readonly records: number;
  /** Documents that came newer, or changed. */
  readonly changes: number;
  /** Of these, that were changed here too: the person decides. */
  readonly undecided: number;
}

/**
 * Takes a project file on this device, with or without a network: facts by their ids, documents by their versions; what both devices changed is decided by the person. What
 * is new goes to the server from here too.
 */
export async function takeFileHere(client: QueryClient, file: File): Promise<TakenHere> {
  const read = await readFile(file);
  const edits = editsOf(read);
  const { project, sites, cables, closures } = read;
  const shown: ProjectDefinition = { project, sites, cables, closures };
  const { id, name } = project;
  await engine().ready;
  const stored = await storedHere(client, id);
  const facts = read.facts.map(({ fact }) => fact);
  const here = withEdits(stored, engine().edits.of(id));
  if (!here) {
    // As the server had it, or as it was made; what was edited since follows.
    const made = edits.find((edit) => edit.kind === 'project');
    const base = made ? (made.mine as ProjectDefinition) : withoutEdits(shown, edits)!;
    await engine().keepEdit(id, { kind: 'project', documentId: id, base: null, mine: base });
    const others = edits.filter((edit) => edit.kind !== 'project');
    const { records } = await engine().take(id, facts, others);
    return { id, name, fresh: true, records, changes: others.length, undecided: 0 };
  }
  const theirs = withoutEdits(shown, edits);
  // What another device read of the server after this one. Made there, and known here, it was handed over before.
  const newer = stored && theirs ? newerParts(stored, theirs) : [];
  if (stored && newer.length > 0) {
    client.setQueryData<ProjectDefinition>(keys.project(id), (before) => before && withEdits(before, newer));
    // The server knows best, where it answers.
    void client.invalidateQueries({ queryKey: keys.project(id), exact: true });
  }
  const before = engine().edits.of(id);
  const { records } = await engine().take(
    id,
    facts,
    edits.filter((edit) => edit.kind !== 'project'),
  );
  const changed = engine()
    .edits.of(id)
    .filter((edit) => !before.includes(edit));
  return {
    id,
    name,
    fresh: false,
    records,
    changes: newer.length + changed.length,
    undecided: changed.filter((edit) => edit.theirs !== null).length,
  };
}

/** The project as the server has it, as far as this device knows; undefined where it does not. */
async function storedHere(client: QueryClient, projectId: string): Promise<ProjectDefinition | undefined> {
  if (engine().edits.unborn(projectId)) return undefined;
  try {
    return await client.fetchQuery({ ...projectQuery(projectId), retry: false });
  } catch (error) {
    // Neither on the server nor on the disk; or on neither that can be reached.
    if (error instanceof ProblemError && error.status !== 404) throw error;
    return client.getQueryData<ProjectDefinition>(keys.project(projectId));
  }
}

/** Documents of a project that a file has in a higher version, as if they were edits of it. */
function newerParts(here: ProjectDefinition, there: ProjectDefinition): DocumentEdit[] {
  const { id } = here.project;
  const parts: DocumentEdit[] = [];
  if (there.project.version > here.project.version)
    parts.push({ kind: 'settings', documentId: id, base: null, mine: settingsOf(there) });
  if (there.project.lineVersion > here.project.lineVersion)
    parts.push({ kind: 'line', documentId: id, base: null, mine: lineOf(there) });
  for (const closure of there.closures) {
    const known = here.closures.find((one) => one.id === closure.id);
    if (known ? closure.version > known.version && !sameDocument(closure, known) : closure.version >= 1)
      parts.push({ kind: 'closure', documentId: closure.id, base: null, mine: closure });
  }
  return parts;
}

function editsOf({ edits }: ProjectFile): DocumentEdit[] {
  return edits.map((raw) => {
    const edit = readEdit(raw);
    if (!edit)
      throw new Error(
        'A change in this file cannot be read by this Cordel, so nothing was taken. Update Cordel, or have the file made anew.',
      );
    return edit;
  });
}

async function readFile(file: File): Promise<ProjectFile> {
  const thread = new Worker('/projectFile.worker.js', { type: 'module' });
  try {
    const answer = await new Promise<ProjectFileAnswer>((done, fail) => {
      thread.onmessage = ({ data }: MessageEvent<ProjectFileAnswer>) => done(data);
      thread.onerror = () => fail(new Error(noReader));
      thread.postMessage(file);
    });
    if ('file' in answer) return answer.file;
    const { problems, count } = answer;
    const errors = problems.map(({ path, message }) => ({ path: path.join('.'), message }));
    const first = errors[0]!;
    const more = count > 1 ? ` And ${count - 1} more.` : '';
    throw new ProblemError(`${first.path ? `${first.path}: ` : ''}${first.message}${more}`, 400, { errors });
  } finally {
    thread.terminate();
  }
}

const noReader =
  'What reads files is not on this device yet, or this browser does not run it. Nothing was taken; try again with a network.';
