import type { ProjectDefinition } from '@cordel/core';
import { makeProject } from './makeProject';
import { dataFolder, removeFolders, request, startServer, type ServerProcess } from './process';

/** What a refused request says. */
export interface ProblemBody {
  title: string;
  detail: string;
  request?: string;
  errors?: { path: string; message: string }[];
  current?: { version: number };
}
export interface Receipt {
  accepted: { id: string; seq: number; receivedAt: string }[];
  refused: { id: string; path?: string; message: string }[];
}

/** A new project on a server, with its addresses. */
export async function newProjectOn(api: string, tubes = 2) {
  const made = makeProject(tubes);
  const { status } = await request(`${api}/projects`, 'POST', made.definition);
  if (status !== 201) throw new Error(`The project was answered with ${status}.`);
  const project = `${api}/projects/${made.definition.project.id}`;
  return {
    ...made,
    project,
    factsUrl: `${project}/closures/${made.closureId}/facts`,
    read: async () => (await request<ProjectDefinition>(project)).body,
    post: (facts: readonly unknown[]) => request<Receipt>(`${project}/facts`, 'POST', { facts }),
  };
}

/** All that can be seen of a shelf, and what only the database knows: what was deleted. */
export async function allOf(url: string) {
  const { body } = await request<{ shelf: { project: { id: string } }[]; deleted: unknown[] }>(
    `${url}/api/projects`,
  );
  const files = await Promise.all(
    body.shelf.map(async ({ project }) =>
      (await fetch(`${url}/api/projects/${project.id}/project.json`)).text(),
    ),
  );
  const models = await (await fetch(`${url}/api/models.json`)).text();
  const gear = (await request(`${url}/api/gear`)).body;
  const book = (await request<{ book: unknown }>(`${url}/api/gear/book`)).body.book;
  return { files, deleted: body.deleted, models, gear, book };
}

/** A server on an empty shelf for all tests of a file. None of them may make it fail: what is wrong with a request is told, not logged as a mistake of ours. */
export function oneServer(
  onStarted: (server: ServerProcess, api: string) => void,
  environment: Record<string, string> = {},
): void {
  let server: ServerProcess;
  beforeAll(async () => {
    server = await startServer(dataFolder('empty'), environment);
    onStarted(server, `${server.url}/api`);
  }, 60_000);
  afterAll(async () => {
    await server.stop();
    removeFolders();
    expect(server.output()).not.toContain('request failed');
  });
}
